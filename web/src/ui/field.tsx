import { type InputHTMLAttributes, useId } from "react";

interface Props extends InputHTMLAttributes<HTMLInputElement> {
  label: string;
  wrong?: string | undefined;
}

/** A labelled text box of a form, with what is wrong beneath it. */
export function Field({ label, wrong, className = "", ...rest }: Props) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-[15px] font-semibold">
        {label}
      </label>
      <input
        id={id}
        enterKeyHint="done"
        aria-invalid={Boolean(wrong)}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        className={`tape min-h-11 w-full rounded-md border bg-paper px-2.5 ${wrong ? "border-stop" : "border-line"}`}
        {...rest}
      />
      {wrong && (
        <p id={`${id}-wrong`} className="mt-1 text-[15px] text-stop">
          {wrong}
        </p>
      )}
    </div>
  );
}
