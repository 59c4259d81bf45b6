import { type ReactNode, startTransition, useEffect, useState } from "react";

/** Shows its content a moment later, rendered in slices, so that what is seen and touched first need not wait for it. */
export function InSlices({ children }: { children: ReactNode }) {
  const [isShown, setIsShown] = useState(false);
  useEffect(() => startTransition(() => setIsShown(true)), []);
  return isShown && children;
}
