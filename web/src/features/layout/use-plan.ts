import { useMemo } from "react";
import { api, reply } from "@/api/client";
import type { Finding, Plan, RackPlan, RunDocument } from "@/api/types";
import { type Live, useLive } from "./use-live";
import { useSettled } from "./use-settled";

/** The plan of a document, asked once. */
export const askPlan = async (document: RunDocument): Promise<Plan> =>
  await reply(api.POST("/api/plan", { body: { document } }));

const askRack = async (document: RunDocument): Promise<RackPlan> =>
  await reply(api.POST("/api/pipe-rack", { body: { document } }));

/** Of which document an answer is: answers keep what did not change, and so no document's identity. */
const numbers = new WeakMap<RunDocument, number>();
let last = 0;

function numberOf(document: RunDocument): number {
  const known = numbers.get(document);
  if (known !== undefined) return known;
  last += 1;
  numbers.set(document, last);
  return last;
}

interface Remedies {
  of: number;
  findings: Finding[];
}

const askRemedies = async (document: RunDocument): Promise<Remedies> => ({
  of: numberOf(document),
  findings: await reply(api.POST("/api/remedies", { body: { document } })),
});

/** A plan's findings with what mends them, as soon as that was tried for the document as it is now. */
export function useRemedies(document: RunDocument, plan: Plan | undefined): Plan | undefined {
  const settled = useSettled(document);
  const wanted = plan?.findings.some((finding) => finding.severity !== "note") ?? false;
  const { got } = useLive(wanted && settled === document ? document : null, askRemedies);
  const tried = got?.of === numberOf(document) ? got.findings : undefined;
  return useMemo(() => plan && tried && mended(plan, tried), [plan, tried]) ?? plan;
}

/** The plan with what was tried in the place of what it says itself, finding by finding. */
export function mended(plan: Plan, tried: readonly Finding[]): Plan {
  const same = (one: Finding) => (other: Finding) =>
    one.code === other.code && one.place === other.place && one.says === other.says;
  return { ...plan, findings: plan.findings.map((finding) => tried.find(same(finding)) ?? finding) };
}

export const usePlan = (document: RunDocument): Live<Plan> => useLive(document, askPlan);

/** The plan of the pipes beside a run, where it has any. */
export const useRackPlan = (document: RunDocument): Live<RackPlan> =>
  useLive(document.rack ? document : null, askRack);
