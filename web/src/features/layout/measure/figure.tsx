import { type ReactNode, useEffect, useRef } from "react";
import { OnwardContext } from "@/ui/tape-field";

interface FigureProps {
  drawn?: ReactNode;
  asks: string;
  does?: string | undefined;
  goOn: () => void;
  children: ReactNode;
}

/** A figure with its question, and where the tape hooks and reads; it has the focus, and what follows is the next question. */
export function Figure({ drawn, asks, does, goOn, children }: FigureProps) {
  const ref = useRef<HTMLDivElement>(null);
  useEffect(() => {
    ref.current?.querySelector<HTMLInputElement>("input[data-tape]")?.focus();
  }, []);
  return (
    <OnwardContext value={goOn}>
      <div ref={ref} className="flex flex-col gap-1">
        <div className="flex items-center gap-3">
          {drawn}
          <div className="min-w-0">
            <h2 className="text-xl leading-tight font-bold first-letter:uppercase">{asks}</h2>
            {does && <p className="text-[15px] leading-tight text-soft">{does}</p>}
          </div>
        </div>
        {children}
      </div>
    </OnwardContext>
  );
}
