import { type ReactNode, useEffect, useRef } from "react";
import { BackspaceIcon, KeyboardIcon, UndoIcon } from "@/ui/icons";
import { t } from "@/words/ui";
import { type Join, joinedBy, partOf, shortened, withDigit, withFeet, withPart } from "./entry";
import { choosePad, usePadChoice } from "./pad-choice";
import { closePad, type PadField, usePadField } from "./pad-field";
import { keepReading, recentReadings } from "./recent";

const EIGHTHS = ["1/8", "1/4", "3/8", "1/2", "5/8", "3/4", "7/8"];
const SIXTEENTHS = ["1/16", "3/16", "5/16", "7/16", "9/16", "11/16", "13/16", "15/16"];
const ROWS = [
  ["1", "2", "3"],
  ["4", "5", "6"],
  ["7", "8", "9"],
];
const RECENT = 4;

/** The pad for the figure that has the focus; nothing where none has. */
export function TapePad({ children }: { children?: ReactNode }) {
  const field = usePadField();
  return field ? (
    <Pad key={field.label} field={field}>
      {children}
    </Pad>
  ) : null;
}

/** `children`: what else a length can be read by. */
function Pad({ field, children }: { field: PadField; children: ReactNode }) {
  const { hand } = usePadChoice();
  // As it was before each key, to be taken back; the first key replaces what stood there.
  const before = useRef<string[]>([]);
  const fresh = useRef(true);
  const pad = useRef<HTMLElement>(null);
  const isLength = field.steps === undefined;
  useRoomBelow(pad, field.input);

  const put = (next: string) => {
    if (next === field.text) return;
    before.current.push(field.text);
    fresh.current = false;
    field.onChange(next);
  };
  const type = (change: (text: string) => string) => put(change(fresh.current ? "" : field.text));
  const goOn = () => {
    if (isLength) keepReading(field.text);
    field.onNext(field.input);
  };
  const undo = () => {
    const last = before.current.pop();
    if (last !== undefined) field.onChange(last);
  };
  const keys: PadKeys = {
    digit: (one) => type((text) => withDigit(text, one)),
    part: (one) => put(withPart(field.text, one)),
    feet: () => put(withFeet(field.text)),
    join: (how) => put(joinedBy(field.text, how)),
    back: () => put(shortened(field.text)),
    take: (reading) => put(reading),
    add: (reading) => put(`${joinedBy(field.text, "+")}${reading}`),
    goOn,
  };
  return (
    // Its keys leave the focus where it is, in the figure.
    <section
      ref={pad}
      aria-label={t("pad.label", { field: field.label })}
      onPointerDown={(event) => event.preventDefault()}
      className="fixed inset-x-0 bottom-0 z-40 border-t-2 border-ink bg-paper px-1 pt-1 pb-[max(0.25rem,env(safe-area-inset-bottom))] shadow-[0_-4px_16px_rgb(0_0_0/0.18)]"
    >
      <div className="mx-auto flex max-w-xl flex-col gap-1">
        <Readout field={field} onUndo={undo} />
        {isLength ? (
          <Readings field={field} keys={keys}>
            {children}
          </Readings>
        ) : (
          <Usual field={field} keys={keys} />
        )}
        {isLength && field.tape !== "1 mm" && <Ruler text={field.text} keys={keys} />}
        <div className={`flex gap-1 ${hand === "left" ? "flex-row-reverse" : ""}`}>
          <Digits isLength={isLength} tape={field.tape} keys={keys} />
          <Actions isLength={isLength} keys={keys} />
        </div>
      </div>
    </section>
  );
}

interface PadKeys {
  digit: (one: string) => void;
  part: (one: string) => void;
  feet: () => void;
  join: (how: Join) => void;
  back: () => void;
  take: (reading: string) => void;
  add: (reading: string) => void;
  goOn: () => void;
}

// A finger that presses something else takes the focus first: nothing may move from under it until it has pressed.
const A_PRESS = 300;
let leaving: ReturnType<typeof setTimeout> | undefined;

/** While the pad is there the page can be scrolled past it. */
function useRoomBelow(pad: { current: HTMLElement | null }, input: HTMLElement) {
  useEffect(() => {
    const { style } = document.documentElement;
    clearTimeout(leaving);
    style.setProperty("--pad", `${pad.current?.offsetHeight ?? 0}px`);
    input.scrollIntoView({ block: "nearest" });
    return () => {
      leaving = setTimeout(() => style.removeProperty("--pad"), A_PRESS);
    };
  }, [pad, input]);
}

/** What stands in the figure, large, and as what it is read; undo, and the keyboard with letters. */
function Readout({ field, onUndo }: { field: PadField; onUndo: () => void }) {
  const { hand } = usePadChoice();
  const letters = () => {
    closePad(field.input);
    field.input.inputMode = "text";
    field.input.blur();
    field.input.focus();
  };
  return (
    <div className="flex items-center gap-1">
      <div className="min-w-0 flex-1 px-1 leading-tight">
        <p className="truncate text-[15px] text-soft">{field.label}</p>
        <p
          aria-live="polite"
          className={`tape truncate text-3xl font-bold ${field.invalid ? "text-stop" : "text-ink"}`}
        >
          {field.text || "–"}
          {field.unit}
          {field.reads && <span className="text-xl font-medium text-soft"> = {field.reads}</span>}
        </p>
      </div>
      <Key label={t("pad.undo")} onPress={onUndo} className="w-12">
        <UndoIcon />
      </Key>
      <Key
        label={hand === "left" ? t("pad.to_right") : t("pad.to_left")}
        onPress={() => choosePad({ hand: hand === "left" ? "right" : "left" })}
        className="w-12 text-xl"
      >
        ⇄
      </Key>
      <Key label={t("pad.letters")} onPress={letters} className="w-12">
        <KeyboardIcon />
      </Key>
    </div>
  );
}

/** The last readings, to be picked again, and what the tape's own body adds. */
function Readings({ field, keys, children }: { field: PadField; keys: PadKeys; children: ReactNode }) {
  const { body } = usePadChoice();
  const readings = recentReadings()
    .filter((one) => one !== field.text)
    .slice(0, RECENT);
  return (
    <div className="flex gap-1 overflow-x-auto">
      {children}
      {field.tape !== "1 mm" && (
        <Key label={t("pad.add_body", { body })} onPress={() => keys.add(body)} className="shrink-0 px-3">
          <span className="tape">{t("pad.body", { body })}</span>
        </Key>
      )}
      {readings.map((one) => (
        <Key
          key={one}
          label={t("pad.take", { reading: one })}
          onPress={() => keys.take(one)}
          className="shrink-0 px-3"
        >
          <span className="tape">{one}</span>
        </Key>
      ))}
    </div>
  );
}

/** The usual figures of what no tape reads: a shoe's angles, a number of shots. */
function Usual({ field, keys }: { field: PadField; keys: PadKeys }) {
  return (
    <div className="flex flex-wrap gap-1">
      {(field.steps ?? []).map((one) => (
        <Key
          key={one}
          label={`${one}${field.unit}`}
          isOn={field.text === one}
          onPress={() => keys.take(one)}
          className="min-w-14 flex-1"
        >
          <span className="tape text-lg font-semibold whitespace-nowrap">
            {one}
            {field.unit}
          </span>
        </Key>
      ))}
    </div>
  );
}

const FINEST = "h-1.5";
/** The ticks of a tape: the half the longest. */
const TICKS: Record<string, string> = { "1/2": "h-4.5", "1/4": "h-3.5", "3/4": "h-3.5" };

/** An inch of the tape: eighths above, the sixteenths between them below; as far along as they lie. */
function Ruler({ text, keys }: { text: string; keys: PadKeys }) {
  const chosen = partOf(text);
  const key = (one: string, tick: string) => (
    <Key
      key={one}
      label={one}
      isOn={one === chosen}
      onPress={() => keys.part(one)}
      className={`relative flex-1 rounded-none! px-0! ${tick === FINEST ? "" : "h-14!"}`}
    >
      <span aria-hidden="true" className={`absolute top-0 left-1/2 w-0.5 -translate-x-1/2 bg-ink ${tick}`} />
      <span className="tape pt-2">{one}</span>
    </Key>
  );
  return (
    <div className="-mx-1 flex flex-col">
      <div className="flex px-[calc(100%/16)]">{EIGHTHS.map((one) => key(one, TICKS[one] ?? "h-2.5"))}</div>
      <div className="flex">{SIXTEENTHS.map((one) => key(one, FINEST))}</div>
    </div>
  );
}

function Digits({ isLength, tape, keys }: { isLength: boolean; tape: string; keys: PadKeys }) {
  const digit = (one: string) => (
    <Key key={one} label={one} onPress={() => keys.digit(one)} className="flex-1">
      <span className="text-2xl font-semibold">{one}</span>
    </Key>
  );
  const isInches = isLength && tape !== "1 mm";
  return (
    <div className="flex flex-3 flex-col gap-1">
      {ROWS.map((row) => (
        <div key={row[0]} className="flex gap-1">
          {row.map(digit)}
        </div>
      ))}
      <div className="flex gap-1">
        {isInches ? (
          <Key label={t("pad.feet")} onPress={keys.feet} className="flex-1">
            <span className="text-lg font-semibold">{t("pad.ft")}</span>
          </Key>
        ) : (
          digit(".")
        )}
        {digit("0")}
        {isLength ? (
          <Key label={t("pad.again")} onPress={() => keys.join("again")} className="flex-1">
            <span className="font-semibold">{t("pad.again.short")}</span>
          </Key>
        ) : (
          <Key label="1/2" onPress={() => keys.part("1/2")} className="flex-1">
            <span className="tape text-xl font-semibold">1/2</span>
          </Key>
        )}
      </div>
    </div>
  );
}

function Actions({ isLength, keys }: { isLength: boolean; keys: PadKeys }) {
  return (
    <div className="flex flex-1 flex-col gap-1">
      <Key label={t("pad.back")} onPress={keys.back}>
        <BackspaceIcon />
      </Key>
      {isLength && (
        <>
          <Key label={t("pad.add")} onPress={() => keys.join("+")}>
            <span className="text-2xl font-semibold">+</span>
          </Key>
          <Key label={t("pad.take_away")} onPress={() => keys.join("less")}>
            <span className="text-2xl font-semibold">−</span>
          </Key>
        </>
      )}
      <Key
        label={t("pad.next")}
        onPress={keys.goOn}
        className={`border-accent! bg-accent! text-on-accent! ${isLength ? "" : "flex-3"}`}
      >
        <span className="text-lg font-bold">{t("pad.next")}</span>
      </Key>
    </div>
  );
}

interface KeyProps {
  label: string;
  isOn?: boolean;
  onPress: () => void;
  className?: string;
  children: ReactNode;
}

/** A key as large as a thumb in a glove needs it. */
export function Key({ label, isOn, onPress, className = "", children }: KeyProps) {
  return (
    <button
      type="button"
      aria-label={label}
      aria-pressed={isOn}
      onClick={onPress}
      className={`flex h-12 min-w-12 items-center justify-center rounded-md border border-line bg-sheet px-1 text-ink select-none active:bg-tint aria-pressed:border-accent aria-pressed:bg-tint aria-pressed:font-bold ${className}`}
    >
      {children}
    </button>
  );
}
