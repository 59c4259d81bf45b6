import { useWork } from "@/features/layout/run-context";
import { RunSettings } from "@/features/layout/settings";
import { FINISHES } from "@/features/layout/steps/end-rows";
import { KindDrawing } from "@/features/layout/steps/kind-drawing";
import { newStep } from "@/features/layout/steps/new-step";
import { KINDS, type KindName, kindWord } from "@/trade/kinds";
import type { Heading } from "@/trade/words";
import { EndMark } from "@/ui/icons";
import { Segments } from "@/ui/segments";
import { clauseWord } from "@/words/clauses";
import { t } from "@/words/layout";
import { Choices, LargeChoice } from "./choices";
import { Directions } from "./directions";
import { firstOf, type Question } from "./questions";

interface Asking {
  goOn: () => void;
  ask: (next: Question) => void;
}

/** Where the pipe sets off: at a box or open, and which way. */
export function StartQuestion({ goOn }: Asking) {
  const { draft, edit } = useWork();
  const { document } = draft;
  const { start } = document;
  const leave = (heading: Heading) => {
    edit({ ...document, start: { ...start, heading } }, "");
    goOn();
  };
  return (
    <>
      <h2 className="text-xl font-bold">{t("guided.start")}</h2>
      <Segments
        label={t("start.finish")}
        value={start.open ? "open" : "box"}
        choices={FINISHES.map(({ value, label }) => ({ value, label }))}
        onChoose={(next) => edit({ ...document, start: { ...start, open: next === "open" } }, "")}
        large
      />
      <Directions chosen={start.heading} onChoose={leave} />
      <RunSettings />
    </>
  );
}

/** What a kind is for, beside its name: as it is called where that says more, else where it is met. */
function servesFor(kind: KindName): string | undefined {
  const called = clauseWord(`kind.${kind}.called`);
  return called?.replace("°", "").startsWith(kindWord(kind)) ? clauseWord(`kind.${kind}.met`) : called;
}

/** What is met at a place of the run, by its name in the trade; or its end. */
export function MetQuestion({ index, ask }: Asking & { index: number }) {
  const { draft, edit } = useWork();
  const { document } = draft;
  const there = document.steps[index];
  const meet = (kind: KindName) => {
    // What is there already keeps its figures; another in its place begins anew.
    const step = there?.kind === kind ? there : newStep(kind, document, index);
    const next = { ...document, steps: document.steps.toSpliced(index, there ? 1 : 0, step) };
    if (step !== there) edit(next, "");
    ask(firstOf(next, index));
  };
  const end = (
    <LargeChoice
      drawn={<EndMark end="B" size={34} />}
      says={t("step.end")}
      hint={t("step.end.hint")}
      onChoose={() => ask({ of: "end" })}
    />
  );
  return (
    <>
      <h2 className="text-xl font-bold">{index === 0 ? t("guided.met_first") : t("guided.met")}</h2>
      <Choices>
        {!there && index > 0 && end}
        {KINDS.map(({ kind, profile }) => (
          <LargeChoice
            key={kind}
            drawn={<KindDrawing profile={profile} times={1.5} />}
            says={kindWord(kind)}
            hint={servesFor(kind)}
            isOn={there?.kind === kind}
            onChoose={() => meet(kind)}
          />
        ))}
        {!there && index === 0 && end}
      </Choices>
    </>
  );
}
