import { api, reply } from "@/api/client";
import type { Plan, RackPlan, RunDocument } from "@/api/types";
import { type Live, useLive } from "./use-live";

/** The plan of a document, asked once. */
export const askPlan = async (document: RunDocument): Promise<Plan> =>
  (await reply(api.POST("/api/plan", { body: { document } }))) as Plan;

const askRack = async (document: RunDocument): Promise<RackPlan> =>
  (await reply(api.POST("/api/pipe-rack", { body: { document } }))) as unknown as RackPlan;

export const usePlan = (document: RunDocument): Live<Plan> => useLive(document, askPlan);

/** The plan of the pipes beside a run, where it has any. */
export const useRackPlan = (document: RunDocument): Live<RackPlan> =>
  useLive(document.rack ? document : null, askRack);
