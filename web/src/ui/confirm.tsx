import { AlertDialog } from "radix-ui";
import type { ReactNode } from "react";
import { t } from "@/words/ui";
import { Button } from "./button";

interface Asked {
  title: string;
  says: string;
  act: string;
  onAct: () => void;
  keep?: string;
}

/** Asks before something is taken away. */
export function Confirm({ trigger, ...asked }: Asked & { trigger: ReactNode }) {
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>{trigger}</AlertDialog.Trigger>
      <Question {...asked} />
    </AlertDialog.Root>
  );
}

/** Asks at once, until it is answered. */
export function Ask({ onKeep, ...asked }: Asked & { onKeep: () => void }) {
  return (
    <AlertDialog.Root open onOpenChange={(open) => !open && onKeep()}>
      <Question {...asked} />
    </AlertDialog.Root>
  );
}

function Question({ title, says, act, onAct, keep = t("keep") }: Asked) {
  return (
    <AlertDialog.Portal>
      <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
      <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 max-h-[94dvh] w-[min(26rem,92vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-lg border border-ink bg-paper p-5 shadow-xl">
        <AlertDialog.Title className="text-xl font-bold">{title}</AlertDialog.Title>
        <AlertDialog.Description className="mt-2 text-soft">{says}</AlertDialog.Description>
        <div className="mt-5 flex justify-end gap-2">
          <AlertDialog.Cancel asChild>
            <Button className="min-h-11">{keep}</Button>
          </AlertDialog.Cancel>
          <AlertDialog.Action asChild>
            <Button look="main" className="min-h-11" onClick={onAct}>
              {act}
            </Button>
          </AlertDialog.Action>
        </div>
      </AlertDialog.Content>
    </AlertDialog.Portal>
  );
}
