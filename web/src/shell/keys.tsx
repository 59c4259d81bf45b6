import { Dialog } from "radix-ui";
import { lazy, Suspense, useEffect, useState } from "react";
import { Button } from "@/ui/button";
import { t } from "@/words/shell";

// Fetched when it is asked for.
const Jump = lazy(() => import("./jump").then((module) => ({ default: module.Jump })));

const KEYS: [keys: string, does: string][] = [
  ["Enter", t("keys.next")],
  ["↑ ↓", t("keys.nudge")],
  ["Alt + ↑ ↓", t("keys.move")],
  ["Alt + C, Alt + O", t("keys.duplicate")],
  ["Alt + Delete", t("keys.remove")],
  ["Ctrl + Z, Ctrl + Y", t("keys.undo")],
  ["Ctrl + S", t("keys.save")],
  ["Ctrl + K", t("keys.jump")],
  ["?", t("keys.these")],
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
        <Dialog.Content className="fixed top-1/2 left-1/2 z-50 max-h-[94dvh] w-[min(34rem,92vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-lg border border-ink bg-paper p-5 shadow-xl">
          <Dialog.Title className="text-xl font-bold">{t("keys.title")}</Dialog.Title>
          <Dialog.Description className="sr-only">{t("keys.what")}</Dialog.Description>
          <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
            {KEYS.map(([keys, does]) => (
              <div key={keys} className="contents">
                <dt className="font-semibold whitespace-nowrap">{keys}</dt>
                <dd className="text-soft">{does}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close asChild>
            <Button className="mt-5 min-h-11">{t("keys.close")}</Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
