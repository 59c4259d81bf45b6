import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useUnderChange } from "@/api/draft-queries";
import type { Run, RunDocument } from "@/api/types";
import { Notice } from "@/ui/notice";
import { t } from "@/words/layout";

/** It is asked once nobody has typed for so long. */
const PAUSE = 300;
const LINK = "font-semibold underline";

/** What is cut, bent or reserved and would be otherwise with the run as it is on the screen, and what can be done. */
export function UnderChange({ run, document }: { run: Run; document: RunDocument }) {
  const [settled, settle] = useState(document);
  useEffect(() => {
    const timer = setTimeout(() => settle(document), PAUSE);
    return () => clearTimeout(timer);
  }, [document]);
  const lines = useUnderChange(run.id, settled).data ?? [];
  const [search] = useSearchParams();
  if (!lines.length) return null;
  const begun = lines.find((one) => one.begun);
  return (
    <section aria-label={t("under.title")} className="border-b border-caution bg-paper px-4 py-2">
      <Notice severity="caution">
        {lines.map((one) => (
          <span key={one.piece} className="tape block">
            {one.says}
          </span>
        ))}
        {begun && <span className="block">{t("under.bench_keeps")}</span>}
        <span className="flex flex-wrap gap-x-4">
          {begun && (
            <Link to={`/runs/${run.id}/bench/${begun.piece}`} className={LINK}>
              {t("under.bent")}
            </Link>
          )}
          <Link to={`/jobs/${run.job_id}/stock`} className={LINK}>
            {t(begun ? "under.cut" : "under.reserved")}
          </Link>
          <Link to={`?${withHistory(search)}`} className={LINK}>
            {t("under.go_back")}
          </Link>
        </span>
      </Notice>
    </section>
  );
}

function withHistory(search: URLSearchParams): URLSearchParams {
  const next = new URLSearchParams(search);
  next.set("beside", "history");
  return next;
}
