import { expect, test } from "vitest";
import type { Job } from "@/api/types";
import { forPerson, ordered } from "./ordering";

const run = (id: number, name: string, status: string, saved_at: string, person?: number) => ({
  ...{ id, name, status, saved_at },
  assigned: person === undefined ? null : { id: person, name: "" },
});
const JOBS = [
  {
    id: 1,
    runs: [
      run(2, "Run 10", "cut", "2026-11-02", 5),
      run(1, "Run 9", "fitted", "2026-11-03", 5),
      run(3, "Fan", "measured", "2026-11-01"),
    ],
  },
  { id: 2, runs: [run(4, "Light", "fitted", "2026-11-01", 5)] },
] as unknown as Job[];

const names = (jobs: Job[]) => jobs.map((job) => job.runs.map(({ name }) => name));

test("runs come in the order that was asked for, numbers in a name as numbers", () => {
  expect(names(ordered(JOBS, "added"))[0]).toEqual(["Run 9", "Run 10", "Fan"]);
  expect(names(ordered(JOBS, "name"))[0]).toEqual(["Fan", "Run 9", "Run 10"]);
  expect(names(ordered(JOBS, "saved"))[0]).toEqual(["Run 9", "Run 10", "Fan"]);
  expect(names(ordered(JOBS, "stage"))[0]).toEqual(["Fan", "Run 10", "Run 9"]);
});

test("what is somebody's to do is not fitted yet, and jobs without any are left out", () => {
  expect(names(forPerson(JOBS, 5))).toEqual([["Run 10"]]);
  expect(forPerson(JOBS, 6)).toEqual([]);
});
