import type { RackWay, Step, Written } from "@/api/types";
import { useStepContext } from "@/features/layout/steps/step-context";
import { asCount } from "@/trade/counts";
import { HEADINGS, type Heading, RACK_WAYS } from "@/trade/words";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { t } from "@/words/layout";

interface Props {
  step: Step;
  onChange: (next: Step, field: string) => void;
}

const KICK_BY = [
  { value: "setback" as const, label: t("setBack") },
  { value: "angle" as const, label: t("atAnAngleOf") },
];
const FIRST = { setback: "12", angle: "15" };

/** How the pipes beside take a step, where there is a choice. */
export function RackWayClause({ step, onChange }: Props) {
  const { called, mayWrite } = useStepContext();
  const isFlatter = step.kind === "bend" && Number(step.angle ?? 90) !== 90;
  const choices = RACK_WAYS[step.kind]?.filter(({ value }) => value !== "kicks" || !isFlatter);
  if (!choices) return null;
  const usual = choices[0]?.value ?? "equal";
  const way: RackWay = step.rack ?? ({ how: usual } as RackWay);
  const set = (next: RackWay, field: string) =>
    onChange({ ...step, rack: next.how === usual && !step.rack ? null : next } as Step, field);
  const label = (field: string) => t("beside", { called, field });
  const by = way.angle === null || way.angle === undefined ? "setback" : "angle";
  return (
    <span className="block text-base leading-8 text-soft">
      {t("theRackGoes")}{" "}
      <Select
        label={label("way")}
        value={way.how}
        choices={choices}
        disabled={!mayWrite}
        onChoose={(how) => set(how === "kicks" ? { how, after: aSide(step) } : { how }, "")}
      />
      {way.how === "kicks" && (
        <>
          {" "}
          {t("andLies")}{" "}
          <Select
            label={label(t("sideAfterIt"))}
            value={(way.after as Heading | null | undefined) ?? aSide(step)}
            choices={HEADINGS}
            disabled={!mayWrite}
            onChoose={(after) => set({ ...way, after }, "")}
          />{" "}
          {t("ofThisRunKicks")}{" "}
          <Select
            label={label(t("kickBy"))}
            value={by}
            choices={KICK_BY}
            disabled={!mayWrite}
            onChoose={(next) =>
              set({ how: "kicks", after: way.after ?? aSide(step), [next]: FIRST[next] }, "")
            }
          />{" "}
          <TapeField
            label={label(by)}
            value={(way[by] as Written | null | undefined) ?? FIRST[by]}
            disabled={!mayWrite}
            unit={by === "angle" ? "°" : ""}
            onChange={(value) => set({ ...way, [by]: value }, `rack.${by}`)}
          />
          {by === "setback" && t("andASpacingMoreEach")}
        </>
      )}
      {way.how === "sweep" && step.kind === "bend" && (
        <>
          {" "}
          {t("in")}{" "}
          <TapeField
            label={label("shots")}
            value={String(way.shots ?? 9)}
            disabled={!mayWrite}
            onChange={(text) => set({ ...way, shots: asCount(text) }, "rack.shots")}
          />{" "}
          {t("shots")}
        </>
      )}
      .
    </span>
  );
}

/** A side that lies across the new heading. */
function aSide(step: Step): Heading {
  const turn = step.kind === "bend" ? step.turn : "right";
  return turn === "up" || turn === "down" ? "out" : "up";
}
