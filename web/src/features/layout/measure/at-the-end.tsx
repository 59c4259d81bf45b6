import { Link } from "react-router";
import { ShareRun } from "@/features/layout/note/share-note";
import { isToMeasure, placed, usePlanned, useWork } from "@/features/layout/run-context";
import { EndSentence } from "@/features/layout/steps/end-rows";
import { Findings } from "@/features/layout/steps/findings";
import { Button, buttonLook } from "@/ui/button";
import { EndMark } from "@/ui/icons";
import { t } from "@/words/layout";
import { Figure } from "./figure";
import { firstOpen, type Question } from "./questions";

/** Where the run ends. */
export function EndQuestion({ goOn }: { goOn: () => void }) {
  const { draft, edit } = useWork();
  const { plan } = usePlanned();
  const { document } = draft;
  const findings = placed(plan?.findings, "end");
  return (
    <Figure
      drawn={<EndMark end="B" size={40} />}
      asks={t("guided.end")}
      does={t("guided.end.tape")}
      goOn={goOn}
    >
      <p className="text-[17px] leading-10">
        <EndSentence
          end={document.end}
          place="end"
          called={t("end")}
          findings={findings}
          onChange={(end, field) => edit({ ...document, end }, field && `end.${field}`)}
        />
        .
      </p>
      <Findings findings={findings.filter((one) => !isToMeasure(one))} id="findings-end" />
    </Figure>
  );
}

interface WholeProps {
  ask: (next: Question) => void;
  /** Back to a step. */
  open: (index: number) => void;
}

/** What was found of the run as it is measured, step by step; and on to the marks, or to what is still open. */
export function WholeQuestion({ ask, open }: WholeProps) {
  const { run, draft } = useWork();
  const { plan } = usePlanned();
  const next = firstOpen(draft.document);
  const isOpen = next.of !== "whole";
  const found = draft.document.steps.flatMap((_, index) => {
    const here = placed(plan?.findings, `steps.${index}`).filter((one) => !isToMeasure(one));
    return here.length ? [{ index, here }] : [];
  });
  return (
    <>
      <h2 className="text-xl font-bold">
        {isOpen ? t("guided.open_still") : plan?.makeable ? t("guided.whole") : t("guided.stopped")}
      </h2>
      {found.map(({ index, here }) => (
        <div key={index} className="border-b border-line/60 pb-2">
          <Button look="quiet" className="min-h-12! px-0! underline" onClick={() => open(index)}>
            {t("step.called", { index: index + 1 })}
          </Button>
          <Findings findings={here} id={`findings-steps.${index}`} />
        </div>
      ))}
      <Findings
        findings={placed(plan?.findings, "end").filter((one) => !isToMeasure(one))}
        id="findings-end"
      />
      {isOpen ? (
        <Button look="main" className="mt-auto min-h-14! text-xl!" onClick={() => ask(next)}>
          {t("guided.go_on")}
        </Button>
      ) : (
        <div className="mt-auto flex flex-col gap-2">
          <ShareRun document={draft.document} className="min-h-12!" />
          <Link to={`/runs/${run.id}/bench`} className={buttonLook("main", "min-h-14! text-xl!")}>
            {t("guided.marks")}
          </Link>
        </div>
      )}
    </>
  );
}
