import { useCallback, useMemo } from "react";
import { fixHere } from "@/api/begun-here";
import { newKey } from "@/api/new-key";
import { isBegunHere } from "@/api/own-numbers";
import type { BenchAct } from "@/api/types";
import { useOutbox, useOutboxSnapshot } from "@/outbox/outbox-context";
import { asAct, type Doing, type Queue } from "./acts-queue";

export interface Refused {
  seq: number;
  act: BenchAct;
  says: string;
}

export interface Acts {
  /** What was done at this run's bench and is not known to be kept by the server yet, oldest first. */
  queue: Queue;
  /** What the server refused, and why, until it is tried again, entered anew or let go. */
  refused: Refused[];
  offline: boolean;
  /** Enters an act; gives whether it is kept, here or by the server. */
  act: (doing: Doing) => Promise<boolean>;
}

/**
 * What is done at a run's bench: kept here first, sent as soon as it can be sent. `version`: of the run as the sheets
 * show it, which says what a piece's number means.
 */
export function useActs(runId: number, version: number | undefined): Acts {
  const outbox = useOutbox();
  const { kept, standing } = useOutboxSnapshot();
  const mine = useMemo(() => kept.filter((one) => one.runId === runId), [kept, runId]);
  const queue = useMemo(() => mine.filter((one) => one.refused === null).map((one) => one.act), [mine]);
  const refused = useMemo(
    () => mine.flatMap(({ seq, act, refused: says }) => (says === null ? [] : [{ seq, act, says }])),
    [mine],
  );
  const act = useCallback(
    async (doing: Doing) => {
      const instead = refused.filter((one) => isAgain(one.act, doing));
      const doneBy = isBegunHere(runId) ? await fixHere(runId).catch(() => undefined) : version;
      const isKept = await outbox.act(runId, asAct(doing, newKey(), new Date(), doneBy));
      if (isKept) for (const { seq } of instead) await outbox.letGo(seq);
      return isKept;
    },
    [outbox, runId, version, refused],
  );
  return { queue, refused, offline: standing === "no network", act };
}

/** Whether the same is done once more, as a bend's reading mended. */
const isAgain = (act: BenchAct, doing: Doing): boolean =>
  act.kind === doing.kind &&
  act.piece === doing.piece &&
  (act.kind !== "bent" || (doing.kind === "bent" && act.bend === doing.bend)) &&
  (act.kind !== "checked" || (doing.kind === "checked" && act.item === doing.item));
