import { expect, test } from "vitest";
import { inRackOrder, type RunLine } from "./rack-order";

const line = (id: number, rack_lead: number | null = null, rack_number: number | null = null) =>
  ({ id, rack_lead, rack_number }) as RunLine;

test("pipes of a rack stand after their lead by their numbers, whenever they were added", () => {
  const runs = [line(1), line(2, 5, 3), line(3), line(4, 5, 2), line(5), line(6, 1, 2)];
  expect(inRackOrder(runs).map((run) => run.id)).toEqual([1, 6, 3, 5, 4, 2]);
});
