import {
  type KeyboardEvent,
  type PointerEvent,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import type { Flat } from "@/draw/projection";
import type { Size } from "@/ui/use-size";
import { type Camera, moved, turned, zoomed } from "./camera";

const DEGREES_A_PIXEL = 0.4;
const DEGREES_A_KEY = 6;
const PIXELS_A_KEY = 40;
const A_STEP = 1.2;
const WHEEL = 0.0015;
/** A press that moved no farther is a touch, not a drag. */
const STILL = 6;

const KEYS: Record<string, (camera: Camera, isShift: boolean) => Camera> = {
  ArrowLeft: (camera, pan) => (pan ? moved(camera, PIXELS_A_KEY, 0) : turned(camera, -DEGREES_A_KEY, 0)),
  ArrowRight: (camera, pan) => (pan ? moved(camera, -PIXELS_A_KEY, 0) : turned(camera, DEGREES_A_KEY, 0)),
  ArrowUp: (camera, pan) => (pan ? moved(camera, 0, PIXELS_A_KEY) : turned(camera, 0, DEGREES_A_KEY)),
  ArrowDown: (camera, pan) => (pan ? moved(camera, 0, -PIXELS_A_KEY) : turned(camera, 0, -DEGREES_A_KEY)),
};

/**
 * Where the scene is looked at from: turned by a drag or the arrows, moved with Shift, the right button or two fingers,
 * zoomed by wheel, pinch, + and −; framed anew by 0, Home or two quick touches. `frameFor` tells how it
 * is framed from a direction, the view's own where none is given.
 */
export function useCamera(frameFor: (way: Way | null) => Camera, size: Size, onTouch: (at: Flat) => void) {
  const [own, setOwn] = useState<Camera | null>(null);
  const framedNow = useMemo(() => frameFor(null), [frameFor]);
  const camera = own ?? framedNow;
  // Something else is to be framed, or the sheet is another size: from where one looks at it now.
  useEffect(() => setOwn((last) => last && frameFor(last)), [frameFor]);
  const latest = useRef({ camera, size, onTouch });
  latest.current = { camera, size, onTouch };
  const frame = useCallback(() => setOwn(null), []);
  const change = useCallback((by: (camera: Camera) => Camera) => {
    // Several moves may come before the next drawing.
    latest.current.camera = by(latest.current.camera);
    setOwn(latest.current.camera);
  }, []);
  const zoom = useCallback(
    (by: number) => {
      const { width, height } = latest.current.size;
      change((now) => zoomed(now, by, [width / 2, height / 2], latest.current.size));
    },
    [change],
  );
  const pointers = usePointers(change, frame, latest);
  const onKeyDown = (event: KeyboardEvent) => {
    const act = KEYS[event.key];
    if (act) change((now) => act(now, event.shiftKey));
    else if (event.key === "+" || event.key === "=") zoom(A_STEP);
    else if (event.key === "-") zoom(1 / A_STEP);
    else if (event.key === "0" || event.key === "Home") frame();
    else return;
    event.preventDefault();
  };
  return { camera, isMoved: own !== null, frame, zoom, change, handlers: { ...pointers, onKeyDown } };
}

type Way = Pick<Camera, "turn" | "rise">;

interface Latest {
  current: { camera: Camera; size: Size; onTouch: (at: Flat) => void };
}

/** Turning by one pointer, moving and zooming by two; what is under way by a pointer's number. */
function usePointers(change: (by: (camera: Camera) => Camera) => void, frame: () => void, latest: Latest) {
  const down = useRef(new Map<number, { at: Flat; began: Flat; isPan: boolean }>());
  const at = (event: PointerEvent): Flat => {
    const sheet = event.currentTarget.getBoundingClientRect();
    return [event.clientX - sheet.left, event.clientY - sheet.top];
  };
  const onPointerDown = (event: PointerEvent) => {
    event.currentTarget.setPointerCapture?.(event.pointerId);
    const here = at(event);
    down.current.set(event.pointerId, { at: here, began: here, isPan: event.button === 2 || event.shiftKey });
  };
  const onPointerMove = (event: PointerEvent) => {
    const held = down.current.get(event.pointerId);
    if (!held) return;
    const [here, before] = [at(event), held.at];
    const other = [...down.current].find(([id]) => id !== event.pointerId)?.[1];
    held.at = here;
    const [dx, dy] = [here[0] - before[0], here[1] - before[1]];
    if (other) change((now) => pinched(now, before, here, other.at, latest.current.size));
    else if (held.isPan) change((now) => moved(now, dx, dy));
    else if (isFar(held.began, here))
      change((now) => turned(now, -dx * DEGREES_A_PIXEL, dy * DEGREES_A_PIXEL));
  };
  const onPointerUp = (event: PointerEvent) => {
    const held = down.current.get(event.pointerId);
    down.current.delete(event.pointerId);
    if (held && !isFar(held.began, held.at)) latest.current.onTouch(held.at);
  };
  return {
    onPointerDown,
    onPointerMove,
    onPointerUp,
    onPointerCancel: (event: PointerEvent) => down.current.delete(event.pointerId),
    onDoubleClick: frame,
    onContextMenu: (event: { preventDefault: () => void }) => event.preventDefault(),
  };
}

const isFar = (a: Flat, b: Flat): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) > STILL;

/** One of two fingers moved: what lies under both stays under them. */
function pinched(camera: Camera, before: Flat, here: Flat, other: Flat, size: Size): Camera {
  const apart = (a: Flat) => Math.max(Math.hypot(a[0] - other[0], a[1] - other[1]), 1);
  const panned = moved(camera, (here[0] - before[0]) / 2, (here[1] - before[1]) / 2);
  const middle: Flat = [(here[0] + other[0]) / 2, (here[1] + other[1]) / 2];
  return zoomed(panned, apart(here) / apart(before), middle, size);
}

/** The wheel zooms about the place under it; heard without React, which may not stop the page from scrolling. */
export function useWheel(
  element: HTMLElement | null,
  size: Size,
  change: (by: (camera: Camera) => Camera) => void,
) {
  useEffect(() => {
    if (!element) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const sheet = element.getBoundingClientRect();
      const at: Flat = [event.clientX - sheet.left, event.clientY - sheet.top];
      change((now) => zoomed(now, Math.exp(-event.deltaY * WHEEL), at, size));
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => element.removeEventListener("wheel", onWheel);
  }, [element, size, change]);
}
