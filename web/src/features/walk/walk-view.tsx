import { useEffect } from "react";
import type { Plan } from "@/api/types";
import { StickStrip } from "@/draw/strip";
import { Button } from "@/ui/button";
import { EndMark, RedoIcon, UndoIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { useSize } from "@/ui/use-size";
import { ChecksLine } from "./checks-line";
import { Picture } from "./picture";
import { useRunContext } from "./run-page";
import { RunSettings } from "./settings";
import { WalkList } from "./walk-list";

const STICK = 120;

/** Measure and route: the walk list, the picture and the stick, which always agree. */
export function WalkView() {
  const { plan, planError, chosen, choose } = useRunContext();
  return (
    <main className="flex flex-1 flex-col lg:h-[calc(100dvh-3.5rem)] lg:flex-none lg:flex-row">
      <div className="flex shrink-0 flex-col overflow-y-auto border-line bg-paper lg:w-[25rem] lg:border-r">
        <Toolbar />
        <RunSettings />
        <WalkList />
      </div>
      <div className="flex min-w-0 flex-1 flex-col">
        {planError && (
          <div className="border-b border-line bg-paper px-4 py-2">
            <Notice severity="caution">
              {planError} What you type is kept; the picture follows when it is back.
            </Notice>
          </div>
        )}
        {plan && <Picture plan={plan} chosen={chosen} onChoose={choose} />}
        {plan && <ChecksLine plan={plan} />}
        {plan && <Sticks plan={plan} chosen={chosen} onChoose={choose} />}
      </div>
    </main>
  );
}

function Toolbar() {
  const { draft, send, mayWrite } = useRunContext();

  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
      event.preventDefault();
      send({ type: event.shiftKey ? "redo" : "undo" });
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [send]);

  return (
    <div className="flex items-center border-b border-line px-3 py-1">
      <h1 className="text-lg font-bold">Walk</h1>
      {mayWrite ? (
        <span className="ml-auto flex">
          <Button
            look="quiet"
            aria-label="Undo"
            disabled={!draft.past.length}
            onClick={() => send({ type: "undo" })}
          >
            <UndoIcon />
          </Button>
          <Button
            look="quiet"
            aria-label="Redo"
            disabled={!draft.future.length}
            onClick={() => send({ type: "redo" })}
          >
            <RedoIcon />
          </Button>
        </span>
      ) : (
        <span className="ml-auto text-[15px] text-soft">You may look, not change.</span>
      )}
    </div>
  );
}

function Sticks({
  plan,
  chosen,
  onChoose,
}: {
  plan: Plan;
  chosen: number | null;
  onChoose: (step: number | null) => void;
}) {
  const [ref, size] = useSize<HTMLDivElement>();
  const stepOf = (number: number) => plan.bends[number - 1]?.step ?? null;
  const chosenBends = plan.bends.filter((bend) => bend.step === chosen).map((bend) => bend.number);
  const longest = Math.max(STICK, ...plan.pieces.map((piece) => piece.length.inches));
  return (
    <section
      aria-label="Sticks"
      ref={ref}
      className="max-h-[46dvh] shrink-0 overflow-y-auto bg-sheet px-4 pt-2 pb-2"
    >
      {plan.pieces.length === 0 && (
        <p className="py-3 text-soft">The pencil marks stand here once the run reaches its end.</p>
      )}
      {size.width > 0 &&
        plan.pieces.map((piece) => (
          <figure key={piece.number}>
            <figcaption className="flex flex-wrap items-center gap-x-2 text-base text-soft">
              <strong className="text-ink">Piece {piece.number}</strong>
              <EndMark end="A" size={22} /> {piece.end_a}
              <span className="tape">
                cut <strong className="text-ink">{piece.length.reads}</strong>
              </span>
              <EndMark end="B" size={22} /> {piece.end_b}
            </figcaption>
            <StickStrip
              piece={piece}
              width={size.width}
              longest={longest}
              chosenBends={chosenBends}
              onChoose={(number) => onChoose(stepOf(number))}
            />
          </figure>
        ))}
    </section>
  );
}
