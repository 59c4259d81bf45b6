import { useEffect } from "react";

/** What the browser's tab says: the place first, so that many tabs can be told apart. */
export function useTitle(title: string) {
  useEffect(() => {
    document.title = title ? `${title} · Crelda` : "Crelda";
  }, [title]);
}
