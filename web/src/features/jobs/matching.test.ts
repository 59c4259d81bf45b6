import { expect, test } from "vitest";
import type { Job } from "@/api/types";
import { matching } from "./matching";

const run = (name: string, trade_size = "3/4") => ({ name, trade_size, material: "EMT", status: "laid out" });
const JOBS = [
  { id: 1, name: "Kiln room", place: "Shed 2", runs: [run("Kiln 2 feed"), run("Fan", "1/2")] },
  { id: 2, name: "Glaze store", place: "Yard", runs: [run("Feed"), run("Light", "1/2")] },
] as unknown as Job[];

const found = (sought: string) =>
  matching(JOBS, sought).map((job) => [job.id, job.runs.map(({ name }) => name)]);

test("a job is found by its name or place, with all its runs", () => {
  expect(found("shed")).toEqual([[1, ["Kiln 2 feed", "Fan"]]]);
  expect(found("  ")).toEqual(JOBS.map((job) => [job.id, job.runs.map(({ name }) => name)]));
});

test("a run is found by its name, its size and its job's name together", () => {
  expect(found("feed")).toEqual([
    [1, ["Kiln 2 feed"]],
    [2, ["Feed"]],
  ]);
  expect(found("1/2 light")).toEqual([[2, ["Light"]]]);
  expect(found("glaze fan")).toEqual([]);
});
