/** How a menu and its items look. */
export const MENU =
  "z-50 max-h-[80dvh] min-w-80 overflow-auto rounded-md border border-ink bg-paper p-1 shadow-lg";
export const MENU_ITEM =
  "flex min-h-11 items-center gap-3 rounded-sm px-3 outline-none data-disabled:opacity-40 data-highlighted:bg-tint";
