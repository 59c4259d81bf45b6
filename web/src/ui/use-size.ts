import { type RefObject, startTransition, useEffect, useRef, useState } from "react";

export interface Size {
  width: number;
  height: number;
}

/** An element's size in pixels, kept current. */
export function useSize<E extends HTMLElement>(): [RefObject<E | null>, Size] {
  const ref = useRef<E>(null);
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (!entry) return;
      const { width, height } = entry.contentRect;
      // What is drawn to size may take a while: in slices.
      startTransition(() => setSize({ width, height }));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, size];
}
