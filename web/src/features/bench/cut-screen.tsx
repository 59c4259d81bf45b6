import { useState } from "react";
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
  const bench = useBenchContext();
  const { stick, act, arrange, mayWrite, burnt, setBurnt, markOf, go } = bench;
  const { sheet } = stick;
  const { planned, scraps } = useSources(bench.bench, stick);
  const [source, setSource] = useState(ANY);
  const [ref, size] = useSize<HTMLDivElement>();
  const marks = [...sheet.bends].sort((a, b) => markOf(a).at.inches - markOf(b).at.inches);
  const hasCard = sheet.bends.some((bend) => bend.card);
  return (
    <section aria-label={t("cut.title")} className="flex flex-1 flex-col gap-4">
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
        {planned && <PlannedSource bench={bench.bench} planned={planned} />}
        {!stick.cut_at && mayWrite && scraps.length > 0 && (
          <ChosenSource scraps={scraps} chosen={source} onChoose={setSource} />
        )}
        <Spares />
        <div className="mt-2 flex flex-wrap items-center gap-3">
          <ShoeLine />
          <OwnShoe />
        </div>
      </div>
      {sheet.bends.length > 0 && (
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
                value={stick.arranged.marks ?? "exact"}
                choices={MARKS}
                onChoose={(chosen) => arrange({ marks: chosen })}
              />
            )}
          </div>
          {(stick.arranged.marks ?? "exact") === "card" && (
            <Notice severity="caution">{t("marks.card_says")}</Notice>
          )}
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
                    <td className="text-base max-sm:hidden">
                      {bend.card && (
                        <>
                          {bend.card.at.reads}{" "}
                          <span className="text-soft">{referenceName(bend.card.reference)}</span>
                          {t("marks.exact_too", { exact: bend.card.exact.reads })}
                          {!bend.card.agrees && (
                            <strong>{t("marks.card_off", { differs: bend.card.off.reads })}</strong>
                          )}
                        </>
                      )}
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <Screens>
        {mayWrite ? (
          <Button
            look="main"
            className="min-h-14 flex-1 text-lg lg:max-w-72"
            data-tour="cut"
            onClick={async () => {
              const named = scraps.some((scrap) => scrap.tag === source) ? source : null;
              if (!stick.cut_at && !(await act({ kind: "cut", piece: sheet.piece, source: named }))) return;
              go(sheet.bends[0]?.number ?? "fit");
            }}
          >
            {stick.cut_at ? t("cut.to_bends") : sheet.bends.length ? t("cut.done") : t("cut.only")}
          </Button>
        ) : undefined}
      </Screens>
      {stick.cut_at && mayWrite && stick.made.length === 0 && (
        <Button
          look="quiet"
          className="min-h-12 self-start"
          onClick={() => act({ kind: "uncut", piece: sheet.piece })}
        >
          {t("cut.undo")}
        </Button>
      )}
    </section>
  );
}
