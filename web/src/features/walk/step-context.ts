import { createContext, useContext } from "react";
import type { FieldReading, Problem } from "@/api/types";

/** What a row needs to know of its step beyond the step itself. */
export interface StepContext {
  mayWrite: boolean;
  chosen: boolean;
  problems: Problem[];
  /** What was read from each of its lengths, by place. */
  read: Record<string, FieldReading>;
}

export const StepContext = createContext<StepContext>({
  mayWrite: false,
  chosen: false,
  problems: [],
  read: {},
});

export const useStepContext = (): StepContext => useContext(StepContext);
