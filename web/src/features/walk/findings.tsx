import type { Fix, Problem } from "@/api/types";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { applyEdits } from "./apply-edits";
import { useRunContext } from "./run-context";

/** What was found at a place: why, what would do, and each remedy to take with one touch. */
export function Findings({ problems, id }: { problems: Problem[]; id?: string }) {
  const { draft, edit, mayWrite } = useRunContext();
  const take = (fix: Fix) => edit(applyEdits(draft.document, fix.edits), "");
  return <FoundHere problems={problems} {...(id ? { id } : {})} onTake={mayWrite ? take : undefined} />;
}

interface FoundProps {
  problems: Problem[];
  id?: string;
  onTake: ((fix: Fix) => void) | undefined;
}

export function FoundHere({ problems, id, onTake }: FoundProps) {
  if (!problems.length) return null;
  return (
    <div id={id} className="mt-1 flex flex-col gap-1.5">
      {problems.map((problem) => (
        <Notice key={problem.code + problem.place + problem.says} severity={problem.severity}>
          {problem.says} {problem.remedy && <em className="font-semibold not-italic">{problem.remedy}</em>}
          {onTake && <Fixes fixes={problem.fixes ?? []} onTake={onTake} />}
        </Notice>
      ))}
    </div>
  );
}

function Fixes({ fixes, onTake }: { fixes: readonly Fix[]; onTake: (fix: Fix) => void }) {
  if (!fixes.length) return null;
  return (
    <span className="mt-1.5 flex flex-wrap gap-1.5">
      {fixes.map((fix) => (
        <Button
          key={fix.says}
          className="tape border-accent! text-[15px] text-accent!"
          onClick={() => onTake(fix)}
        >
          {fix.says}
        </Button>
      ))}
    </span>
  );
}
