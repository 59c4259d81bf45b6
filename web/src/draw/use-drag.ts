import { type PointerEvent, useRef } from "react";

interface Drag {
  onPointerDown: (event: PointerEvent<SVGGElement>) => void;
  onPointerMove: (event: PointerEvent<SVGGElement>) => void;
  onPointerUp: (event: PointerEvent<SVGGElement>) => void;
}

const BEGINS = 3;

/** Drags something along the pipe: tells where it is now, in inches from where the hand took it. */
export function useDrag(scale: number, from: number, onMove: (inches: number) => void): Drag {
  const taken = useRef<{ x: number; from: number; moving: boolean } | null>(null);
  return {
    onPointerDown: (event) => {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      taken.current = { x: event.clientX, from, moving: false };
    },
    onPointerMove: (event) => {
      const drag = taken.current;
      if (!drag) return;
      const moved = event.clientX - drag.x;
      drag.moving ||= Math.abs(moved) > BEGINS;
      if (drag.moving) onMove(drag.from + moved / scale);
    },
    onPointerUp: () => {
      taken.current = null;
    },
  };
}
