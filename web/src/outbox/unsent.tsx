import { Link, useMatch } from "react-router";
import { Button } from "@/ui/button";
import { CautionIcon, GoodIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { t } from "@/words/shell";
import { actInWords } from "./act-in-words";
import type { Standing } from "./outbox";
import { useOutbox, useOutboxSnapshot } from "./outbox-context";
import type { Kept } from "./outbox-store";

const STANDS: Record<Standing, string> = {
  quiet: t("outbox.all_sent"),
  sending: t("outbox.sending"),
  "no network": t("outbox.no_network"),
  busy: t("outbox.slow"),
  barred: t("outbox.not_sent"),
};

/** How what was done at the bench stands with the server. */
export function Sending() {
  const { kept, standing, says } = useOutboxSnapshot();
  const waiting = kept.filter((one) => one.refused === null).length;
  const isWell = standing === "quiet" || standing === "sending";
  const Icon = isWell ? GoodIcon : CautionIcon;
  const keeps = waiting > 0 && !isWell ? t("outbox.kept", { waiting }) : "";
  return (
    <span
      role="status"
      aria-live="polite"
      title={says || undefined}
      className="flex items-center gap-1 text-[15px] text-soft"
    >
      <Icon width={18} height={18} className={isWell ? "text-good" : "text-caution"} />
      <span className={standing === "quiet" ? "max-sm:sr-only" : ""}>{STANDS[standing]}</span>
      {keeps}
    </span>
  );
}

/** On other pages: that something done at a bench is not sent, or was refused, and where. */
export function UnsentElsewhere() {
  const { kept } = useOutboxSnapshot();
  const bench = useMatch("/runs/:runId/bench/*");
  const others = kept.filter((one) => one.runId !== Number(bench?.params.runId));
  const [first] = others;
  if (!first) return null;
  const refused = others.filter((one) => one.refused !== null).length;
  return (
    <Link
      to={`/runs/${first.runId}/bench`}
      className="flex min-h-10 items-center gap-1 text-[15px] font-medium text-caution underline"
    >
      <CautionIcon width={18} height={18} />
      {refused > 0
        ? t("outbox.refused_count", { refused })
        : t("outbox.kept_of_others", { others: others.length })}
    </Link>
  );
}

/** What the server did not take of what was done at this run's bench, each with its reason and what to do about it. */
export function RefusedActs({ runId }: { runId: number }) {
  const { kept, notKept } = useOutboxSnapshot();
  const refused = kept.filter((one) => one.runId === runId && one.refused !== null);
  if (refused.length === 0 && !notKept) return null;
  return (
    <section
      aria-label={t("outbox.not_entered")}
      className="sticky top-0 z-20 max-h-[40vh] overflow-y-auto border-b-2 border-stop bg-paper px-4 py-2 print:hidden"
    >
      {notKept && <Notice severity="stop">{notKept}</Notice>}
      {refused.length > 0 && (
        <ul className="flex flex-col gap-1">
          {refused.map((one) => (
            <RefusedAct key={one.seq} kept={one} />
          ))}
        </ul>
      )}
    </section>
  );
}

function RefusedAct({ kept: { seq, act, refused } }: { kept: Kept }) {
  const outbox = useOutbox();
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <Notice severity="stop">
        <strong>{t("outbox.not_entered_what", { actInWords: actInWords(act) })}</strong> {refused}
      </Notice>
      <span className="ml-auto flex gap-2">
        <Button className="min-h-11" onClick={() => outbox.tryAgain(seq)}>
          {t("outbox.try_again")}
        </Button>
        <Button look="quiet" className="min-h-11" onClick={() => outbox.letGo(seq)}>
          {t("outbox.discard")}
        </Button>
      </span>
    </li>
  );
}
