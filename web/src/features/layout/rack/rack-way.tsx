import type { ReactNode } from "react";
import type { RackWay, Step, Written } from "@/api/types";
import { useStepContext } from "@/features/layout/steps/step-context";
import { asCount } from "@/trade/counts";
import { choiceOf } from "@/trade/kinds";
import { HEADINGS, type Heading, rackWays } from "@/trade/words";
import { Pattern } from "@/ui/pattern";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { clauseWord } from "@/words/clauses";
import { t } from "@/words/layout";

interface Props {
  step: Step;
  onChange: (next: Step, field: string) => void;
}

const KICK_BY = (["setback", "angle"] as const).map((by) => choiceOf(by, `way.rack_kick_by.${by}`));
const FIRST = { setback: "12", angle: "15" };

/** How the pipes beside take a step, where there is a choice. */
export function RackWayClause({ step, onChange }: Props) {
  const { called, mayWrite } = useStepContext();
  const isFlatter = step.kind === "bend" && Number(step.angle ?? 90) !== 90;
  const choices = rackWays(step.kind).filter(({ value }) => value !== "kicks" || !isFlatter);
  const usual = choices[0]?.value;
  if (!usual) return null;
  const way: RackWay = step.rack ?? { how: usual };
  const set = (next: RackWay, field: string) =>
    onChange({ ...step, rack: next.how === usual && !step.rack ? null : next } as Step, field);
  const label = (field: string) => t("rack_way.label", { called, field });
  const slots: Record<string, ReactNode> = {
    "rack.how": (
      <Select
        label={label("way")}
        value={way.how}
        choices={choices}
        disabled={!mayWrite}
        onChoose={(how) => set(how === "kicks" ? { how, after: aSide(step) } : { how }, "")}
      />
    ),
    "rack.after": (
      <Select
        label={label(t("rack_way.side"))}
        value={way.after ?? aSide(step)}
        choices={HEADINGS}
        disabled={!mayWrite}
        onChoose={(after) => set({ ...way, after }, "")}
      />
    ),
    "rack.shots": (
      <TapeField
        label={label("shots")}
        value={String(way.shots ?? 9)}
        disabled={!mayWrite}
        onChange={(text) => set({ ...way, shots: asCount(text) }, "rack.shots")}
      />
    ),
    rack_kick_by: <KickBy way={way} side={aSide(step)} label={label} set={set} />,
  };
  const says =
    way.how === "kicks" ? "rack_kicks" : way.how === "sweep" && step.kind === "bend" ? "rack_sweep" : "rack";
  return (
    <span className="block text-base leading-8 text-soft">
      <Pattern sentence={clauseWord(`says.${says}`) ?? ""} slots={slots} />
    </span>
  );
}

interface KickProps {
  way: RackWay;
  side: Heading;
  label: (field: string) => string;
  set: (next: RackWay, field: string) => void;
}

/** How far back the pipes beside kick: by a setback, or at an angle that all have. */
function KickBy({ way, side, label, set }: KickProps) {
  const { mayWrite } = useStepContext();
  const by = way.angle === null || way.angle === undefined ? "setback" : "angle";
  const figure = (
    <TapeField
      label={label(by)}
      value={(way[by] as Written | null | undefined) ?? FIRST[by]}
      disabled={!mayWrite}
      unit={by === "angle" ? "°" : ""}
      onChange={(value) => set({ ...way, [by]: value }, `rack.${by}`)}
    />
  );
  return (
    <>
      <Select
        label={label(clauseWord("ways.rack_kick_by") ?? "")}
        value={by}
        choices={KICK_BY}
        disabled={!mayWrite}
        onChoose={(next) => set({ how: "kicks", after: way.after ?? side, [next]: FIRST[next] }, "")}
      />{" "}
      <Pattern sentence={clauseWord(`says.rack_${by}`) ?? ""} slots={() => figure} />
    </>
  );
}

/** A side that lies across the new heading. */
function aSide(step: Step): Heading {
  const turn = step.kind === "bend" ? step.turn : "right";
  return turn === "up" || turn === "down" ? "out" : "up";
}
