import { useEffect } from "react";

/** Keeps the screen awake while the bench is open, where the browser can. */
export function useAwake() {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let closed = false;
    const ask = async () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      try {
        const got = await navigator.wakeLock.request("screen");
        if (closed) await got.release();
        else lock = got;
      } catch {
        // A low battery may refuse it: the screen then sleeps as it always does.
      }
    };
    // The browser lets go of it whenever the page is hidden.
    const again = () => void ask();
    void ask();
    document.addEventListener("visibilitychange", again);
    return () => {
      closed = true;
      document.removeEventListener("visibilitychange", again);
      void lock?.release();
    };
  }, []);
}
