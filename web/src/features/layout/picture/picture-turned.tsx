import { useCallback, useMemo, useRef, useState } from "react";
import type { MarksJudged, Picture, Plan, RackPlan } from "@/api/types";
import { SceneView } from "@/scene/scene-view";
import { CheckBox } from "@/ui/check-box";
import { t } from "@/words/layout";
import { runInWords } from "./run-in-words";
import { pointsOfStep, runScene } from "./run-scene";

interface Props {
  plan: Plan;
  rack: RackPlan | undefined;
  picture: Picture;
  chosen: number | null;
  onChoose: (step: number) => void;
  judged: MarksJudged | null;
}

/** What the view's control and the choice below it take. */
const CONTROLS = [
  { x: 0, y: 0, width: 400, height: 58 },
  { x: 400, y: 0, width: 250, height: 58 },
];

/** The run as a solid, turned by hand; a step that is chosen elsewhere is framed. */
export function TurnedPicture({ plan, rack, picture, chosen, onChoose, judged }: Props) {
  const [withFigures, setFigures] = useState(false);
  const touchedHere = useRef<number | null>(null);
  const choose = useCallback(
    (step: number) => {
      touchedHere.current = step;
      onChoose(step);
    },
    [onChoose],
  );
  const scene = useMemo(
    () => runScene({ plan, picture, rack, chosen, judged, withFigures, choose }),
    [plan, picture, rack, chosen, judged, withFigures, choose],
  );
  const focus = useMemo(
    () =>
      chosen === null || chosen === touchedHere.current ? null : pointsOfStep({ picture, plan }, chosen),
    [chosen, picture, plan],
  );
  return (
    <>
      <SceneView
        scene={scene}
        side="turned"
        name={plan.name}
        description={runInWords(plan)}
        focus={focus}
        inTheWay={CONTROLS}
      />
      <span className="absolute top-16 left-3 max-md:hidden rounded-md bg-sheet/80 px-2 xl:top-2.5 xl:left-100">
        <CheckBox checked={withFigures} onCheck={setFigures}>
          {t("picture.figures")}
        </CheckBox>
      </span>
    </>
  );
}
