import { type CSSProperties, useMemo } from "react";
import { Link } from "react-router";
import { useWrittenNote } from "@/api/draft-queries";
import { useBenches, useNewest } from "@/api/queries";
import type { Picture, Plan, RackPlan, StickAtBench } from "@/api/types";
import { referenceName } from "@/draw/references";
import { StickStrip } from "@/draw/strip";
import { ScenePrint } from "@/scene/scene-print";
import { Button } from "@/ui/button";
import { EndMark, PrintIcon } from "@/ui/icons";
import { timeOf } from "@/ui/moments";
import { t } from "@/words/layout";
import { FlatPicture } from "./picture/picture-flat";
import { runScene } from "./picture/run-scene";
import { usePlanned, useWork } from "./run-context";

/** The run in space, with its rack, as on the screen. */
function InSpace({ plan, picture, rack }: { plan: Plan; picture: Picture; rack: RackPlan | undefined }) {
  const scene = useMemo(
    () => runScene({ plan, picture, rack, chosen: null, judged: null, withFigures: false, choose: nothing }),
    [plan, picture, rack],
  );
  return <ScenePrint scene={scene} size={PAPER} label={t("sheet.in_space")} />;
}

const PAPER = { width: 700, height: 300 };
const HEADINGS = [
  t("sheet.order"),
  t("card.bend"),
  t("card.mark"),
  t("sheet.reference"),
  t("sheet.hook"),
  t("sheet.bend_to"),
  t("sheet.dial"),
];
/** What is written over the picture stands on the paper's white. */
const PAPER_WHITE = { "--sheet": "#fff" } as CSSProperties;
const nothing = () => undefined;

/** A run on one sheet of paper: picture, sentences, what to cut, every mark and the order of bending. */
export function RunSheet() {
  const { draft, run } = useWork();
  const { plan, rack } = usePlanned();
  const note = useWrittenNote(draft.document).data?.text ?? "";
  const [bench] = useBenches([run.id]);
  const saved = useNewest(run.id).data ?? run;
  const [name = "", ...lines] = note.trim().split("\n");
  return (
    <main className="mx-auto w-full max-w-[56rem] px-4 py-5 print:max-w-none print:p-0">
      <div className="mb-3 flex items-center gap-3 print:hidden">
        <Link to="../layout" className="underline">
          {t("sheet.back")}
        </Link>
        <Link to={`/runs/${run.id}/files`} className="ml-auto underline">
          {t("sheet.files")}
        </Link>
        <Button look="main" className="min-h-11" onClick={() => window.print()}>
          <PrintIcon /> {t("sheet.print")}
        </Button>
      </div>
      <div
        data-theme="light"
        style={PAPER_WHITE}
        className="overflow-x-auto rounded-md border border-line bg-white p-4 text-black print:overflow-visible print:border-0 print:p-0"
      >
        <h1 className="text-2xl font-bold">{draft.document.name || name}</h1>
        <p className="text-sm">
          {t("sheet.of", { job: run.job_name, version: saved.version, saved_by: saved.saved_by })},{" "}
          {timeOf(saved.saved_at)}
        </p>
        {plan?.picture && (
          <FlatPicture
            plan={plan}
            rack={undefined}
            picture={plan.picture}
            view="front"
            size={PAPER}
            chosen={null}
            onChoose={nothing}
            judged={null}
          />
        )}
        {plan?.picture && <InSpace plan={plan} picture={plan.picture} rack={rack} />}
        <ol className="tape mt-1 columns-2 gap-6 text-[15px]">
          {lines.map((line, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a line has nothing else to be known by
            <li key={at} className="break-inside-avoid">
              {line}
            </li>
          ))}
        </ol>
        {bench?.data?.sticks.map((stick) => (
          <Stick key={stick.sheet.piece} stick={stick} />
        ))}
        <p className="mt-3 text-[13px]">{t("sheet.cautions")}</p>
      </div>
    </main>
  );
}

function Stick({ stick: { sheet, used, shoe } }: { stick: StickAtBench }) {
  return (
    <section className="mt-3 break-inside-avoid border-t border-black pt-2">
      <h2 className="tape flex flex-wrap items-center gap-x-2 text-lg font-bold">
        {t("sticks.piece", { piece: sheet.piece })}
        <EndMark end="A" size={18} /> <span className="font-normal">{sheet.end_a}</span> {t("sticks.cut")}{" "}
        {sheet.cut.reads}
        <EndMark end="B" size={18} /> <span className="font-normal">{sheet.end_b}</span>
      </h2>
      <p className="tape text-sm">
        {t("sheet.shoe", { shoe: shoe.name, deduct: used.deduct.reads, gain: used.gain.reads })}
      </p>
      <StickStrip
        piece={{ number: sheet.piece, length: sheet.cut, bends: sheet.bends }}
        width={PAPER.width}
        longest={sheet.cut.inches}
        chosenBends={[]}
        onChoose={nothing}
      />
      <table className="tape w-full border-collapse text-left text-[14px]">
        <thead>
          <tr>
            {HEADINGS.map((heading) => (
              <th key={heading} className="border border-black px-1.5 py-0.5">
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sheet.bends.map((bend) => (
            <tr key={bend.number}>
              {[
                bend.act,
                bend.number,
                bend.use.at.reads,
                referenceName(bend.use.reference),
                bend.use.hook,
                bend.angle_reads,
                bend.dial_reads,
              ].map((cell, at) => (
                <td key={HEADINGS[at]} className="border border-black px-1.5 py-0.5">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
