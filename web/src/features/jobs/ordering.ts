import type { Job } from "@/api/types";
import type { Choice } from "@/ui/select";
import { t } from "@/words/jobs";
import type { RunLine } from "./rack-order";

export type Order = "added" | "name" | "saved" | "stage";

export const ORDERS: Choice<Order>[] = [
  { value: "added", label: t("order.added") },
  { value: "name", label: t("order.name") },
  { value: "saved", label: t("order.saved") },
  { value: "stage", label: t("order.progress") },
];

const STAGES = ["measured", "laid out", "cut", "bent", "fitted"];

const COMPARED: Record<Order, (a: RunLine, b: RunLine) => number> = {
  added: (a, b) => a.id - b.id,
  name: (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }),
  saved: (a, b) => b.saved_at.localeCompare(a.saved_at),
  stage: (a, b) => STAGES.indexOf(a.status) - STAGES.indexOf(b.status),
};

/** Jobs with their runs in an order; pipes of a rack come after their lead, wherever that stands. */
export const ordered = (jobs: Job[], by: Order): Job[] =>
  jobs.map((job) => ({ ...job, runs: [...job.runs].sort(COMPARED[by]) }));

/** Jobs with the runs that are for somebody and not fitted yet; and none that have none. */
export const forPerson = (jobs: Job[], person: number | undefined): Job[] =>
  jobs.flatMap((job) => {
    const runs = job.runs.filter((run) => run.assigned?.id === person && run.status !== "fitted");
    return runs.length ? [{ ...job, runs }] : [];
  });
