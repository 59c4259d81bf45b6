import { DropdownMenu } from "radix-ui";
import { type ReactNode, useState } from "react";
import { landmark } from "./landmark";
import { staysPut } from "./stays-put";

interface Props {
  trigger: ReactNode;
  align?: "start" | "end";
  children: ReactNode;
}

/**
 * A menu that opens when the press is over: one that opened under a finger still down would take
 * the lifting of the finger for a choice. After a choice the focus goes where the choice sends it.
 */
export function Menu({ trigger, align = "start", children }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <DropdownMenu.Root modal={false} open={open} onOpenChange={setOpen}>
      <DropdownMenu.Trigger
        asChild
        onPointerDown={(event) => {
          event.preventDefault();
          // What was pressed is meant, even if the page grows above it before the press is over.
          event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onClick={() => setOpen(!open)}
      >
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal container={landmark()}>
        <DropdownMenu.Content
          ref={staysPut}
          align={align}
          collisionPadding={8}
          loop
          className="z-50 max-h-(--radix-dropdown-menu-content-available-height) min-w-[min(20rem,94vw)] max-w-[94vw] overflow-auto rounded-md border border-ink bg-paper p-1 shadow-lg"
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

interface ItemProps {
  onSelect: () => void;
  disabled?: boolean;
  children: ReactNode;
}

export function MenuItem({ onSelect, disabled = false, children }: ItemProps) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      disabled={disabled}
      className="flex min-h-11 items-center gap-3 rounded-sm px-3 outline-none data-disabled:opacity-40 data-highlighted:bg-tint"
    >
      {children}
    </DropdownMenu.Item>
  );
}
