import { useLocation } from "react-router";
import type { Finding, RunDocument, Written } from "@/api/types";
import { placed, readAt, stops, usePlanned, useWork } from "@/features/layout/run-context";
import { isBegun } from "@/trade/begun";
import { GLOSSARY } from "@/trade/glossary";
import { HEADINGS } from "@/trade/words";
import { Button } from "@/ui/button";
import { EndMark } from "@/ui/icons";
import { Pattern } from "@/ui/pattern";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { Term } from "@/ui/term";
import { t } from "@/words/layout";
import { AddFigure, TakeOut } from "./add-figure";
import { ClosingLegs } from "./closing-legs";
import { Findings } from "./findings";
import { NameField } from "./name-field";

type Start = RunDocument["start"];
export type End = RunDocument["end"];
type Measured = NonNullable<End["measured"]>;

export const FINISHES = [
  { value: "box" as const, label: t("finish.box") },
  { value: "open" as const, label: t("finish.open"), hint: t("finish.open.hint") },
];

/** Where the run starts: its box, and which way the pipe leaves it. */
export function StartRow() {
  const { draft, edit, mayWrite } = useWork();
  const { plan } = usePlanned();
  const { document } = draft;
  const { start } = document;
  const begun = isBegun(useLocation().state);
  const change = (next: Start, field: string) =>
    edit({ ...document, start: next }, field && `start.${field}`);
  return (
    <li className="flex gap-3 border-b border-line/60 px-3 py-2.5">
      <EndMark end="A" size={26} />
      <div className="min-w-0 flex-1">
        <p className="text-[17px] leading-9">
          <Pattern
            sentence={t("start.sentence")}
            slots={{
              finish: (
                <Select
                  label={t("start.finish")}
                  value={start.open ? "open" : "box"}
                  choices={FINISHES}
                  disabled={!mayWrite}
                  onChoose={(next) => change({ ...start, open: next === "open" }, "")}
                />
              ),
              box: (
                <NameField
                  label={t("start.box")}
                  walked
                  focused={begun}
                  value={start.name ?? ""}
                  disabled={!mayWrite}
                  onChange={(name) => change({ ...start, name }, "name")}
                />
              ),
              heading: (
                <Select
                  label={t("start.heading")}
                  value={start.heading}
                  choices={HEADINGS}
                  disabled={!mayWrite}
                  onChoose={(heading) => change({ ...start, heading }, "")}
                />
              ),
            }}
          />
          <FromFace
            place="start"
            value={start.connector}
            onChange={(connector) => change({ ...start, connector }, "connector")}
          />
          <Knockout
            place="start"
            value={start.knockout}
            onChange={(knockout) => change({ ...start, knockout }, "knockout")}
          />
          .
        </p>
        <Findings findings={placed(plan?.findings, "start")} />
      </div>
    </li>
  );
}

/** Where the run ends: at a box's seat, or open. */
export function EndRow() {
  const { draft, edit } = useWork();
  const { plan } = usePlanned();
  const { document } = draft;
  const { end } = document;
  const findings = placed(plan?.findings, "end");
  const change = (next: End, field: string) => edit({ ...document, end: next }, field && `end.${field}`);
  return (
    <li data-end className="flex gap-3 px-3 py-2.5">
      <EndMark end="B" size={26} />
      <div className="min-w-0 flex-1">
        <p className="text-[17px] leading-9">
          <EndSentence end={end} place="end" called={t("end")} findings={findings} onChange={change} />
          <FromFace
            place="end"
            value={end.connector}
            onChange={(connector) => change({ ...end, connector }, "connector")}
          />
          <Knockout
            place="end"
            value={end.knockout}
            onChange={(knockout) => change({ ...end, knockout }, "knockout")}
          />
          .
        </p>
        <MeasuredEnd end={end} onChange={change} />
        <Findings findings={findings} id="findings-end" />
        <ClosingLegs />
      </div>
    </li>
  );
}

interface EndProps {
  end: End;
  place: string;
  called: string;
  findings: Finding[];
  onChange: (next: End, field: string) => void;
}

/** How a pipe ends, at a box or open, and where. */
export function EndSentence(props: EndProps) {
  const { end, called, onChange } = props;
  const { mayWrite } = useWork();
  const slots = {
    finish: (
      <Select
        label={t("end.finish", { called })}
        value={end.open ? "open" : "box"}
        choices={FINISHES}
        disabled={!mayWrite}
        onChoose={(next) => onChange({ ...end, open: next === "open" }, "")}
      />
    ),
    box: (
      <NameField
        label={t("end.box", { called })}
        value={end.name ?? ""}
        disabled={!mayWrite}
        onChange={(name) => onChange({ ...end, name }, "name")}
      />
    ),
    at: <EndLength {...props} field="at" says={t("end.seat")} empty={end.open ? null : ""} />,
    at_least: <EndLength {...props} field="at_least" says={t("end.at_least")} empty={null} />,
    at_most: <EndLength {...props} field="at_most" says={t("end.at_most")} empty={null} />,
  };
  return <Pattern sentence={end.open ? t("end.open") : t("end.at_box")} slots={slots} />;
}

interface EndLengthProps extends EndProps {
  field: "at" | "at_least" | "at_most";
  says: string;
  /** What stands for nothing typed. */
  empty: "" | null;
}

function EndLength({ end, place, called, findings, onChange, field, says, empty }: EndLengthProps) {
  const { mayWrite } = useWork();
  const { plan } = usePlanned();
  const wrong = placed(findings, `${place}.${field}`).some(stops);
  return (
    <TapeField
      label={`${called}, ${says}`}
      value={end[field] ?? ""}
      disabled={!mayWrite}
      invalid={wrong}
      describedBy={wrong ? `findings-${place}` : undefined}
      read={readAt(plan, `${place}.${field}`)}
      onChange={(text) => onChange({ ...end, [field]: text || empty }, field)}
    />
  );
}

interface AtBoxProps {
  place: "start" | "end";
  value: Written | null | undefined;
  onChange: (value: string | null) => void;
}

/** The knockout's centre off the surface, where it was measured: it tells whether a box offset is wanted. */
function Knockout(props: AtBoxProps) {
  return <AtBox {...props} field="knockout" ask={t("at_box.add_knockout")} sentence={t("at_box.knockout")} />;
}

/** What the connector keeps between the box's face and the pipe, where the tape went to the face. */
function FromFace(props: AtBoxProps) {
  const told = { ...props, field: "connector" as const, ask: t("at_box.add_face") };
  return props.place === "start" ? (
    <AtBox {...told} sentence={t("at_box.from_face")} />
  ) : (
    <AtBox {...told} sentence={t("at_box.to_face")} />
  );
}

interface OptionalProps extends AtBoxProps {
  field: "knockout" | "connector";
  ask: string;
  sentence: string;
}

const AT_BOX = {
  start: { knockout: t("at_box.start_knockout"), connector: t("at_box.start_connector") },
  end: { knockout: t("at_box.end_knockout"), connector: t("at_box.end_connector") },
};

/** A figure of an end that is there when asked for. */
function AtBox({ place, value, onChange, field, ask, sentence }: OptionalProps) {
  const { mayWrite } = useWork();
  const { plan } = usePlanned();
  if (value === null || value === undefined) {
    if (!mayWrite) return null;
    return <AddFigure says={ask} onAdd={() => onChange("")} />;
  }
  const stopped = placed(plan?.findings, `${place}.${field}`).some(stops);
  const figure = (
    <TapeField
      label={AT_BOX[place][field]}
      value={value}
      disabled={!mayWrite}
      invalid={stopped}
      read={readAt(plan, `${place}.${field}`)}
      onChange={onChange}
    />
  );
  return (
    <>
      <Pattern sentence={sentence} slots={{ figure }} />
      {mayWrite && (
        <TakeOut says={t("at_box.remove", { figure: AT_BOX[place][field] })} onTake={() => onChange(null)} />
      )}
    </>
  );
}

const AXES = [
  { field: "right", says: t("axis.right") },
  { field: "up", says: t("axis.up") },
  { field: "out", says: t("axis.out") },
] as const;

/** The end box measured on its own from the start box: closes the run as a surveyor closes a traverse. */
function MeasuredEnd({ end, onChange }: { end: End; onChange: (next: End, field: string) => void }) {
  const { mayWrite } = useWork();
  const { measured } = end;
  if (!measured) {
    if (!mayWrite) return null;
    return (
      <Button
        look="quiet"
        className="px-0!"
        onClick={() => onChange({ ...end, measured: { right: "0", up: "0", out: "0" } }, "")}
      >
        {t("end.add_measured")}
      </Button>
    );
  }
  const set = (field: keyof Measured, text: string) =>
    onChange({ ...end, measured: { ...measured, [field]: text } }, `measured.${field}`);
  return (
    <p className="text-[17px] leading-9">
      <Pattern
        sentence={t("end.measured")}
        slots={{
          from_start: (
            <Term meaning={t("end.minus", { closure: GLOSSARY.closure })}>{t("end.from_start")}</Term>
          ),
          ...Object.fromEntries(
            AXES.map(({ field, says }) => [
              field,
              <SignedField
                key={field}
                field={field}
                label={t("end.axis", { says })}
                value={measured[field] ?? ""}
                onChange={(text) => set(field, text)}
              />,
            ]),
          ),
        }}
      />
      {mayWrite && (
        <TakeOut says={t("end.remove_measured")} onTake={() => onChange({ ...end, measured: null }, "")} />
      )}
    </p>
  );
}

interface SignedProps {
  field: keyof Measured;
  label: string;
  value: Written;
  onChange: (text: string) => void;
}

function SignedField({ field, ...props }: SignedProps) {
  const { mayWrite } = useWork();
  const { plan } = usePlanned();
  const wrong = placed(plan?.findings, `end.measured.${field}`).some(stops);
  return <TapeField {...props} disabled={!mayWrite} invalid={wrong} />;
}
