import type { ReactNode } from "react";

/** What is said on every page, beneath its header, for as long as it is so. */
export function StatusLine({ children }: { children: ReactNode }) {
  return (
    <p role="status" className="border-b border-line bg-tint px-4 py-2 text-[17px] font-medium print:hidden">
      {children}
    </p>
  );
}
