import { AboutPanel } from "@/features/layout/about/about-panel";
import { MarksPanel } from "@/features/layout/marks/marks-panel";
import { RackPanel } from "@/features/layout/rack/rack-panel";
import { StepPanel } from "@/features/layout/steps/step-panel";
import { HistoryPanel } from "./history-panel";
import type { Side } from "./run-context";

const PANELS = {
  step: StepPanel,
  rack: RackPanel,
  marks: MarksPanel,
  history: HistoryPanel,
  about: AboutPanel,
};

/** What may lie open beside the list, but for the note with its editor. */
export function Panel({ side }: { side: Exclude<Side, null | "note"> }) {
  const Shown = PANELS[side];
  return <Shown />;
}
