import { useState } from "react";
import { Link } from "react-router";
import { useCutAct, useLetGo } from "@/api/queries";
import type { Cutting, TakenBar, TakenCut } from "@/api/types";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { EndMark } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { CutBar, type DrawnBar } from "./cut-bar";
import { needsNoSaw, wholeOrRest } from "./saw";
import { counted } from "./totals";

type Act = ReturnType<typeof useCutAct>;

/** The plan that was taken: each source with its cuts, confirmed one by one; rack and ledger follow. */
export function CuttingView({
  jobId,
  cutting,
  mayWrite,
}: {
  jobId: number;
  cutting: Cutting;
  mayWrite: boolean;
}) {
  const act = useCutAct(jobId);
  const letGo = useLetGo(jobId);
  const { taken } = cutting;
  const longest = Math.max(1, ...taken.bars.map((bar) => bar.length.inches));
  const bars = taken.bars.filter((bar) => bar.cuts.length > 0);
  const error = act.error ?? letGo.error;
  return (
    <section aria-label="Cutting">
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <p className="tape text-lg">
          <strong>
            {taken.cut} of {counted(taken.cut + taken.to_cut, "piece")} cut
          </strong>
          . What is needed from the rack is reserved.
        </p>
        <div className="ml-auto flex gap-2">
          <Button onClick={() => window.print()}>Print</Button>
          <a
            href={`/api/jobs/${jobId}/cutting/cuts.csv`}
            className="inline-flex min-h-9 items-center rounded-md border border-line bg-paper px-3.5 font-medium hover:border-ink"
          >
            CSV
          </a>
          {mayWrite && taken.to_cut > 0 && (
            <Confirm
              trigger={<Button>Let go</Button>}
              title="Give this plan up?"
              says="What is not cut yet is no longer reserved and is planned again. What is cut stays cut."
              act="Let go of it"
              onAct={() => letGo.mutate(undefined)}
            />
          )}
        </div>
      </div>
      <p className="mt-1 text-[15px] text-soft">
        Eye protection and gloves on. Clamp the pipe, saw on the waste side of the line, ream every cut: no
        bare edges.
      </p>
      {error && (
        <div className="mt-2">
          <Notice severity="stop">{error.message}</Notice>
        </div>
      )}
      {taken.stale > 0 && (
        <div className="mt-2">
          <Notice severity="caution">
            {counted(taken.stale, "piece")} no longer {taken.stale === 1 ? "fits its run" : "fit their runs"},
            which changed after this was planned. The rest is planned again below; what is cut stays.
          </Notice>
        </div>
      )}
      {bars.map((bar) => (
        <div key={bar.id}>
          <CutBar bar={drawn(bar)} longest={longest} />
          <ul aria-label={`Cuts from ${bar.name}`} className="mt-0.5">
            {bar.cuts.map((cut) => (
              <CutRow key={cut.id} bar={bar} cut={cut} act={act} mayWrite={mayWrite} />
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

function CutRow({ bar, cut, act, mayWrite }: { bar: TakenBar; cut: TakenCut; act: Act; mayWrite: boolean }) {
  const [wrong, setWrong] = useState<string | null>(null);
  const last = bar.cuts.filter((other) => other.done_at).at(-1);
  const called = `${cut.run_name || "Run"}, piece ${cut.piece}`;
  return (
    <li className="flex min-h-12 flex-wrap items-center gap-x-3 border-t border-line py-1">
      <strong className="tape w-20 text-right text-xl">{cut.length.reads}</strong>
      <span className="tape">
        {needsNoSaw(cut, bar) ? (
          wholeOrRest(cut)
        ) : (
          <>
            saw at <strong>{cut.end.reads}</strong>
          </>
        )}
      </span>
      <Link to={`/runs/${cut.run}/bench/${cut.piece}`} className="tape underline-offset-2 hover:underline">
        {called}
      </Link>
      <span className="flex items-center gap-1 text-[15px] text-soft">
        <EndMark end="A" size={15} /> {cut.end_a} <EndMark end="B" size={15} /> {cut.end_b}
      </span>
      <span className="ml-auto flex items-center gap-1.5">
        {cut.done_at ? (
          <>
            <span className="text-[15px] text-good">
              ✓ cut by {cut.done_by}
              {cut.came_out ? `, ${cut.came_out.reads} long` : ""}
            </span>
            {mayWrite && last?.id === cut.id && (
              <Button
                look="quiet"
                aria-label={`Undo the cut of ${called}`}
                disabled={act.isPending}
                onClick={() => act.mutate({ id: cut.id, kind: "undo", length: "" })}
              >
                Undo
              </Button>
            )}
          </>
        ) : cut.stale ? (
          <span className="text-[15px] text-caution">{cut.stale}</span>
        ) : (
          mayWrite && (
            <>
              <Button
                look="quiet"
                aria-expanded={wrong !== null}
                onClick={() => setWrong(wrong === null ? "" : null)}
              >
                Cut wrong …
              </Button>
              <Button
                className="min-h-11 px-5"
                aria-label={`Cut ${called}`}
                disabled={act.isPending}
                onClick={() => act.mutate({ id: cut.id, kind: "cut", length: "" })}
              >
                Cut
              </Button>
            </>
          )
        )}
      </span>
      {wrong !== null && !cut.done_at && (
        <form
          className="flex w-full items-center justify-end gap-2 py-1"
          onSubmit={(event) => {
            event.preventDefault();
            act.mutate({ id: cut.id, kind: "wrong", length: wrong }, { onSuccess: () => setWrong(null) });
          }}
        >
          <label htmlFor={`wrong-${cut.id}`}>It is now</label>
          <input
            id={`wrong-${cut.id}`}
            className="tape min-h-11 w-28 rounded-md border border-line bg-paper px-2.5"
            value={wrong}
            onChange={(event) => setWrong(event.target.value)}
          />
          <Button type="submit" className="min-h-11">
            Say so
          </Button>
        </form>
      )}
    </li>
  );
}

function drawn(bar: TakenBar): DrawnBar {
  const offcut = bar.offcut ? `${bar.offcut.reads} → ${bar.offcut_tag || "rack"}` : "";
  const left = bar.offcut ? `; left: ${offcut}` : "";
  return {
    name: bar.name,
    about: `, ${bar.trade_size} ${bar.material}${bar.place ? `, ${bar.place}` : ""}${bar.scrap ? "" : ", new stick"}${left}`,
    length: bar.length,
    cuts: bar.cuts.map((cut) => ({ ...cut, key: String(cut.id), done: cut.done_at !== null })),
    left: offcut,
  };
}
