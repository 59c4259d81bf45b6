import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { SheetBend } from "@/api/types";
import { referenceName } from "@/draw/references";
import { announced } from "@/ui/announced";
import { Button } from "@/ui/button";
import { BendTab, EndMark, GoodIcon, GripIcon, PrintIcon, StopIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { t } from "@/words/bench";
import { useBenchContext } from "./bench-context";
import { type At, judgedOf, shotOf } from "./stick-steps";

const DRAG_BEGINS = 6;
const HOOKS = [
  { value: "habit" as const, label: t("hooks.usual") },
  { value: "one_way" as const, label: t("hooks.one_way") },
];

/** A stick's work in order: cut and mark, each bend (to be dragged into another order), fit. */
export function StickRail({ onChosen }: { onChosen?: () => void }) {
  const { bench, stick, go, arrange, mayWrite } = useBenchContext();
  const { sheet } = stick;
  const firsts = sheet.bends.filter((bend) => bend.begins_act);
  const chose = (at: At) => {
    go(at);
    onChosen?.();
  };
  return (
    <div>
      <div className="flex items-center border-b border-line px-3 py-1">
        <h1 className="text-lg font-bold">{t("bench")}</h1>
        <Button look="quiet" className="ml-auto max-lg:min-h-12" onClick={() => window.print()}>
          <PrintIcon /> {t("print.cards")}
        </Button>
      </div>
      {bench.sticks.length > 1 && (
        <nav aria-label={t("sticks.title")} className="flex border-b border-line">
          {bench.sticks.map(({ sheet: { piece }, fitted_at }) => (
            <Link
              key={piece}
              to={`/runs/${bench.run_id}/bench/${piece}`}
              onClick={onChosen}
              aria-current={piece === sheet.piece ? "page" : undefined}
              className={`flex min-h-12 flex-1 items-center justify-center gap-1 border-b-4 font-semibold ${piece === sheet.piece ? "border-accent" : "border-transparent text-soft hover:text-ink"}`}
            >
              {t("sticks.stick", { piece })}{" "}
              {fitted_at && <GoodIcon className="text-good" aria-label={t("sticks.fitted")} />}
            </Link>
          ))}
        </nav>
      )}
      {bench.note && (
        <p className="border-b border-line px-4 py-2 whitespace-pre-wrap">
          <strong className="block text-[15px] text-soft">{t("note.title")}</strong>
          {bench.note}
        </p>
      )}
      <p className="px-4 pt-2 pb-1 text-[15px]">
        <EndMark end="A" /> {sheet.end_a} <EndMark end="B" /> {sheet.end_b}
      </p>
      <Sorted>
        <ol aria-label={t("rail.title", { piece: sheet.piece })}>
          <RailRow at="cut" onChoose={chose} done={Boolean(stick.cut_at)}>
            {t("rail.cut")} <strong className="tape text-xl text-ink">{sheet.cut.reads}</strong>
            {t("rail.mark")}
          </RailRow>
          {firsts.length > 0 && (
            <li className="flex items-baseline gap-1 py-1 pr-3 pl-9 text-[14px] text-soft" aria-hidden="true">
              <span className="w-10">{t("card.order")}</span>
              <span className="w-9">{t("marks.bend")}</span>
              <span className="w-17">{t("marks.mark.short")}</span>
              <span className="whitespace-nowrap">{t("marks.hook.short")}</span>
              <span className="ml-auto">{t("marks.angle.short")}</span>
            </li>
          )}
          {firsts.map((bend, at) => (
            <Act
              key={bend.number}
              ordinal={ordinal(at + 1)}
              bends={sheet.bends.filter((one) => one.act === bend.act)}
              movable={mayWrite && firsts.length > 1}
              onChoose={chose}
            />
          ))}
          <RailRow at="fit" onChoose={chose} done={Boolean(stick.fitted_at)}>
            {t("rail.fit")}
          </RailRow>
        </ol>
      </Sorted>
      <div className="flex flex-col gap-2 px-4 py-3 text-[15px]">
        {sheet.why_not && <Notice severity={sheet.proposed ? "caution" : "stop"}>{sheet.why_not}</Notice>}
        <p className="text-soft">
          {t("order.takes", {
            order: sheet.proposed ? t("order.proposed") : t("order.yours"),
            flips: sheet.end_for_end ? t("order.flips", { count: sheet.end_for_end }) : t("order.flips.none"),
            turns: sheet.turns ? t("order.rolls", { count: sheet.turns }) : t("order.rolls.none"),
          })}
        </p>
        {mayWrite && !sheet.proposed && (
          <Button className="min-h-12 self-start" onClick={() => arrange({ order: null })}>
            {t("order.reset")}
          </Button>
        )}
        {mayWrite && sheet.bends.length > 0 && (
          <div className="flex items-center gap-3">
            {t("hooks.title")}
            <Segments
              label={t("hooks.title")}
              large
              value={stick.arranged.hooks ?? "habit"}
              choices={HOOKS}
              onChoose={(hooks) => arrange({ hooks, order: null })}
            />
          </div>
        )}
      </div>
    </div>
  );
}

interface RowProps {
  at: At;
  done: boolean;
  onChoose: (at: At) => void;
  children: ReactNode;
}

function RailRow({ at, done, onChoose, children }: RowProps) {
  const current = useBenchContext().at === at;
  return (
    <li>
      <button
        type="button"
        aria-current={current ? "step" : undefined}
        onClick={() => onChoose(at)}
        className={`flex min-h-12 w-full items-baseline gap-1.5 border-l-4 px-3 py-2 text-left ${current ? "border-accent bg-tint" : "border-transparent hover:bg-well"}`}
      >
        <span>{children}</span>
        {done && <GoodIcon className="ml-auto self-center text-good" aria-label={t("rail.done")} />}
      </button>
    </li>
  );
}

/** Lets the acts be dragged into another order (a sweep's shots are one act); they keep their hooks. */
function Sorted({ children }: { children: ReactNode }) {
  const { stick, arrange } = useBenchContext();
  const firsts = stick.sheet.bends.filter((bend) => bend.begins_act);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_BEGINS } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = firsts.map((bend) => `bend-${bend.number}`);

  function onDragEnd({ active, over }: DragEndEvent) {
    if (!over || active.id === over.id) return;
    const moved = arrayMove(firsts, ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
    arrange({ order: moved.map((bend) => ({ bend: bend.number, hook: bend.use.hook })) });
  }

  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={announced(ids, (at) => t("bend.title", { bend: firsts[at]?.number ?? 0 }))}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

interface ActProps {
  ordinal: string;
  bends: SheetBend[];
  movable: boolean;
  onChoose: (at: At) => void;
}

function Act({ ordinal: when, bends, movable, onChoose }: ActProps) {
  const [first] = bends;
  const { at: screen } = useBenchContext();
  const shot = first?.sweep && shotOf(bends, screen);
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({
    id: `bend-${first?.number}`,
    disabled: !movable,
  });
  const style = { transform: CSS.Translate.toString(transform), transition };
  return (
    <li ref={setNodeRef} style={style} className={isDragging ? "relative z-10 bg-paper shadow-lg" : ""}>
      {(shot ? [shot] : bends).map((bend, at) => (
        <div key={bend.number} className="flex items-stretch">
          {movable && at === 0 ? (
            <button
              type="button"
              aria-label={t("order.move", { bend: bend.number })}
              className="flex w-8 cursor-grab touch-none items-center justify-center text-soft hover:text-ink"
              {...attributes}
              {...listeners}
            >
              <GripIcon width={16} height={16} />
            </button>
          ) : (
            <span className="w-8" />
          )}
          <BendRow bend={bend} when={at === 0 ? when : ""} onChoose={onChoose} />
        </div>
      ))}
      {first?.breaks && (
        <div className="px-4 pb-2">
          <Notice severity="stop">{t("order.impossible", { breaks: first.breaks })}</Notice>
        </div>
      )}
      {first && first.against.length > 0 && (
        <div className="px-4 pb-2">
          <Notice severity="caution">{t("order.unusual", { against: first.against.join(" ") })}</Notice>
        </div>
      )}
    </li>
  );
}

function BendRow({ bend, when, onChoose }: { bend: SheetBend; when: string; onChoose: (at: At) => void }) {
  const { at, markOf, waiting } = useBenchContext();
  const current = at === bend.number;
  const judged = judgedOf(bend, waiting.get(bend.number));
  const mark = markOf(bend);
  return (
    <button
      type="button"
      aria-current={current ? "step" : undefined}
      onClick={() => onChoose(bend.number)}
      className={`flex min-h-12 min-w-0 flex-1 items-center gap-2 border-l-4 pr-3 pl-1 text-left ${current ? "border-accent bg-tint" : "border-transparent hover:bg-well"}`}
    >
      <span className="tape w-8 text-[15px] font-semibold text-soft">{when}</span>
      <BendTab number={bend.number} chosen={current} />
      <strong className="tape w-21 text-xl whitespace-nowrap">{mark.at.reads}</strong>
      <span className="text-[15px] whitespace-nowrap text-soft">
        {mark.reference === "arrow" ? "" : referenceName(mark.reference)} {mark.hook === "A" ? "◂ A" : "B ▸"}
        {bend.sweep && t("rail.shot", { shot: bend.sweep.shot, of: bend.sweep.of })}
      </span>
      <strong className="tape ml-auto text-lg whitespace-nowrap">{bend.angle_reads}</strong>
      {judged &&
        (judged.within ? (
          <GoodIcon className="shrink-0 text-good" aria-label={t("rail.within")} />
        ) : (
          <StopIcon className="shrink-0 text-stop" aria-label={t("rail.out")} />
        ))}
    </button>
  );
}

/** The order of bending is told as 1st, 2nd, 3rd; a bend's number is its place along the pipe. */
export const ordinal = (at: number): string => t("order.nth", { count: at, ordinal: true });
