import { Popover } from "radix-ui";
import type { ReactNode } from "react";

/** A word that explains itself when asked. */
export function Term({ meaning, children }: { meaning: string; children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger className="cursor-help rounded-sm decoration-accent/70 decoration-dotted underline-offset-4 hover:underline focus-visible:underline">
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="bottom"
          align="start"
          sideOffset={6}
          collisionPadding={8}
          className="z-50 max-h-(--radix-popover-content-available-height) max-w-[min(20rem,94vw)] overflow-auto rounded-md border border-ink bg-paper px-3.5 py-2.5 text-base leading-snug shadow-lg"
        >
          {meaning}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
