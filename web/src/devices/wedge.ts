import type { MakeLink } from "./device";
import { readingIn } from "./reading-line";

/** Keys that follow each other so fast are no hand's. */
const FAST = 35;
const LEAST = 3;

/** A device that types its readings as a keyboard would, each with Enter behind it (keyboard wedge). */
export const wedgeLink: MakeLink = ({ onState, onReading }) => {
  let typed = "";
  let last = 0;
  function onKey(event: KeyboardEvent) {
    const isFast = event.timeStamp - last < FAST;
    last = event.timeStamp;
    if (event.key === "Enter") {
      const reading = isFast && typed.length >= LEAST ? readingIn(typed) : null;
      typed = "";
      if (!reading) return;
      // It stands in the field as it was typed; what it means is put in its place.
      event.preventDefault();
      event.stopPropagation();
      onReading(reading);
      return;
    }
    if (event.key.length !== 1) return;
    typed = isFast ? typed + event.key : event.key;
  }
  return {
    connect: async () => {
      window.addEventListener("keydown", onKey, true);
      onState("on");
    },
    disconnect: () => {
      window.removeEventListener("keydown", onKey, true);
      onState("off");
    },
  };
};
