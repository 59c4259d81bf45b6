import { useState } from "react";
import { useShoes } from "@/api/queries";
import type { Finding, PipeRack, RackedPipe, RackPipe, RackPlan, Written } from "@/api/types";
import { placed, readAt, stops, usePlanned, useWork } from "@/features/layout/run-context";
import { Findings } from "@/features/layout/steps/findings";
import { NameField } from "@/features/layout/steps/name-field";
import { fittingShoe } from "@/trade/fitting-shoe";
import { MATERIALS, type Material, TRADE_SIZES } from "@/trade/words";
import { Button } from "@/ui/button";
import { CautionIcon, GoodIcon, MoreIcon, PlusIcon, StopIcon } from "@/ui/icons";
import { Menu, MenuItem } from "@/ui/menu";
import { Pattern } from "@/ui/pattern";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { t } from "@/words/layout";
import { OwnSteps } from "./own-steps";
import { addPipe, MOST_BESIDE, movePipe, removePipe, setPipe } from "./rack-edits";

interface Props {
  rack: PipeRack;
  plan: RackPlan | undefined;
  findings: Finding[];
  onChange: (next: PipeRack, field?: string) => void;
}

/** The pipes in order from the lead, each with what is its own. */
export function RackPipes({ rack, plan, findings, onChange }: Props) {
  const { draft, mayWrite } = useWork();
  return (
    <ol aria-label={t("rack.list")} className="flex flex-col">
      <li className="flex min-h-11 items-center gap-2 border-b border-line/60 px-3">
        <PipeNumber number={1} />
        <strong className="min-w-0 truncate">{draft.document.name || t("rack.this_run")}</strong>
        <span className="tape text-soft">{draft.document.trade_size}</span>
        <span className="ml-auto text-[15px] text-soft">{t("rack.lead")}</span>
      </li>
      {rack.pipes.map((pipe, at) => (
        <PipeRow
          // A pipe is what stands at its place.
          // biome-ignore lint/suspicious/noArrayIndexKey: see above
          key={at}
          pipe={pipe}
          at={at}
          rack={rack}
          planned={plan?.pipes[at + 1]}
          findings={findings.filter((one) => isOf(one, at))}
          onChange={onChange}
        />
      ))}
      {mayWrite && rack.pipes.length < MOST_BESIDE && (
        <li className="border-b border-line/60 px-2 py-1">
          <Button look="quiet" onClick={() => onChange(addPipe(rack))}>
            <PlusIcon /> {t("rack.add_pipe")}
          </Button>
        </li>
      )}
    </ol>
  );
}

const isOf = (finding: Finding, at: number): boolean =>
  finding.place === `rack.pipes.${at}` || finding.place.startsWith(`rack.pipes.${at}.`);

function PipeNumber({ number }: { number: number }) {
  return (
    <span className="tape inline-flex h-7 w-7 shrink-0 items-center justify-center rounded-full border-2 border-ink font-bold">
      {number}
    </span>
  );
}

interface RowProps {
  pipe: RackPipe;
  at: number;
  rack: PipeRack;
  planned: RackedPipe | undefined;
  findings: Finding[];
  onChange: (next: PipeRack, field?: string) => void;
}

function PipeRow({ pipe, at, rack, planned, findings, onChange }: RowProps) {
  const { draft, mayWrite } = useWork();
  const { document } = draft;
  const shoes = useShoes().data ?? [];
  const number = at + 2;
  const set = (next: Partial<RackPipe>, field = "") =>
    onChange(setPipe(rack, at, next), field && `pipes.${at}.${field}`);
  const own = ["steps", "end"].flatMap((part) => placed(findings, `rack.pipes.${at}.${part}`));
  /** Another kind of pipe is bent on the crew's shoe that fits it. */
  function choosePipe(next: Partial<Pick<RackPipe, "trade_size" | "material">>) {
    const own = {
      material: next.material ?? pipe.material ?? document.material ?? "EMT",
      trade_size: next.trade_size ?? pipe.trade_size ?? document.trade_size,
    };
    set({ ...next, shoe: fittingShoe(shoes, own)?.figures ?? null });
  }
  return (
    <li className={`border-b border-line/60 px-3 py-1 ${pipe.left_out ? "text-soft" : ""}`}>
      <div className="flex min-h-11 flex-wrap items-center gap-x-2">
        <PipeNumber number={number} />
        <NameField
          label={t("rack.pipe_name", { number })}
          value={pipe.name ?? ""}
          placeholder={planned?.name ?? t("name.placeholder")}
          disabled={!mayWrite}
          onChange={(name) => set({ name })}
        />
        <Select
          label={t("rack.pipe_size", { number })}
          value={pipe.trade_size ?? document.trade_size}
          choices={TRADE_SIZES}
          disabled={!mayWrite}
          onChoose={(trade_size) => choosePipe({ trade_size })}
        />
        <span className="ml-auto flex items-center">
          <State planned={planned} />
          {mayWrite && <PipeMenu pipe={pipe} at={at} rack={rack} onChange={onChange} />}
        </span>
      </div>
      <Ends
        pipe={pipe}
        number={number}
        material={pipe.material ?? document.material ?? "EMT"}
        onMaterial={(material) => choosePipe({ material })}
        onChange={set}
      />
      {pipe.leaves !== null && pipe.leaves !== undefined && (
        <OwnSteps pipe={pipe} at={at} findings={own} onChange={set} />
      )}
      <Findings findings={findings.filter((finding) => !own.includes(finding))} />
    </li>
  );
}

interface EndsProps {
  pipe: RackPipe;
  number: number;
  material: Material;
  onMaterial: (material: Material) => void;
  onChange: (next: Partial<RackPipe>) => void;
}

/** Its own boxes, and how much further along than the lead's they stand; there when asked for, or where it has any. */
function Ends({ pipe, number, material, onMaterial, onChange }: EndsProps) {
  const { mayWrite } = useWork();
  const { plan } = usePlanned();
  const [open, setOpen] = useState(false);
  const isUsual =
    !pipe.material && !pipe.start_name && !pipe.end_name && [pipe.starts, pipe.ends].every(isNothing);
  if (!open && isUsual)
    return mayWrite ? (
      <Button look="quiet" className="min-h-9! px-0! text-[15px]" onClick={() => setOpen(true)}>
        {t("rack.pipe_more")}
      </Button>
    ) : null;
  const length = (field: "starts" | "ends", label: string) => (
    <TapeField
      label={label}
      value={(pipe[field] as Written | undefined) ?? "0"}
      disabled={!mayWrite}
      read={readAt(plan, `rack.pipes.${number - 2}.${field}`)}
      onChange={(text) => onChange({ [field]: text })}
    />
  );
  const box = (field: "start_name" | "end_name", label: string) => (
    <NameField
      label={label}
      value={pipe[field] ?? ""}
      placeholder={t("rack.as_lead")}
      disabled={!mayWrite}
      onChange={(name) => onChange({ [field]: name })}
    />
  );
  return (
    <p className="text-base leading-8 text-soft">
      <Select
        label={t("rack.pipe_material", { number })}
        value={material}
        choices={MATERIALS}
        disabled={!mayWrite}
        onChoose={onMaterial}
      />
      <Pattern
        sentence={t("rack.pipe_ends")}
        slots={{
          start: box("start_name", t("rack.start_box", { number })),
          starts: length("starts", t("rack.starts", { number })),
          end: box("end_name", t("rack.end_box", { number })),
          ends: length("ends", t("rack.ends", { number })),
        }}
      />
    </p>
  );
}

const isNothing = (value: Written | undefined): boolean => [undefined, "", "0", 0].includes(value);

function State({ planned }: { planned: RackedPipe | undefined }) {
  if (!planned) return null;
  if (planned.free) return <span className="text-[15px]">{t("rack.state.free")}</span>;
  const cautions = (planned.findings ?? []).some((one) => !stops(one) && one.severity === "caution");
  const Icon = !planned.makeable ? StopIcon : cautions ? CautionIcon : GoodIcon;
  const color = !planned.makeable ? "text-stop" : cautions ? "text-caution" : "text-good";
  const says = !planned.makeable
    ? t("rack.state.not_yet")
    : cautions
      ? t("rack.state.caution")
      : t("rack.state.good");
  return (
    <span className="tape flex items-center gap-1 text-[15px] text-soft">
      {planned.developed_length?.reads}
      <Icon width={20} height={20} className={color} />
      <span className="sr-only">{says}</span>
    </span>
  );
}

function PipeMenu({ pipe, at, rack, onChange }: Omit<RowProps, "planned" | "findings">) {
  const { draft } = useWork();
  const number = at + 2;
  const steps = draft.document.steps.length;
  return (
    <Menu
      align="end"
      trigger={
        <Button look="quiet" aria-label={t("rack.pipe_menu", { number })}>
          <MoreIcon />
        </Button>
      }
    >
      <MenuItem onSelect={() => onChange(movePipe(rack, at, at - 1))} disabled={at === 0}>
        {t("rack.nearer")}
      </MenuItem>
      <MenuItem onSelect={() => onChange(movePipe(rack, at, at + 1))} disabled={at === rack.pipes.length - 1}>
        {t("rack.farther")}
      </MenuItem>
      <MenuItem onSelect={() => onChange(setPipe(rack, at, { left_out: !pipe.left_out }))}>
        {pipe.left_out ? t("rack.fill") : t("rack.free")}
      </MenuItem>
      {pipe.leaves === null || pipe.leaves === undefined ? (
        <MenuItem
          onSelect={() =>
            onChange(setPipe(rack, at, { leaves: steps, steps: [], end: { name: "", at: "" } }))
          }
        >
          {t("rack.on_own")}
        </MenuItem>
      ) : (
        <MenuItem onSelect={() => onChange(setPipe(rack, at, { leaves: null, steps: [], end: null }))}>
          {t("rack.follow")}
        </MenuItem>
      )}
      <MenuItem onSelect={() => onChange(removePipe(rack, at))}>{t("rack.take_out")}</MenuItem>
    </Menu>
  );
}
