import { useState } from "react";
import { Link } from "react-router";
import type { PipeRack, Written } from "@/api/types";
import { placed, readAt, stops, usePlanned, useWork } from "@/features/layout/run-context";
import { Findings } from "@/features/layout/steps/findings";
import { HEADINGS, type Heading, sidesOf } from "@/trade/words";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { Pattern } from "@/ui/pattern";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { clauseWord } from "@/words/clauses";
import { t } from "@/words/layout";
import { MOST_BESIDE, newRack } from "./rack-edits";
import { rackFindings } from "./rack-findings";
import { RackGaps } from "./rack-gaps";
import { RackPipes } from "./rack-pipes";

/** The pipes that run beside this one: how they lie, what each is, and how near they come to each other. */
export function RackPanel() {
  const { draft } = useWork();
  return draft.document.rack ? <RackOf rack={draft.document.rack} /> : <NoRack />;
}

const FIRST_COUNT = "8";

function NoRack() {
  const { draft, edit, mayWrite } = useWork();
  const [count, setCount] = useState(FIRST_COUNT);
  const beside = Number(count) - 1;
  const isCount = Number.isInteger(beside) && beside >= 1 && beside <= MOST_BESIDE;
  if (!mayWrite) return <p className="p-3 text-soft">{t("rack.none")}</p>;
  return (
    <form
      className="p-3 text-[17px] leading-9"
      onSubmit={(event) => {
        event.preventDefault();
        if (isCount) edit({ ...draft.document, rack: newRack(draft.document, beside) }, "");
      }}
    >
      <p>
        {t("run")}{" "}
        <TapeField label={t("rack.how_many")} value={count} invalid={!isCount} onChange={setCount} />{" "}
        {t("rack.side_by_side")}
      </p>
      <p className="text-base leading-snug text-soft">{t("rack.what_it_does")}</p>
      {!isCount && <p className="text-base text-stop">{t("rack.most", { most: MOST_BESIDE + 1 })}</p>}
      <Button look="main" type="submit" className="mt-2" disabled={!isCount}>
        {t("rack.make")}
      </Button>
    </form>
  );
}

const SPACED_BY = [
  { value: "spacing" as const, label: t("rack.by.spacing") },
  { value: "gap" as const, label: t("rack.by.gap") },
];

function RackOf({ rack }: { rack: PipeRack }) {
  const { draft, edit, mayWrite, run } = useWork();
  const { rack: plan } = usePlanned();
  const { document } = draft;
  const set = (next: PipeRack, field: string) => edit({ ...document, rack: next }, field && `rack.${field}`);
  const here = rackFindings(plan).filter((finding) => !finding.place.startsWith("steps."));
  return (
    <>
      <div className="border-b border-line px-3 py-2 text-[17px] leading-9">
        <RackSentence rack={rack} onChange={set} />
        <Usually rack={rack} onChange={set} />
        <Findings findings={here.filter((finding) => !finding.place.startsWith("rack.pipes."))} />
      </div>
      <RackPipes rack={rack} plan={plan} findings={here} onChange={(next, field = "") => set(next, field)} />
      {plan && <RackGaps plan={plan} />}
      <p className="px-3 py-2">
        <Link
          to={`/runs/${run.id}/floor`}
          className="inline-flex min-h-11 items-center rounded-md border border-line px-3.5 font-medium hover:border-ink"
        >
          {t("rack.to_floor")}
        </Link>
      </p>
      {mayWrite && (
        <div className="px-3 pb-2">
          <Confirm
            trigger={<Button look="quiet">{t("rack.alone")}</Button>}
            title={t("rack.remove_ask")}
            says={t("rack.remove_says")}
            act={t("rack.remove")}
            onAct={() => edit({ ...document, rack: null }, "")}
          />
        </div>
      )}
    </>
  );
}

interface SentenceProps {
  rack: PipeRack;
  onChange: (next: PipeRack, field: string) => void;
}

function RackSentence({ rack, onChange }: SentenceProps) {
  const { draft, mayWrite } = useWork();
  const sides = sidesOf(draft.document.start.heading);
  const by = rack.gap === null || rack.gap === undefined ? "spacing" : "gap";
  const struts = [
    { value: "none" as const, label: t("rack.strut.none") },
    ...sides
      .filter((side) => !areOneLine(side, rack.side))
      .map((side) => ({
        value: side,
        label:
          side === "in"
            ? t("rack.strut.behind")
            : t("rack.strut.side", { side: clauseWord(`direction.${side}`) ?? side }),
      })),
  ];
  const choose = (next: "gap" | "spacing") =>
    next !== by && onChange({ ...rack, gap: null, spacing: null, [next]: rack[by] ?? "" }, "");
  return (
    <p>
      <Pattern
        sentence={t("rack.sentence")}
        slots={{
          count: rack.pipes.length + 1,
          side: (
            <Select
              label={t("rack.side")}
              value={rack.side}
              choices={HEADINGS.filter((one) => sides.includes(one.value))}
              disabled={!mayWrite}
              onChoose={(side) => onChange({ ...rack, side }, "")}
            />
          ),
          length: <RackLength field={by} rack={rack} onChange={onChange} />,
          by: (
            <Select
              label={t("rack.by")}
              value={by}
              choices={SPACED_BY}
              disabled={!mayWrite}
              onChoose={choose}
            />
          ),
          strut: (
            <Select
              label={t("rack.strut")}
              value={rack.strut ?? "none"}
              choices={struts}
              disabled={!mayWrite}
              onChoose={(strut) => onChange({ ...rack, strut: strut === "none" ? null : strut }, "")}
            />
          ),
        }}
      />
    </p>
  );
}

/** What is seldom other than usual: how far apart couplings are to be, and the struts. */
function Usually({ rack, onChange }: SentenceProps) {
  const { plan } = usePlanned();
  const { mayWrite } = useWork();
  const [open, setOpen] = useState(false);
  const isUsual = [undefined, "", "0", 0].includes(rack.stagger) && !rack.supports;
  if (!open && isUsual)
    return (
      <Button look="quiet" className="px-0!" onClick={() => setOpen(true)}>
        {t("rack.couplings_struts")}
      </Button>
    );
  return (
    <p className="text-base leading-8 text-soft">
      <Pattern
        sentence={t("rack.usually")}
        slots={{
          couplings: (
            <TapeField
              label={t("rack.stagger")}
              value={rack.stagger ?? "0"}
              disabled={!mayWrite}
              read={readAt(plan, "rack.stagger")}
              onChange={(stagger) => onChange({ ...rack, stagger }, "stagger")}
            />
          ),
          struts: (
            <TapeField
              label={t("rack.supports")}
              value={(rack.supports as Written | null | undefined) ?? ""}
              disabled={!mayWrite}
              read={readAt(plan, "rack.supports")}
              onChange={(supports) => onChange({ ...rack, supports: supports || null }, "supports")}
            />
          ),
        }}
      />
    </p>
  );
}

const areOneLine = (one: Heading, other: Heading): boolean =>
  ["up down", "left right", "in out"].some((line) => line.includes(one) && line.includes(other));

const LABELS = { gap: t("rack.gap"), spacing: t("rack.spacing") };

function RackLength({ field, rack, onChange }: SentenceProps & { field: "gap" | "spacing" }) {
  const { mayWrite } = useWork();
  const { plan, rack: racked } = usePlanned();
  return (
    <TapeField
      label={LABELS[field]}
      value={(rack[field] as Written | null | undefined) ?? ""}
      disabled={!mayWrite}
      invalid={placed(racked?.findings, `rack.${field}`).some(stops)}
      read={readAt(plan, `rack.${field}`)}
      onChange={(text) => onChange({ ...rack, [field]: text }, field)}
    />
  );
}
