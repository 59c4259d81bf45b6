import { useState } from "react";
import { useHistory } from "@/api/people";
import { Button } from "@/ui/button";
import { timeOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { t } from "@/words/people";

const ALL = "everything";

/** Who did what in the crew, the last first. */
export function CrewHistory() {
  const [what, setWhat] = useState(ALL);
  const history = useHistory(what === ALL ? "" : what);
  const pages = history.data?.pages ?? [];
  const lines = pages.flatMap((page) => page.lines);
  const kinds = [ALL, ...(pages[0]?.kinds ?? [])].map((kind) => ({ value: kind, label: kind }));
  return (
    <section aria-labelledby="history" className="mt-8">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 id="history" className="text-xl font-bold">
          {t("history.title")}
        </h2>
        <span>
          {t("history.showing")}{" "}
          <Select label={t("history.kind")} value={what} choices={kinds} onChoose={setWhat} />
        </span>
        <a href="/api/history.csv" className="ml-auto" download>
          {t("history.csv")}
        </a>
      </div>
      {history.error && <Notice severity="stop">{history.error.message}</Notice>}
      {lines.length > 0 ? (
        <ol className="mt-2 rounded-lg border border-line bg-paper">
          {lines.map((line) => (
            <li
              key={`${line.at} ${line.what} ${line.about}`}
              className="flex flex-wrap gap-x-3 border-b border-line/60 px-4 py-1.5 last:border-b-0"
            >
              <time dateTime={line.at} className="w-44 text-[15px] text-soft">
                {timeOf(line.at)}
              </time>
              <span className="min-w-0 flex-1">
                <span className="font-semibold">{line.who}</span> {line.what}
                {line.about && <span className="text-soft">: {line.about}</span>}
              </span>
            </li>
          ))}
        </ol>
      ) : (
        history.isSuccess && <p className="mt-2 text-soft">{t("history.none")}</p>
      )}
      {history.hasNextPage && (
        <Button
          className="mt-2 min-h-11"
          disabled={history.isFetchingNextPage}
          onClick={() => history.fetchNextPage()}
        >
          {t("history.older")}
        </Button>
      )}
    </section>
  );
}
