import { createContext, useContext } from "react";
import type { FieldReading, Finding } from "@/api/types";

/** What a row needs to know of its step beyond the step itself. */
export interface StepContext {
  mayWrite: boolean;
  chosen: boolean;
  /** Whether other pipes run beside it. */
  racked: boolean;
  findings: Finding[];
  /** What was read from each of its lengths, by place. */
  read: Record<string, FieldReading>;
}

export const StepContext = createContext<StepContext>({
  mayWrite: false,
  chosen: false,
  racked: false,
  findings: [],
  read: {},
});

export const useStepContext = (): StepContext => useContext(StepContext);
