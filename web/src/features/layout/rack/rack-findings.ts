import type { Finding, RackPlan } from "@/api/types";
import { t } from "@/words/layout";

/** What is found of a rack, each thing once: what holds for several pipes is told of the first, with how many more. */
export function rackFindings(rack: RackPlan | undefined): Finding[] {
  if (!rack) return [];
  const told = new Map<string, { finding: Finding; more: number }>();
  for (const pipe of rack.pipes.slice(1)) {
    for (const finding of pipe.findings ?? []) {
      const key = `${finding.code} ${finding.place}`;
      const known = told.get(key);
      if (known) known.more += 1;
      else told.set(key, { finding, more: 0 });
    }
  }
  const ofPipes = [...told.values()].map(({ finding, more }) =>
    more ? { ...finding, says: t("fix.with_more", { says: finding.says, more }) } : finding,
  );
  return [...rack.findings, ...ofPipes];
}
