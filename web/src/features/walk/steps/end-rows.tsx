import type { RunDocument, Written } from "@/api/types";
import { placed, readAt, stops, usePlanned, useWork } from "@/features/walk/run-context";
import { GLOSSARY } from "@/trade/glossary";
import { HEADINGS } from "@/trade/words";
import { Button } from "@/ui/button";
import { EndMark, RemoveIcon } from "@/ui/icons";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { Term } from "@/ui/term";
import { Findings } from "./findings";
import { NameField } from "./name-field";

type Start = RunDocument["start"];
type End = RunDocument["end"];
type Measured = NonNullable<End["measured"]>;

/** Where the run starts: its box, and which way the pipe leaves it. */
export function StartRow() {
  const { draft, edit, mayWrite } = useWork();
  const { plan } = usePlanned();
  const { document } = draft;
  const { start } = document;
  const change = (next: Start, field: string) =>
    edit({ ...document, start: next }, field && `start.${field}`);
  return (
    <li className="flex gap-3 border-b border-line/60 px-3 py-2.5">
      <EndMark end="A" size={26} />
      <div className="min-w-0 flex-1">
        <p className="text-[17px] leading-9">
          Start at{" "}
          <NameField
            label="Start box"
            value={start.name ?? ""}
            disabled={!mayWrite}
            onChange={(name) => change({ ...start, name }, "name")}
          />
          , pipe runs{" "}
          <Select
            label="First heading"
            value={start.heading}
            choices={HEADINGS}
            disabled={!mayWrite}
            onChoose={(heading) => change({ ...start, heading }, "")}
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

const FINISHES = [
  { value: "box" as const, label: "box" },
  { value: "open" as const, label: "open end", hint: "a stub finished with a bushing" },
];

/** Where the run ends: at a box's seat, or open. */
export function EndRow() {
  const { draft, edit, mayWrite } = useWork();
  const { plan } = usePlanned();
  const { document } = draft;
  const { end } = document;
  const findings = placed(plan?.findings, "end");
  const change = (next: End, field: string) => edit({ ...document, end: next }, field && `end.${field}`);
  return (
    <li className="flex gap-3 px-3 py-2.5">
      <EndMark end="B" size={26} />
      <div className="min-w-0 flex-1">
        <p className="text-[17px] leading-9">
          End at{" "}
          <Select
            label="End, finish"
            value={end.open ? "open" : "box"}
            choices={FINISHES}
            disabled={!mayWrite}
            onChoose={(next) => change({ ...end, open: next === "open" }, "")}
          />{" "}
          <NameField
            label="End box"
            value={end.name ?? ""}
            disabled={!mayWrite}
            onChange={(name) => change({ ...end, name }, "name")}
          />
          , {end.open ? "cut at " : "pipe seats at "}
          <EndLength
            field="at"
            label="End, seat at"
            value={end.at}
            onChange={(at) => change({ ...end, at: at || !end.open ? at : null }, "at")}
          />
          {end.open && (
            <>
              {" "}
              (or nothing: the rest of the stick), at least{" "}
              <EndLength
                field="at_least"
                label="End, at least"
                value={end.at_least}
                onChange={(text) => change({ ...end, at_least: text || null }, "at_least")}
              />{" "}
              and at most{" "}
              <EndLength
                field="at_most"
                label="End, at most"
                value={end.at_most}
                onChange={(text) => change({ ...end, at_most: text || null }, "at_most")}
              />
            </>
          )}
          <Knockout
            place="end"
            value={end.knockout}
            onChange={(knockout) => change({ ...end, knockout }, "knockout")}
          />
          .
        </p>
        <MeasuredEnd end={end} onChange={change} />
        <Findings findings={findings} id="findings-end" />
      </div>
    </li>
  );
}

interface EndLengthProps {
  field: string;
  label: string;
  value: Written | null | undefined;
  onChange: (text: string) => void;
}

function EndLength({ field, label, value, onChange }: EndLengthProps) {
  const { mayWrite } = useWork();
  const { plan } = usePlanned();
  const wrong = placed(plan?.findings, `end.${field}`).some(stops);
  return (
    <TapeField
      label={label}
      value={value ?? ""}
      disabled={!mayWrite}
      invalid={wrong}
      describedBy={wrong ? "findings-end" : undefined}
      read={readAt(plan, `end.${field}`)}
      onChange={onChange}
    />
  );
}

interface KnockoutProps {
  place: "start" | "end";
  value: Written | null | undefined;
  onChange: (value: string | null) => void;
}

/** The knockout's centre off the surface, where it was measured: it tells whether a box offset is wanted. */
function Knockout({ place, value, onChange }: KnockoutProps) {
  const { mayWrite } = useWork();
  const { plan } = usePlanned();
  if (value === null || value === undefined) {
    if (!mayWrite) return null;
    return (
      <Button look="quiet" className="ml-1 min-h-7! px-1! align-baseline" onClick={() => onChange("")}>
        + knockout
      </Button>
    );
  }
  const stopped = placed(plan?.findings, `${place}.knockout`).some(stops);
  return (
    <>
      , knockout{" "}
      <TapeField
        label={place === "start" ? "Start, knockout" : "End, knockout"}
        value={value}
        disabled={!mayWrite}
        invalid={stopped}
        read={readAt(plan, `${place}.knockout`)}
        onChange={onChange}
      />{" "}
      off the surface
      {mayWrite && (
        <Button
          look="quiet"
          className="min-h-7! px-0!"
          aria-label={`Take the ${place} knockout out`}
          onClick={() => onChange(null)}
        >
          <RemoveIcon width={16} height={16} />
        </Button>
      )}
    </>
  );
}

const AXES = [
  { field: "right", says: "right" },
  { field: "up", says: "up" },
  { field: "out", says: "out" },
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
        + Check against the box measured on its own
      </Button>
    );
  }
  const set = (field: keyof Measured, text: string) =>
    onChange({ ...end, measured: { ...measured, [field]: text } }, `measured.${field}`);
  return (
    <p className="text-[17px] leading-9">
      On its own the box was measured (
      <Term meaning={`${GLOSSARY.closure} Left, down and in are written with a minus.`}>from the start</Term>)
      {AXES.map(({ field, says }) => (
        <span key={field}>
          {field === "right" ? " " : ", "}
          <SignedField
            label={`End box, ${says}`}
            value={measured[field] ?? ""}
            onChange={(text) => set(field, text)}
          />{" "}
          {says}
        </span>
      ))}
      {mayWrite && (
        <Button
          look="quiet"
          className="min-h-7! px-0!"
          aria-label="Take the box's own measures out"
          onClick={() => onChange({ ...end, measured: null }, "")}
        >
          <RemoveIcon width={16} height={16} />
        </Button>
      )}
    </p>
  );
}

function SignedField(props: { label: string; value: Written; onChange: (text: string) => void }) {
  const { mayWrite } = useWork();
  const { plan } = usePlanned();
  const field = props.label.split(", ")[1] ?? "";
  const wrong = placed(plan?.findings, `end.measured.${field}`).some(stops);
  return <TapeField {...props} disabled={!mayWrite} invalid={wrong} />;
}
