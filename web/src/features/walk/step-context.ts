import { createContext, useContext } from "react";
import type { Problem } from "@/api/types";

/** What a row needs to know of its step beyond the step itself. */
export interface StepContext {
  mayWrite: boolean;
  chosen: boolean;
  problems: Problem[];
  /** What was read from each of its lengths, by place. */
  inches: Record<string, number>;
}

export const StepContext = createContext<StepContext>({
  mayWrite: false,
  chosen: false,
  problems: [],
  inches: {},
});

export const useStepContext = (): StepContext => useContext(StepContext);
