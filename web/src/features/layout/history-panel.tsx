import { useState } from "react";
import { useNewest, useRevision, useRevisions } from "@/api/queries";
import type { RevisionLine } from "@/api/types";
import { Button } from "@/ui/button";
import { timeOf } from "@/ui/moments";
import { t } from "@/words/layout";
import { Compared } from "./compared";
import { same } from "./merge";
import { useWork } from "./run-context";

/** Who saved the run when; any of it can be looked at and brought back. */
export function HistoryPanel() {
  const { run } = useWork();
  const revisions = useRevisions(run.id, useNewest(run.id).data?.version ?? run.version);
  const [version, setVersion] = useState<number | null>(null);
  return (
    <ol className="flex flex-col">
      {revisions.data?.map((line, at) => (
        <li key={line.version} className="border-b border-line/60">
          <button
            type="button"
            aria-expanded={version === line.version}
            onClick={() => setVersion(version === line.version ? null : line.version)}
            className={`flex min-h-12 w-full items-center gap-3 px-3 text-left hover:bg-tint ${version === line.version ? "bg-tint/60" : ""}`}
          >
            <span>
              <strong>{line.saved_by}</strong>{" "}
              {at === 0 && <span className="text-soft">{t("history.newest")}</span>}
              <br />
              <span className="tape text-[15px] text-soft">{when(line)}</span>
            </span>
            <span className="tape ml-auto text-soft">{t("history.save", { version: line.version })}</span>
          </button>
          {version === line.version && <Version version={line.version} />}
        </li>
      ))}
    </ol>
  );
}

function Version({ version }: { version: number }) {
  const { run, draft, edit, mayWrite } = useWork();
  const revision = useRevision(run.id, version).data;
  if (!revision) return null;
  return (
    <div className="flex flex-col items-start gap-2 px-3 pb-3">
      <Compared
        mine={draft.document}
        theirs={revision.document}
        names={[t("compare.now"), t("history.save_title", { version })]}
      />
      {mayWrite && !same(draft.document, revision.document) && (
        <Button look="main" onClick={() => edit(revision.document, "")}>
          {t("history.restore")}
        </Button>
      )}
    </div>
  );
}

const when = (line: RevisionLine): string => timeOf(line.saved_at);
