import { type InputHTMLAttributes, useId, useState } from "react";
import { t } from "@/words/ui";

interface Props extends InputHTMLAttributes<HTMLInputElement> {
  label: string;
  wrong?: string | undefined;
}

/** A labelled text box of a form, with what is wrong beneath it; what is hidden while it is typed can be shown. */
export function Field({ label, wrong, className = "", type, ...rest }: Props) {
  const id = useId();
  const [shown, setShown] = useState(false);
  const hidden = type === "password";
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-[15px] font-semibold">
        {label}
      </label>
      <div className="relative">
        <input
          id={id}
          type={hidden && shown ? "text" : type}
          enterKeyHint="done"
          aria-invalid={Boolean(wrong)}
          aria-describedby={wrong ? `${id}-wrong` : undefined}
          className={`tape min-h-11 w-full rounded-md border bg-paper px-2.5 ${hidden ? "pr-20" : ""} ${wrong ? "border-stop" : "border-line"}`}
          {...rest}
        />
        {hidden && (
          <button
            type="button"
            aria-pressed={shown}
            onClick={() => setShown(!shown)}
            className="absolute inset-y-0 right-0 min-w-16 rounded-md px-3 text-[15px] font-semibold text-accent"
          >
            {shown ? t("password.hide") : t("password.show")}
          </button>
        )}
      </div>
      {wrong && (
        <p id={`${id}-wrong`} className="mt-1 text-[15px] text-stop">
          {wrong}
        </p>
      )}
    </div>
  );
}
