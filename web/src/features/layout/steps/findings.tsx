import type { Finding, Fix } from "@/api/types";
import { isToMeasure, useWork } from "@/features/layout/run-context";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/layout";
import { applyEdits } from "./apply-edits";

/** What was found at a place: why, what would do, and each remedy to take with one touch. */
export function Findings({ findings, id }: { findings: Finding[]; id?: string }) {
  const { draft, edit, mayWrite } = useWork();
  const take = (fix: Fix) => edit(applyEdits(draft.document, fix.edits), "");
  return <FoundHere findings={findings} {...(id ? { id } : {})} onTake={mayWrite ? take : undefined} />;
}

interface FoundProps {
  findings: Finding[];
  id?: string;
  onTake: ((fix: Fix) => void) | undefined;
}

export function FoundHere({ findings, id, onTake }: FoundProps) {
  if (!findings.length) return null;
  return (
    <div id={id} className="mt-1 flex flex-col gap-1.5">
      {findings.map((finding) => (
        <Notice
          key={finding.code + finding.place + finding.says}
          severity={isToMeasure(finding) ? "note" : finding.severity}
        >
          {finding.says} {finding.remedy && <em className="font-semibold not-italic">{finding.remedy}</em>}
          {onTake && <Fixes fixes={finding.fixes ?? []} onTake={onTake} />}
        </Notice>
      ))}
    </div>
  );
}

function Fixes({ fixes, onTake }: { fixes: readonly Fix[]; onTake: (fix: Fix) => void }) {
  if (!fixes.length) return null;
  const part = fixes.filter((fix) => fix.whole === false);
  return (
    <span className="mt-1.5 flex flex-wrap items-center gap-1.5">
      <FixButtons fixes={fixes.filter((fix) => fix.whole !== false)} onTake={onTake} />
      {part.length > 0 && <span className="text-[15px] text-soft">{t("fix.alone")}</span>}
      <FixButtons fixes={part} onTake={onTake} />
    </span>
  );
}

function FixButtons({ fixes, onTake }: { fixes: readonly Fix[]; onTake: (fix: Fix) => void }) {
  return fixes.map((fix) => (
    <Button
      key={fix.says}
      className="tape border-accent! text-[15px] text-accent!"
      onClick={() => onTake(fix)}
    >
      {fix.says}
    </Button>
  ));
}
