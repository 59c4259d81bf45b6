import { type FormEvent, useEffect, useState } from "react";
import type { BenchAct, SheetBend } from "@/api/types";
import { askToRead, onReading, useDevice } from "@/devices/hub";
import { DogLegDrawing } from "@/draw/dog-leg";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { Field } from "@/ui/field";
import { GoodIcon, StopIcon } from "@/ui/icons";
import { timeOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { t } from "@/words/bench";
import { useBenchContext } from "./bench-context";
import { degreesOf, type Judged, judgedOf, shotsOf, sumBefore } from "./stick-steps";

type Way = "1" | "-1";
const WAYS: { value: Way; label: string }[] = [
  { value: "1", label: t("reading.clockwise") },
  { value: "-1", label: t("reading.counterclockwise") },
];

type Reading = Extract<BenchAct, { kind: "bent" }>;

/** What finder and tape read on the bend that was made; within tolerance, or out. */
export function AsBent({ bend }: { bend: SheetBend }) {
  const { waiting, refused, mayWrite, stick } = useBenchContext();
  const [again, setAgain] = useState(false);
  // What is being typed is not taken away when somebody else's reading of the same bend comes in.
  const [typing, setTyping] = useState(false);
  const judged = judgedOf(bend, waiting.get(bend.number));
  if (judged && !again && !typing) return <Came bend={bend} judged={judged} onAgain={() => setAgain(true)} />;
  if (!mayWrite || stick.fitted_at) return null;
  const last = refused.findLast(
    ({ act }) => act.kind === "bent" && act.piece === stick.sheet.piece && act.bend === bend.number,
  );
  const typed = last?.act.kind === "bent" ? last.act : null;
  return (
    <Entry
      key={typed?.key}
      bend={bend}
      again={again}
      typed={typed}
      onTyping={setTyping}
      onDone={() => {
        setAgain(false);
        setTyping(false);
      }}
    />
  );
}

interface EntryProps {
  bend: SheetBend;
  again: boolean;
  /** What was entered and refused: it is still there, to be mended. */
  typed: Reading | null;
  onTyping: (typing: boolean) => void;
  onDone: () => void;
}

function Entry({ bend, again, typed, onTyping, onDone }: EntryProps) {
  const { stick, act, markOf, dialOf, waiting, go } = useBenchContext();
  // Of a sweep the finder lies over all its shots so far: one shot alone is too little to read.
  const { sweep } = bend;
  const before = sweep ? sumBefore(shotsOf(stick, bend), bend, waiting) : 0;
  const [angle, setAngle] = useState(typed ? String(typed.angle + before) : "");
  const [tape, setTape] = useState(String(typed?.tape ?? ""));
  const [outOfPlane, setOutOfPlane] = useState(typed?.turned ? String(Math.abs(typed.turned)) : "");
  const [way, setWay] = useState<Way>((typed?.turned ?? 0) < 0 ? "-1" : "1");
  const [wrong, setWrong] = useState("");
  const finder = useDevice("finder");
  useEffect(
    () =>
      onReading((device, read) => {
        if (device !== "finder") return;
        setAngle(String(Math.round((Math.abs(read.value) + before) * 10) / 10));
        setWrong("");
        onTyping(true);
      }),
    [before, onTyping],
  );

  async function submit(event: FormEvent) {
    event.preventDefault();
    const whole = degreesOf(angle);
    const read = whole === null ? null : whole - before;
    if (read === null || read <= 0) {
      setWrong(
        whole === null ? t("reading.angle.how") : t("reading.sweep.before", { before: before.toFixed(1) }),
      );
      return;
    }
    const turned = outOfPlane.trim() ? degreesOf(outOfPlane) : 0;
    if (turned === null) {
      setWrong(t("reading.dog_leg.how"));
      return;
    }
    const isKept = await act({
      kind: "bent",
      piece: stick.sheet.piece,
      bend: bend.number,
      angle: read,
      tape: tape.trim() || null,
      turned: turned * Number(way),
      again,
      reference: markOf(bend).reference,
      dial: dialOf(bend) ?? null,
    });
    // Only then is what was typed taken off the screen.
    if (!isKept) return;
    onDone();
    const next = sweep && shotsOf(stick, bend).find((shot) => shot.sweep?.shot === sweep.shot + 1);
    if (next && !again) go(next.number);
  }

  return (
    <form
      onSubmit={submit}
      aria-label={t("reading.title")}
      data-tour="reading"
      className="flex flex-col gap-2"
    >
      <h2 className="text-lg font-bold">{again ? t("reading.again") : t("reading.title")}</h2>
      <div className="flex flex-wrap items-start gap-2">
        <Field
          label={sweep && sweep.shot > 1 ? t("reading.sweep.angle") : t("reading.angle")}
          inputMode="decimal"
          className="w-40 [&_input]:min-h-12 [&_input]:text-xl"
          value={angle}
          onChange={(event) => {
            setAngle(event.target.value);
            onTyping(event.target.value !== "");
          }}
          wrong={wrong || undefined}
        />
        {bend.tape && (
          <Field
            label={t("reading.tape")}
            className="w-36 [&_input]:min-h-12 [&_input]:text-xl"
            value={tape}
            placeholder={bend.tape.wanted.reads}
            onChange={(event) => setTape(event.target.value)}
          />
        )}
      </div>
      <Fits bend={bend} before={before} />
      {bend.tape && (
        <p className="text-[15px] text-soft">{t("reading.tape.optional", { says: bend.tape.says })}</p>
      )}
      {bend.previous !== null && (
        <details open={outOfPlane !== ""}>
          <summary className="min-h-10 cursor-pointer py-2 text-[17px]">{t("reading.dog_leg.add")}</summary>
          <div className="flex flex-wrap items-end gap-2">
            <Field
              label={t("reading.dog_leg")}
              inputMode="decimal"
              className="w-36 [&_input]:min-h-12 [&_input]:text-xl"
              value={outOfPlane}
              onChange={(event) => setOutOfPlane(event.target.value)}
            />
            <Select boxed label={t("reading.dog_leg.way")} value={way} choices={WAYS} onChoose={setWay} />
            <DogLegDrawing way={way === "1" ? 1 : -1} />
          </div>
          <p className="mt-1 text-[15px] text-soft">
            {t("reading.dog_leg.help", { previous: bend.previous })}
          </p>
        </details>
      )}
      <div className="flex flex-wrap gap-2">
        <Button look="main" type="submit" className="min-h-12 px-6 text-lg">
          {t("reading.enter")}
        </Button>
        {finder.canRead && (
          <Button
            className="min-h-12"
            disabled={finder.state !== "on"}
            onClick={() => askToRead("finder", bend.angle)}
          >
            {t("reading.from_finder")}
          </Button>
        )}
        {again && (
          <Button look="quiet" className="min-h-12" onClick={onDone}>
            {t("cancel")}
          </Button>
        )}
      </div>
      {finder.state === "failed" && (
        <Notice severity="caution">{t("finder.no_reading", { message: finder.says })}</Notice>
      )}
      {finder.way === "simulated" && <p className="text-[15px] text-soft">{t("finder.simulated")}</p>}
    </form>
  );
}

/** Between which readings the pipe still fits, and whether a finder can tell. */
function Fits({ bend, before }: { bend: SheetBend; before: number }) {
  const least = (bend.least + before).toFixed(1);
  const most = (bend.most + before).toFixed(1);
  const mark = bend.mark_within.inches < 1 / 16 - 1e-6 ? bend.mark_within.reads : null;
  return (
    <p className="text-[15px]">
      {t("tolerance.angles", { least, most })} {mark && t("tolerance.mark", { mark })}{" "}
      {bend.is_close && t("tolerance.closer")}
    </p>
  );
}

function Came({ bend, judged, onAgain }: { bend: SheetBend; judged: Judged; onAgain: () => void }) {
  const { stick, act, mayWrite, offline } = useBenchContext();
  const made = stick.made.find((one) => one.bend === bend.number);
  const Icon = judged.within ? GoodIcon : StopIcon;
  return (
    <section aria-label={t("reading.title")} className="flex flex-col gap-1">
      <h2 className="text-lg font-bold">{t("reading.title")}</h2>
      <p className={`flex items-center gap-2 text-xl font-bold ${judged.within ? "text-good" : "text-stop"}`}>
        <Icon width={30} height={30} />
        {judged.byHand ? t("correct.as_near") : judged.within ? t("verdict.within") : t("verdict.out")}
      </p>
      <p className="tape text-xl">
        {judged.angle} <span className="text-soft">({judged.off})</span>
        {judged.tape && <>{t("entered.tape", { tape: judged.tape })}</>}
        {judged.turned && <>{t("entered.dog_leg", { turned: judged.turned })}</>}
      </p>
      {/* One line, whether sent or not: what is touched below it stays where it is. */}
      <p className="min-h-6 text-[15px] text-soft">
        {judged.waiting ? (
          <>
            {offline ? t("entered.kept") : t("entered.sending")}
            {!judged.within && offline && t("entered.until_then", { angle_reads: bend.angle_reads })}
          </>
        ) : (
          made && `${made.by}, ${timeOf(made.at)}`
        )}
      </p>
      {mayWrite && !stick.fitted_at && (
        <div className="flex flex-wrap gap-2">
          <Button className="min-h-12" onClick={onAgain}>
            {t("reading.again")}
          </Button>
          <Confirm
            trigger={
              <Button look="quiet" className="min-h-12">
                {t("delete.start")}
              </Button>
            }
            title={t("delete.ask", { bend: bend.number })}
            says={t("delete.says")}
            act={t("delete.do")}
            onAct={() => act({ kind: "unbent", piece: stick.sheet.piece, bend: bend.number })}
          />
        </div>
      )}
    </section>
  );
}
