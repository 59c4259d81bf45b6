import { useCallback, useMemo } from "react";
import { isBegunHere } from "@/api/own-numbers";
import { askAmongOthers } from "@/api/space";
import type { Finding, Plan, Run, RunDocument } from "@/api/types";
import { useLive } from "./use-live";
import { useSettled } from "./use-settled";

const CODES: readonly Finding["code"][] = ["runs_touch", "runs_too_near", "run_near_thing", "box_elsewhere"];

/** A plan's findings with what the run's job says of it: where it comes too near to others, or misses its box. */
export function useAmongOthers(run: Run, document: RunDocument, plan: Plan | undefined): Plan | undefined {
  const settled = useSettled(document);
  const { id, job_id } = run;
  const question = useCallback((now: RunDocument) => askAmongOthers(job_id, id, now), [job_id, id]);
  const { got } = useLive(isBegunHere(id) ? null : settled, question);
  return useMemo(
    () => (plan && got?.findings.length ? { ...plan, findings: [...plan.findings, ...got.findings] } : plan),
    [plan, got],
  );
}

/** The worst that is said of a run among the others of its job. */
export function worstAmongOthers(plan: Plan): Finding | undefined {
  const found = plan.findings.filter(({ code }) => CODES.includes(code));
  return found.find(({ severity }) => severity === "stop") ?? found[0];
}
