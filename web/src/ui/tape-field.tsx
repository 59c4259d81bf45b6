import { type CSSProperties, createContext, type KeyboardEvent, useContext, useEffect, useRef } from "react";
import type { Tape, Written } from "@/api/types";
import { divisionOf, farOf, nudged, toTape } from "@/draw/fractions";
import { usePadIsUsed } from "./tape-pad/pad-choice";
import { closePad, openPad, type PadField, refreshPad } from "./tape-pad/pad-field";

interface Props {
  label: string;
  value: Written;
  onChange: (value: string) => void;
  /** What was last read from it, and as what it was written then; arrow keys nudge from there. */
  read?: { written: string; inches: number; reads?: string; rounded?: boolean } | undefined;
  /** For fields that step through set values (angles) rather than along the tape. */
  steps?: string[];
  invalid?: boolean;
  describedBy?: string | undefined;
  disabled?: boolean;
  unit?: string;
  /** Seldom changed: Enter passes over it. */
  passedOver?: boolean;
}

/** The tape that lengths are typed for where a field stands. */
export const TapeContext = createContext<Tape>("1/16");

/** Where the work goes on after a figure: to the next one, unless what shows it knows better. */
export const OnwardContext = createContext<(input: HTMLInputElement) => void>(focusNext);

/** A number in a sentence, written as on the tape. Enter moves on; arrow keys nudge (with Shift farther). */
export function TapeField(props: Props) {
  const {
    label,
    value,
    onChange,
    read,
    steps,
    invalid = false,
    describedBy,
    disabled = false,
    unit = "",
    passedOver = false,
  } = props;
  const text = String(value);
  const tape = useContext(TapeContext);
  const onNext = useContext(OnwardContext);
  // Between two key presses the server has not read the field again yet, so we remember where we nudged to;
  // a nudge of what was just typed waits until it is read.
  const last = useRef<{ text: string; inches: number } | null>(null);
  const waiting = useRef(0);
  const known = read?.written === text ? read.inches : undefined;
  const onPad = usePad({
    label,
    text,
    reads: known !== undefined && read?.reads && bare(read.reads) !== bare(text) ? read.reads : "",
    tape,
    steps,
    unit,
    invalid,
    onChange,
    onNext,
  });

  function moveBy(from: number, by: number) {
    const next = nudged(from, by, tape);
    last.current = { text: toTape(next, tape), inches: next };
    onChange(last.current.text);
  }

  // biome-ignore lint/correctness/useExhaustiveDependencies: only when it is read
  useEffect(() => {
    if (known === undefined || waiting.current === 0) return;
    moveBy(known, waiting.current);
    waiting.current = 0;
  }, [known]);

  function nudge(direction: 1 | -1, far: boolean) {
    if (steps) {
      const at = steps.indexOf(text.trim());
      onChange(steps[Math.min(Math.max(at + direction, 0), steps.length - 1)] ?? text);
      return;
    }
    const from = last.current?.text === text ? last.current.inches : known;
    const by = direction * (far ? farOf(tape) : divisionOf(tape));
    if (from === undefined) waiting.current += by;
    else moveBy(from, by);
  }

  function onKeyDown(event: KeyboardEvent<HTMLInputElement>) {
    if (event.key === "ArrowUp" || event.key === "ArrowDown") {
      event.preventDefault();
      nudge(event.key === "ArrowUp" ? 1 : -1, event.shiftKey);
    }
    if (event.key === "Enter") {
      event.preventDefault();
      onNext(event.currentTarget);
    }
  }

  const look = invalid ? "border-stop bg-stop/10" : "border-accent/60 hover:bg-tint focus:bg-tint";
  return (
    <span className="group whitespace-nowrap">
      <input
        data-tape={passedOver ? undefined : true}
        data-reads={unit === "°" ? "angle" : steps ? undefined : tape}
        aria-label={label}
        aria-invalid={invalid}
        aria-describedby={describedBy}
        autoComplete="off"
        spellCheck={false}
        // A length has fractions, which a keyboard of figures alone cannot type.
        inputMode={onPad ? "none" : steps ? "decimal" : "text"}
        enterKeyHint="next"
        value={text}
        disabled={disabled}
        maxLength={80}
        onChange={(event) => {
          waiting.current = 0;
          onChange(event.target.value);
        }}
        onFocus={(event) => {
          event.target.select();
          onPad?.open(event.target);
        }}
        onBlur={(event) => closePad(event.target)}
        onKeyDown={onKeyDown}
        style={{ "--fallback-width": `${text.length + 2}ch` } as CSSProperties}
        className={`tape grows h-8 rounded-sm text-[20px] border-b-2 border-dotted bg-transparent px-0.5 text-center font-semibold text-ink focus:border-solid ${look}`}
      />
      {unit}
      {known !== undefined && read?.reads && (
        <Understood text={text} reads={read.reads} rounded={read.rounded} />
      )}
    </span>
  );
}

/** How a field is typed into with the pad, where that is used; it is told what changes in the field. */
function usePad(field: Omit<PadField, "input">) {
  const isUsed = usePadIsUsed();
  const input = useRef<HTMLInputElement | null>(null);
  useEffect(() => {
    if (input.current) refreshPad({ ...field, input: input.current });
  });
  useEffect(() => () => closePad(input.current), []);
  if (!isUsed) return null;
  return {
    open: (element: HTMLInputElement) => {
      input.current = element;
      // Letters were asked for in this field.
      if (element.inputMode === "none") openPad({ ...field, input: element });
    },
  };
}

/** As what a figure was read: while it is typed where it is written otherwise, and always where it was rounded. */
function Understood({
  text,
  reads,
  rounded = false,
}: {
  text: string;
  reads: string;
  rounded?: boolean | undefined;
}) {
  if (rounded) return <span className="text-[15px] text-soft"> ≈ {reads}</span>;
  if (bare(text) === bare(reads)) return null;
  return <span className="hidden text-[15px] text-soft group-focus-within:inline"> = {reads}</span>;
}

/** Without the unit that the tape has anyway. */
const bare = (text: string) => text.trim().replace(/ ?(?:"|mm|°)$/, "");

/** To the next figure, or to what adds one: whatever is marked so. */
export function focusNext(input: HTMLElement) {
  const fields = [...document.querySelectorAll<HTMLElement>("[data-tape]:not(:disabled)")];
  const next = fields[fields.indexOf(input) + 1];
  // After the last figure of a run: where the work goes on.
  const onward = document.querySelector<HTMLElement>("[data-onward]");
  if (next) next.focus();
  else if (onward) onward.focus();
  else input.blur();
}
