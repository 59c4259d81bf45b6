import { useEffect } from "react";
import { linkAsBefore, onReading } from "./hub";
import { putReading } from "./put-reading";

let isBegun = false;

/** Links this machine's devices once, and puts the distance meter's readings where one measures. */
export function DevicesAtWork() {
  useEffect(() => {
    if (!isBegun) linkAsBefore();
    isBegun = true;
    return onReading((device, reading) => {
      if (device === "laser") putReading(device, reading);
    });
  }, []);
  return null;
}
