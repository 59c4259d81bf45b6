import type { RackWay, Step, Written } from "@/api/types";
import { useStepContext } from "@/features/walk/steps/step-context";
import { asCount } from "@/trade/counts";
import { HEADINGS, type Heading, RACK_WAYS } from "@/trade/words";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";

interface Props {
  step: Step;
  onChange: (next: Step, field: string) => void;
}

const KICK_BY = [
  { value: "setback" as const, label: "set back" },
  { value: "angle" as const, label: "at an angle of" },
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
  const label = (field: string) => `${called}, beside: ${field}`;
  const by = way.angle === null || way.angle === undefined ? "setback" : "angle";
  return (
    <span className="block text-base leading-8 text-soft">
      The rack goes{" "}
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
          and lies{" "}
          <Select
            label={label("side after it")}
            value={(way.after as Heading | null | undefined) ?? aSide(step)}
            choices={HEADINGS}
            disabled={!mayWrite}
            onChoose={(after) => set({ ...way, after }, "")}
          />{" "}
          of this run, kicks{" "}
          <Select
            label={label("kick by")}
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
          {by === "setback" && " and a spacing more each"}
        </>
      )}
      {way.how === "sweep" && step.kind === "bend" && (
        <>
          {" "}
          in{" "}
          <TapeField
            label={label("shots")}
            value={String(way.shots ?? 9)}
            disabled={!mayWrite}
            onChange={(text) => set({ ...way, shots: asCount(text) }, "rack.shots")}
          />{" "}
          shots
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
