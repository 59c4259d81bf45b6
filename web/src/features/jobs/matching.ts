import type { Job } from "@/api/types";

/** The runs that are called so; else jobs that are, with all their runs; else runs by all that their lines say. */
export function matching(jobs: Job[], sought: string): Job[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const says = (...parts: string[]) => words.every((word) => parts.join(" ").toLowerCase().includes(word));
  if (!words.length) return jobs;
  return jobs.flatMap((job) => {
    const called = job.runs.filter((run) => says(run.name));
    if (called.length) return [{ ...job, runs: called }];
    if (says(job.name, job.place)) return [job];
    const runs = job.runs.filter((run) => says(job.name, run.name, run.trade_size, run.material, run.status));
    return runs.length ? [{ ...job, runs }] : [];
  });
}
