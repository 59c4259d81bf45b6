import { type PointerEvent, useCallback, useMemo, useRef, useState } from "react";
import type { Plan, PlannedMark, PlannedPiece, Written } from "@/api/types";
import type { CouplingHold } from "@/draw/coupling-grip";
import { toTape } from "@/draw/fractions";
import { StickStrip, type StripBend } from "@/draw/strip";
import { asPlanned, bendsOf } from "@/features/layout/marks/laid-marks";
import { Button } from "@/ui/button";
import { EndMark } from "@/ui/icons";
import { timeOf } from "@/ui/moments";
import { useSize } from "@/ui/use-size";
import { t } from "@/words/layout";
import { useFocus, useMarksCheck, useWork } from "./run-context";

const STICK = 120;
const ZOOMS = [1, 2, 4, 8];

/** The sticks as planned; while the run cannot be bent, those of its last good plan, grey, with their time. */
export function Sticks({ plan }: { plan: Plan }) {
  const last = useRef<{ plan: Plan; at: number } | null>(null);
  if (plan.pieces.length) last.current = { plan, at: Date.now() };
  if (plan.pieces.length || !last.current) return <Pieces plan={plan} />;
  return (
    <div className="min-h-0 max-lg:order-5">
      <p className="bg-sheet px-4 pt-2 text-soft">
        {t("sticks.as_they_were", { time: timeOf(last.current.at) })}
      </p>
      <div inert className="opacity-50 grayscale">
        <Pieces plan={last.current.plan} />
      </div>
    </div>
  );
}

/** The pieces as they will lie on the bench, to scale; longer than the screen they are pulled along like a tape. */
function Pieces({ plan }: { plan: Plan }) {
  const { chosen, choose } = useFocus();
  const [ref, size] = useSize<HTMLElement>();
  const [zoom, setZoom] = useState(0);
  const pull = usePull();
  const markOf = useLaidMarks(plan);
  const holds = useCouplings(plan);
  const { bends } = plan;
  const onChoose = useCallback((number: number) => choose(bends[number - 1]?.step ?? null), [choose, bends]);
  const chosenBends = useMemo(
    () => bends.filter((bend) => bend.step === chosen).map((bend) => bend.number),
    [bends, chosen],
  );
  const factor = ZOOMS[zoom] ?? 1;
  const longest = Math.max(STICK, ...plan.pieces.map((piece) => piece.length.inches));
  return (
    <section
      aria-label={t("sticks.title")}
      className="relative flex max-h-[46dvh] shrink-0 flex-col bg-sheet max-lg:order-5 max-lg:max-h-none"
    >
      {plan.pieces.length === 0 && <p className="px-4 py-3 text-soft">{t("sticks.none")}</p>}
      {plan.pieces.length > 0 && (
        <div className="absolute top-1 right-3 z-10 flex rounded-md bg-sheet/80">
          <Button
            look="quiet"
            aria-label={t("sticks.smaller")}
            disabled={zoom === 0}
            onClick={() => setZoom(zoom - 1)}
          >
            −
          </Button>
          <span className="tape self-center text-[15px] text-soft">×{factor}</span>
          <Button
            look="quiet"
            aria-label={t("sticks.larger")}
            disabled={zoom === ZOOMS.length - 1}
            onClick={() => setZoom(zoom + 1)}
          >
            +
          </Button>
        </div>
      )}
      <section
        ref={ref}
        {...pull}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached with the keyboard
        tabIndex={0}
        aria-label={t("sticks.drag")}
        className="min-h-0 overflow-auto px-4 pt-2 pb-2"
      >
        {size.width > 0 &&
          plan.pieces.map((piece) => (
            <figure key={piece.number}>
              <Caption piece={piece} hold={holds[piece.number - 1]} />
              <StickStrip
                piece={piece}
                width={size.width * factor}
                longest={longest}
                chosenBends={chosenBends}
                onChoose={onChoose}
                markFor={markOf.markFor}
                onDragMark={markOf.onDrag}
                coupling={holds[piece.number - 1]}
              />
            </figure>
          ))}
      </section>
    </section>
  );
}

function Caption({ piece, hold }: { piece: PlannedPiece; hold: CouplingHold | undefined }) {
  return (
    <figcaption className="sticky left-0 flex w-fit max-w-[calc(100%-7rem)] flex-wrap items-center gap-x-2 text-base text-soft">
      <strong className="text-ink">{t("sticks.piece", { piece: piece.number })}</strong>
      <EndMark end="A" size={22} /> {piece.end_a}
      <span className="tape">
        {t("sticks.cut")} <strong className="text-ink">{piece.length.reads}</strong>
      </span>
      <EndMark end="B" size={22} /> {piece.end_b}
      {hold?.pinned && (
        <Button look="quiet" className="min-h-9" onClick={hold.onLetGo}>
          {t("sticks.held")}
        </Button>
      )}
    </figcaption>
  );
}

const NO_PINS: never[] = [];

/** Couplings that may be moved within their room, one for each piece; moving one writes it into the run. */
function useCouplings(plan: Plan): (CouplingHold | undefined)[] {
  const { draft, edit, mayWrite } = useWork();
  const { pieces, couplings } = plan;
  const pins = draft.document.couplings ?? NO_PINS;
  const tape = draft.document.tape ?? "1/16";
  const latest = useRef(draft.document);
  latest.current = draft.document;
  // Until the plan knows of a coupling that is just being put in place, this does.
  const placing = useRef<Record<number, { index: number; text: string; at: number }>>({});
  return useMemo(
    () =>
      pieces.map((piece) => {
        const coupling = couplings[piece.number - 1];
        if (!coupling || coupling.step !== null || !mayWrite) return undefined;
        const { pinned } = coupling;
        const placed = placing.current[piece.number];
        const known = placed && pins[placed.index] === placed.text ? placed : undefined;
        const put = (next: Written[], place: string) => edit({ ...latest.current, couplings: next }, place);
        return {
          number: piece.number,
          at: coupling.at.inches - piece.start,
          from: (known?.at ?? coupling.at.inches) - piece.start,
          room: coupling.room.map(([low, high]): [number, number] => [low - piece.start, high - piece.start]),
          pinned: pinned !== null,
          reads: coupling.at.reads,
          tape,
          onMove: (at) => {
            const text = toTape(at + piece.start, tape);
            const index = pinned ?? known?.index ?? pins.length;
            placing.current[piece.number] = { index, text, at: at + piece.start };
            put(pins.toSpliced(index, 1, text), `couplings.${index}`);
          },
          onLetGo: () => pinned !== null && put(pins.toSpliced(pinned, 1), ""),
        };
      }),
    [pieces, couplings, pins, mayWrite, edit, tape],
  );
}

/** While marks are checked, the strips show the marks that were laid, and they can be dragged. */
function useLaidMarks(plan: Plan) {
  const { draft } = useWork();
  const { side } = useFocus();
  const { laid, setLaid, judged } = useMarksCheck();
  if (side !== "marks") return { markFor: undefined, onDrag: undefined };
  const bends = bendsOf(plan);
  const marks = laid ?? asPlanned(plan);
  const markFor = (bend: StripBend): PlannedMark => {
    const mark = marks[bend.number];
    const told = judged?.marks[bends.findIndex((one) => one.number === bend.number)];
    if (!mark || !told || !laid) return bend.use;
    const inches = told.should_be.inches + told.off;
    return { ...bend.use, reference: mark.reference, hook: mark.hook, at: { inches, reads: mark.at } };
  };
  const onDrag = (number: number, at: number) => {
    const mark = marks[number];
    if (mark) setLaid({ ...marks, [number]: { ...mark, at: toTape(Math.max(0, at), draft.document.tape) } });
  };
  return { markFor, onDrag };
}

/** Pulls the strips along with the hand. */
function usePull() {
  const taken = useRef<{ x: number; left: number } | null>(null);
  return {
    onPointerDown: (event: PointerEvent<HTMLElement>) => {
      if (event.pointerType === "mouse")
        taken.current = { x: event.clientX, left: event.currentTarget.scrollLeft };
    },
    onPointerMove: (event: PointerEvent<HTMLElement>) => {
      if (taken.current)
        event.currentTarget.scrollLeft = taken.current.left - (event.clientX - taken.current.x);
    },
    onPointerUp: () => {
      taken.current = null;
    },
    onPointerLeave: () => {
      taken.current = null;
    },
  };
}
