import { useState } from "react";
import type { SheetBend } from "@/api/types";
import { referenceName } from "@/draw/references";
import { StickStrip } from "@/draw/strip";
import { Button } from "@/ui/button";
import { BendTab, EndMark } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { useSize } from "@/ui/use-size";
import { t } from "@/words/bench";
import { tapeAt, useBenchContext } from "./bench-context";
import { OwnShoe } from "./own-shoe";
import { Screens } from "./screens";
import { asPiece } from "./sheet-piece";
import { ShoeLine } from "./shoe-line";
import { ANY, ChosenSource, PlannedSource, useSources } from "./source-line";
import { Spares } from "./spares";

const MARKS = [
  { value: "exact" as const, label: t("marks.exact") },
  { value: "card" as const, label: t("marks.by_card") },
];
const HELD = [
  { value: "end", label: t("marks.on_end") },
  { value: "burnt", label: t("marks.burnt") },
];

/** The first screen of a stick: what to cut, and every mark to lay, from end A. */
export function CutScreen() {
  const { bench, stick } = useBenchContext();
  const { scraps } = useSources(bench, stick);
  const [source, setSource] = useState(ANY);
  return (
    <section aria-label={t("cut.title")} className="flex flex-1 flex-col gap-4">
      <WhatToCut source={source} onSource={setSource} />
      {stick.sheet.bends.length > 0 && <MarksToLay />}
      <CutDone source={scraps.some((scrap) => scrap.tag === source) ? source : null} />
    </section>
  );
}

/** The length to cut, from what, what to leave on it, and the shoe that its marks are for. */
function WhatToCut({ source, onSource }: { source: string; onSource: (tag: string) => void }) {
  const { bench, stick, mayWrite } = useBenchContext();
  const { planned, scraps } = useSources(bench, stick);
  const { sheet } = stick;
  return (
    <div>
      <p className="text-lg text-soft">
        {t("cut.stick", { piece: sheet.piece, of_pieces: sheet.of_pieces })}
      </p>
      <p className="tape text-[clamp(4rem,9vw,7rem)] leading-none font-extrabold" data-testid="cut">
        {sheet.cut.reads}
      </p>
      {sheet.cutting.map((line) => (
        <p key={line} className="tape mt-1 text-lg">
          {line}
        </p>
      ))}
      {planned && <PlannedSource bench={bench} planned={planned} />}
      {!stick.cut_at && mayWrite && scraps.length > 0 && (
        <ChosenSource scraps={scraps} chosen={source} onChoose={onSource} />
      )}
      <Spares />
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <ShoeLine />
        <OwnShoe />
      </div>
    </div>
  );
}

/** All marks of the stick: drawn to scale, and as a table in the order in which the tape meets them. */
function MarksToLay() {
  const { stick, markOf, go } = useBenchContext();
  const { sheet } = stick;
  const [ref, size] = useSize<HTMLDivElement>();
  const marks = [...sheet.bends].sort((a, b) => markOf(a).at.inches - markOf(b).at.inches);
  return (
    <div>
      <h2 className="text-xl font-bold">{t("marks.lay", { count: marks.length })}</h2>
      <p className="mb-2 text-[15px] text-soft">{t("marks.pencil")}</p>
      <div ref={ref}>
        {size.width > 0 && (
          <StickStrip
            piece={asPiece(sheet)}
            width={size.width}
            longest={sheet.cut.inches}
            chosenBends={[]}
            onChoose={go}
            markFor={(shown) => {
              const bend = sheet.bends.find((one) => one.number === shown.number);
              return bend ? markOf(bend) : shown.use;
            }}
          />
        )}
      </div>
      <HowMarked />
      <MarksTable marks={marks} />
    </div>
  );
}

/** How the tape is held, and whose marks they are: the exact ones or the card's. */
function HowMarked() {
  const { stick, arrange, mayWrite, burnt, setBurnt } = useBenchContext();
  const hasCard = stick.sheet.bends.some((bend) => bend.card);
  const which = stick.arranged.marks ?? "exact";
  return (
    <>
      <div className="my-2 flex flex-wrap gap-3">
        <Segments
          large
          label={t("marks.tape_held")}
          value={burnt ? "burnt" : "end"}
          choices={HELD}
          onChoose={(held) => setBurnt(held === "burnt")}
        />
        {hasCard && mayWrite && (
          <Segments
            large
            label={t("marks.which")}
            value={which}
            choices={MARKS}
            onChoose={(chosen) => arrange({ marks: chosen })}
          />
        )}
      </div>
      {which === "card" && <Notice severity="caution">{t("marks.card_says")}</Notice>}
    </>
  );
}

function MarksTable({ marks }: { marks: SheetBend[] }) {
  const bench = useBenchContext();
  const { burnt, markOf } = bench;
  const hasCard = marks.some((bend) => bend.card);
  return (
    <table className="tape w-full max-w-3xl border-collapse text-left text-lg">
      <thead className="text-[15px] text-soft">
        <tr>
          <th className="py-1 font-medium">{t("marks.bend")}</th>
          <th className="font-medium">{burnt ? t("marks.tape_burnt") : t("marks.from_a")}</th>
          <th className="font-medium">{t("marks.on_the")}</th>
          <th className="font-medium">{t("mark.hook")}</th>
          {hasCard && <th className="font-medium max-sm:hidden">{t("marks.card_and_exact")}</th>}
        </tr>
      </thead>
      <tbody>
        {marks.map((bend) => (
          <tr key={bend.number} className="border-t border-line">
            <td className="py-1.5">
              <BendTab number={bend.number} />
            </td>
            <td>
              <strong className="text-3xl">{tapeAt(bench, bend)}</strong>
            </td>
            <td>{referenceName(markOf(bend).reference)}</td>
            <td>
              <EndMark end={markOf(bend).hook} size={24} />
            </td>
            {hasCard && (
              <td className="text-base max-sm:hidden">{bend.card && <ByCard card={bend.card} />}</td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The card's mark beside the exact one on the same reference, and how far off it is. */
function ByCard({ card }: { card: NonNullable<SheetBend["card"]> }) {
  return (
    <>
      {card.at.reads} <span className="text-soft">{referenceName(card.reference)}</span>
      {t("marks.exact_too", { exact: card.exact.reads })}
      {!card.agrees && <strong>{t("marks.card_off", { differs: card.off.reads })}</strong>}
    </>
  );
}

/** On to the bends, once it is cut; or not cut yet after all. */
function CutDone({ source }: { source: string | null }) {
  const { stick, act, mayWrite, go } = useBenchContext();
  const { sheet, cut_at } = stick;
  const done = async () => {
    if (!cut_at && !(await act({ kind: "cut", piece: sheet.piece, source }))) return;
    go(sheet.bends[0]?.number ?? "fit");
  };
  return (
    <>
      <Screens>
        {mayWrite ? (
          <Button look="main" className="min-h-14 flex-1 text-lg lg:max-w-72" data-tour="cut" onClick={done}>
            {cut_at ? t("cut.to_bends") : sheet.bends.length ? t("cut.done") : t("cut.only")}
          </Button>
        ) : undefined}
      </Screens>
      {cut_at && mayWrite && stick.made.length === 0 && (
        <Button
          look="quiet"
          className="min-h-12 self-start"
          onClick={() => act({ kind: "uncut", piece: sheet.piece })}
        >
          {t("cut.undo")}
        </Button>
      )}
    </>
  );
}
