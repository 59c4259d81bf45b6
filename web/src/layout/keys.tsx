import { Dialog } from "radix-ui";
import { lazy, Suspense, useEffect, useState } from "react";
import { Button } from "@/ui/button";

// Fetched when it is asked for.
const Jump = lazy(() => import("./jump").then((module) => ({ default: module.Jump })));

const KEYS: [keys: string, does: string][] = [
  ["Enter", "to the next figure; after the last one to what you add next"],
  ["↑ ↓", "a division of the tape more or less; with Shift an inch (10 mm)"],
  ["Alt + ↑ ↓", "the step up or down"],
  ["Alt + C, Alt + O", "another step like it; leave it out, or put it back"],
  ["Alt + Delete", "remove the step"],
  ["Ctrl + Z, Ctrl + Y", "undo, redo"],
  ["Ctrl + S", "says how it stands; all is saved as you type"],
  ["Ctrl + K", "go to a run, a step, a piece, a shoe, a page"],
  ["?", "these keys"],
];

const isTyping = ({ target }: KeyboardEvent): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || target.matches("input, textarea, select"));

/** The keys that are good on every page, and what opens by them. */
export function Keys() {
  const [open, setOpen] = useState<"keys" | "jump" | null>(null);
  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      const withControl = event.ctrlKey || event.metaKey;
      if (withControl && event.key.toLowerCase() === "k") setOpen("jump");
      else if (event.key === "?" && !withControl && !isTyping(event)) setOpen("keys");
      else return;
      event.preventDefault();
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  const close = () => setOpen(null);
  if (open === "jump")
    return (
      <Suspense>
        <Jump onClose={close} />
      </Suspense>
    );
  return (
    <Dialog.Root open={open === "keys"} onOpenChange={close}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content className="fixed top-[12vh] left-1/2 z-50 w-[min(34rem,92vw)] -translate-x-1/2 rounded-lg border border-ink bg-paper p-5 shadow-xl">
          <Dialog.Title className="text-xl font-bold">Keys</Dialog.Title>
          <Dialog.Description className="sr-only">What each key does</Dialog.Description>
          <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
            {KEYS.map(([keys, does]) => (
              <div key={keys} className="contents">
                <dt className="font-semibold whitespace-nowrap">{keys}</dt>
                <dd className="text-soft">{does}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close asChild>
            <Button className="mt-5 min-h-11">Close</Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
