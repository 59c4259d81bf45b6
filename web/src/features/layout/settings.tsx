import { useState } from "react";
import { useShoes } from "@/api/queries";
import type { RunDocument, Shoe, ShoeUsed } from "@/api/types";
import { usual } from "@/draw/fractions";
import { NameField } from "@/features/layout/steps/name-field";
import { fits, fittingShoe, shoeChoices, shoeOf, uncalibrated } from "@/trade/fitting-shoe";
import { JOINTS, MATERIALS, READINGS, TAPES, TRADE_SIZES } from "@/trade/words";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { Pattern } from "@/ui/pattern";
import { Select } from "@/ui/select";
import { TapeContext, TapeField } from "@/ui/tape-field";
import { Term } from "@/ui/term";
import { clauseWord } from "@/words/clauses";
import { t } from "@/words/layout";
import { useRetaping } from "./retaped";
import { placed, readAt, usePlanned, useWork } from "./run-context";
import { Findings } from "./steps/findings";

const TYPICAL = "typical";
const OWN = t("shoe.own");

/** What the run is made of and what it is bent on. */
export function RunSettings() {
  const { draft, edit, mayWrite } = useWork();
  const { plan } = usePlanned();
  const retape = useRetaping();
  const { document } = draft;
  const shoes = useShoes().data ?? [];
  const choosePipe = (pipe: Partial<Pick<RunDocument, "trade_size" | "material">>) => {
    const next = { ...document, ...pipe };
    edit({ ...next, shoe: fittingShoe(shoes, next)?.figures ?? null }, "");
  };
  const findings = [
    "shoe",
    "trade_size",
    "material",
    "name",
    "tape",
    "coupling_gap",
    "longest_piece",
    "limits",
  ].flatMap((place) => placed(plan?.findings, place).filter((finding) => finding.severity !== "note"));
  return (
    <section
      aria-label={t("settings.title")}
      className="border-b border-line px-3 py-2 text-base leading-9 text-soft"
    >
      <Pattern
        sentence={t("settings.sentence")}
        slots={{
          name: (
            <NameField
              label={t("settings.name")}
              value={document.name ?? ""}
              disabled={!mayWrite}
              onChange={(name) => edit({ ...document, name }, "name")}
            />
          ),
          size: (
            <Select
              label={t("settings.size")}
              value={document.trade_size}
              choices={TRADE_SIZES}
              disabled={!mayWrite}
              onChoose={(trade_size) => choosePipe({ trade_size })}
            />
          ),
          material: (
            <Select
              label={t("settings.material")}
              value={document.material ?? "EMT"}
              choices={MATERIALS}
              disabled={!mayWrite}
              onChoose={(material) => choosePipe({ material })}
            />
          ),
          shoe: <ShoeSelect />,
          figures: <ShoeFields />,
          tape: (
            <Select
              label={t("settings.tape")}
              value={document.tape ?? "1/16"}
              choices={TAPES}
              disabled={!mayWrite}
              onChoose={retape}
            />
          ),
          readings: (
            <Select
              label={t("settings.readings")}
              value={document.feet ? "feet" : "inches"}
              choices={READINGS}
              disabled={!mayWrite}
              onChoose={(next) => edit({ ...document, feet: next === "feet" }, "")}
            />
          ),
        }}
      />{" "}
      <PipeFields />
      <OldFigures />
      <Uncalibrated />
      <Findings findings={findings} />
    </section>
  );
}

const STICK = "120";
const STICK_METRIC = "3048";
const PIPE_LABELS = { coupling_gap: t("settings.gap"), longest_piece: t("settings.longest") } as const;

/** What a coupling takes and how long pieces may be: there when asked for, or where they are not as usual. */
function PipeFields() {
  const { document } = useWork().draft;
  const { plan } = usePlanned();
  const [open, setOpen] = useState(false);
  const isUsual =
    (document.coupling_gap ?? null) === null &&
    !document.joints &&
    [undefined, null, 120, usual(STICK, STICK_METRIC, document.tape)].includes(document.longest_piece);
  if (!open && isUsual)
    return (
      <Button look="quiet" onClick={() => setOpen(true)}>
        {t("settings.couplings")}
      </Button>
    );
  return (
    <Pattern
      sentence={t("settings.fittings")}
      slots={{
        joint: <JointSelect />,
        coupling: <Term meaning={clauseWord("term.coupling.meaning") ?? ""}>{t("settings.coupling")}</Term>,
        gap: <PipeField place="coupling_gap" whenNone={plan?.coupling_gap.reads ?? "0"} />,
        longest: <PipeField place="longest_piece" whenNone={usual(STICK, STICK_METRIC, document.tape)} />,
      }}
    />
  );
}

/** How its pipe is joined to couplings and connectors. */
function JointSelect() {
  const { draft, edit, mayWrite } = useWork();
  const { document } = draft;
  const choices = JOINTS[document.material ?? "EMT"];
  const chosen = choices.find((one) => one.value === document.joints) ?? choices[0];
  return (
    <Select
      label={t("settings.joint")}
      value={chosen?.value ?? "set-screw"}
      choices={choices}
      disabled={!mayWrite}
      onChoose={(joints) => edit({ ...document, joints }, "")}
    />
  );
}

/** A length that is seldom other than usual. */
function PipeField({ place, whenNone }: { place: keyof typeof PIPE_LABELS; whenNone: string }) {
  const { draft, edit, mayWrite } = useWork();
  const { plan } = usePlanned();
  const put = (text: string) => edit({ ...draft.document, [place]: text }, place);
  return (
    <TapeField
      label={PIPE_LABELS[place]}
      value={draft.document[place] ?? whenNone}
      disabled={!mayWrite}
      invalid={placed(plan?.findings, place).length > 0}
      read={readAt(plan, place)}
      onChange={put}
      passedOver
    />
  );
}

/** Tells that the run has other figures than its shoe has by now, and takes those with one touch. */
function OldFigures() {
  const { draft, edit, mayWrite } = useWork();
  const { plan } = usePlanned();
  const shoes = useShoes();
  const { document } = draft;
  const own = shoeOf(shoes.data ?? [], document);
  if (!own || !plan?.shoe || sameFigures(own, plan.shoe, document)) return null;
  return (
    <Notice severity="caution">
      {t("shoe.changed", {
        own: own.name,
        deduct: own.used.deduct.reads,
        gain: own.used.gain.reads,
      })}{" "}
      {mayWrite && (
        <Button className="my-1" onClick={() => edit({ ...document, shoe: own.figures }, "")}>
          {t("shoe.use_current")}
        </Button>
      )}
    </Notice>
  );
}

/** Says that no test bend stands behind the figures, and offers a shoe of the crew's behind which one does. */
function Uncalibrated() {
  const { draft, edit, mayWrite } = useWork();
  const { plan } = usePlanned();
  const shoes = useShoes();
  const { document } = draft;
  const says = shoes.data && plan?.shoe ? uncalibrated(shoes.data, document) : "";
  if (!says) return null;
  const better = fittingShoe(shoes.data ?? [], document);
  return (
    <Notice severity="caution">
      {t("shoe.uncalibrated", { says })}{" "}
      {mayWrite && better?.calibrated_at && (
        <Button className="my-1" onClick={() => edit({ ...document, shoe: better.figures }, "")}>
          {t("shoe.bend_on", { better: better.name })}
        </Button>
      )}
    </Notice>
  );
}

const SAME = 1e-3;

function sameFigures(own: Shoe, used: ShoeUsed, document: RunDocument): boolean {
  const dial = document.shoe ?? {};
  return [
    [own.used.deduct.inches, used.deduct.inches],
    [own.used.gain.inches, used.gain.inches],
    [own.dial_factor, dial.dial_factor ?? 1],
    [own.dial_constant, dial.dial_constant ?? 0],
  ].every(([one = 0, other = 0]) => Math.abs(one - other) < 10 * SAME);
}

function ShoeSelect() {
  const { draft, edit, mayWrite } = useWork();
  const { document } = draft;
  const shoes = useShoes();
  const fitting = (shoes.data ?? []).filter((shoe) => fits(shoe, document));
  const own = shoeOf(fitting, document);
  const choices = [
    ...shoeChoices(fitting),
    { value: TYPICAL, label: t("shoe.typical") },
    { value: OWN, label: (!own && document.shoe?.name) || OWN },
  ];
  const value = !document.shoe ? TYPICAL : (own?.name ?? OWN);

  function choose(next: string) {
    const shoe = fitting.find((one) => one.name === next);
    if (shoe) edit({ ...document, shoe: shoe.figures }, "");
    else if (next === TYPICAL) edit({ ...document, shoe: null }, "");
    else
      edit(
        {
          ...document,
          shoe: { name: "", deduct: document.shoe?.deduct ?? "", gain: document.shoe?.gain ?? "" },
        },
        "",
      );
  }

  return <Select label={t("shoe")} value={value} choices={choices} disabled={!mayWrite} onChoose={choose} />;
}

function ShoeFields() {
  const { draft, edit, mayWrite } = useWork();
  const { plan } = usePlanned();
  const { document } = draft;
  const { shoe } = document;
  if (!shoe) {
    return plan?.shoe ? (
      <span className="tape">
        {t("shoe.figures", { deduct: plan.shoe.deduct.reads, gain: plan.shoe.gain.reads })}
      </span>
    ) : null;
  }
  const field = (figure: "deduct" | "gain", label: string) => (
    <TapeField
      label={label}
      value={shoe[figure] ?? ""}
      disabled={!mayWrite}
      invalid={placed(plan?.findings, `shoe.${figure}`).length > 0}
      read={readAt(plan, `shoe.${figure}`)}
      onChange={(text) => edit({ ...document, shoe: { ...shoe, [figure]: text } }, `shoe.${figure}`)}
    />
  );
  const slots = { deduct: field("deduct", t("shoe.deduct")), gain: field("gain", t("shoe.gain")) };
  return (
    // A shoe's figures are in inches, whatever the run's tape.
    <TapeContext value="1/16">
      <Pattern sentence={t("shoe.figures")} slots={slots} />
    </TapeContext>
  );
}
