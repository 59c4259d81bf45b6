import { createContext, useContext } from "react";
import type { FieldReading, Finding } from "@/api/types";

/** What a row needs to know of its step beyond the step itself. */
export interface StepContext {
  /** Where it stands in the document, and what it is called before those who hear the screen. */
  place: string;
  called: string;
  mayWrite: boolean;
  chosen: boolean;
  /** Whether other pipes run beside it. */
  racked: boolean;
  findings: Finding[];
  /** What was read from each of its lengths, by place. */
  read: Record<string, FieldReading>;
}

/** Of no step: nothing may be changed, and nothing is known. */
export const NO_CONTEXT: StepContext = {
  place: "",
  called: "",
  mayWrite: false,
  chosen: false,
  racked: false,
  findings: [],
  read: {},
};

export const StepContext = createContext<StepContext>(NO_CONTEXT);

export const useStepContext = (): StepContext => useContext(StepContext);
