import { useEffect, useState } from "react";
import type { RunDocument } from "@/api/types";

/** What costs many times what a verdict does is asked for once nobody has typed for so long. */
const PAUSE = 350;

/** The document as it was when nobody had typed for a while; null until then. */
export function useSettled(document: RunDocument): RunDocument | null {
  const [settled, settle] = useState<RunDocument | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => settle(document), PAUSE);
    return () => clearTimeout(timer);
  }, [document]);
  return settled;
}
