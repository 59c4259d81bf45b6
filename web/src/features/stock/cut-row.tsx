import { useId, useState } from "react";
import { Link } from "react-router";
import { useCutAct } from "@/api/cutting";
import type { TakenBar, TakenCut } from "@/api/types";
import { needsNoSaw, wholeOrRest } from "@/trade/saw";
import { Button } from "@/ui/button";
import { CautionIcon, EndMark } from "@/ui/icons";
import { t } from "@/words/stock";
import { Refused } from "./refused";

interface Props {
  jobId: number;
  bar: TakenBar;
  cut: TakenCut;
  mayWrite: boolean;
}

type Act = ReturnType<typeof useCutAct>;

/** One piece to cut: where the saw goes, whose it is, what was done with it, and what could not be. */
export function CutRow({ jobId, bar, cut, mayWrite }: Props) {
  const act = useCutAct(jobId);
  const [wrong, setWrong] = useState<string | null>(null);
  const isLast = bar.cuts.filter((other) => other.done_at).at(-1)?.id === cut.id;
  const called = t("cut.called_long", { run_name: cut.run_name || t("cut.run"), piece: cut.piece });
  const waiting = !cut.done_at && !cut.stale && mayWrite;
  return (
    <li className="flex min-h-12 flex-wrap items-center gap-x-3 border-t border-line py-1">
      <strong className="tape w-20 text-right text-xl">{cut.length.reads}</strong>
      <span className="tape">
        {needsNoSaw(cut, bar) ? (
          wholeOrRest(cut)
        ) : (
          <>
            {t("bar.saw_at")} <strong>{cut.end.reads}</strong>
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
        {cut.done_at && <Done cut={cut} called={called} act={act} mayUndo={mayWrite && isLast} />}
        {!cut.done_at && cut.stale && <span className="text-[15px] text-caution">{cut.stale}</span>}
        {waiting && (
          <>
            <Button
              look="quiet"
              aria-expanded={wrong !== null}
              onClick={() => setWrong(wrong === null ? "" : null)}
            >
              {t("cut.other_length")}
            </Button>
            <Button
              className="min-h-11 px-5"
              aria-label={t("cut.do_named", { called })}
              disabled={act.isPending}
              onClick={() => act.mutate({ id: cut.id, kind: "cut", length: "" })}
            >
              {t("cut.do")}
            </Button>
          </>
        )}
      </span>
      {waiting && wrong !== null && (
        <CutWrong
          length={wrong}
          disabled={act.isPending}
          onType={setWrong}
          onSay={() =>
            act.mutate({ id: cut.id, kind: "wrong", length: wrong }, { onSuccess: () => setWrong(null) })
          }
        />
      )}
      {cut.done_at && cut.stale && (
        <p className="flex w-full flex-wrap items-center justify-end gap-x-3 pb-1 text-caution">
          <CautionIcon /> {cut.stale}
          {mayWrite && (
            <Button
              aria-label={t("refused.to_rack.label", { called })}
              disabled={act.isPending}
              onClick={() => act.mutate({ id: cut.id, kind: "to_rack", length: "" })}
            >
              {t("refused.to_rack")}
            </Button>
          )}
        </p>
      )}
      {act.error && (
        <div className="flex w-full justify-end pb-1">
          <Refused error={act.error} />
        </div>
      )}
    </li>
  );
}

interface DoneProps {
  cut: TakenCut;
  called: string;
  act: Act;
  mayUndo: boolean;
}

function Done({ cut, called, act, mayUndo }: DoneProps) {
  return (
    <>
      <span className="tape text-[15px] text-good">
        {t("cut.done", {
          done_by: cut.done_by,
          detail: cut.came_out ? t("cut.came_out", { came_out: cut.came_out.reads }) : "",
        })}
      </span>
      {mayUndo && (
        <Button
          look="quiet"
          aria-label={t("cut.undo_named", { called })}
          disabled={act.isPending}
          onClick={() => act.mutate({ id: cut.id, kind: "undo", length: "" })}
        >
          {t("cut.undo")}
        </Button>
      )}
    </>
  );
}

interface WrongProps {
  length: string;
  disabled: boolean;
  onType: (length: string) => void;
  onSay: () => void;
}

function CutWrong({ length, disabled, onType, onSay }: WrongProps) {
  const id = useId();
  return (
    <form
      className="flex w-full items-center justify-end gap-2 py-1"
      onSubmit={(event) => {
        event.preventDefault();
        onSay();
      }}
    >
      <label htmlFor={id}>{t("cut.now")}</label>
      <input
        id={id}
        className="tape min-h-11 w-28 rounded-md border border-line bg-paper px-2.5"
        value={length}
        onChange={(event) => onType(event.target.value)}
      />
      <Button type="submit" className="min-h-11" disabled={disabled}>
        {t("cut.save")}
      </Button>
    </form>
  );
}
