import { QRCodeSVG } from "qrcode.react";
import type { Bench, SheetBend, StickAtBench } from "@/api/types";
import { referenceName } from "@/draw/references";
import { StickStrip } from "@/draw/strip";
import { EndMark } from "@/ui/icons";
import { t } from "@/words/bench";
import { asPiece } from "./sheet-piece";
import { ordinal } from "./stick-rail";

const PAPER_WIDTH = 680;
const HEADINGS = [
  t("card.order"),
  t("marks.bend"),
  t("marks.from_a"),
  t("marks.on_the"),
  t("mark.hook"),
  t("card.dial"),
  t("card.turn"),
  t("must_read.title"),
];

const wayOf = (where: SheetBend["where"]) =>
  ({ floor: t("card.floor"), edge: t("card.edge"), air: t("card.air"), machine: t("card.machine") })[where];

interface Props {
  bench: Bench;
  stick: StickAtBench;
  /** What the tape reads for a bend's mark, as it is held. */
  tapeOf: (bend: SheetBend) => string;
}

/** A stick's card on paper, with a code that opens it, and that knows later whether the card is still right. */
export function Card({ bench, stick, tapeOf }: Props) {
  const { sheet } = stick;
  const address = `${window.location.origin}/runs/${bench.run_id}/bench/${sheet.piece}?card=${stick.card}`;
  return (
    <section aria-label={t("card.label", { piece: sheet.piece })} className="p-2 break-after-page">
      <div className="flex items-start gap-4">
        <div className="flex-1">
          <h1 className="text-2xl font-bold">
            {t("card.stick", {
              bench: bench.name || t("card.run"),
              piece: sheet.piece,
              of_pieces: sheet.of_pieces,
            })}
          </h1>
          <p className="tape text-sm">
            {t("card.shoe", {
              job_name: bench.job_name,
              trade_size: bench.trade_size,
              material: bench.material,
              shoe: stick.shoe.name,
              deduct: stick.used.deduct.reads,
              gain: stick.used.gain.reads,
            })}
          </p>
          <p className="mt-1">
            <EndMark end="A" size={16} /> {sheet.end_a} <EndMark end="B" size={16} /> {sheet.end_b}
          </p>
          <p className="tape mt-1 text-xl font-bold">{t("card.cut", { cut: sheet.cut.reads })}</p>
          {sheet.cutting.map((line) => (
            <p key={line} className="tape text-sm">
              {line}
            </p>
          ))}
          {[stick.stale, ...stick.shoe.cautions].filter(Boolean).map((caution) => (
            <p key={caution} className="text-sm font-semibold">
              {t("card.caution", { caution })}
            </p>
          ))}
        </div>
        <div className="text-center">
          <QRCodeSVG value={address} size={104} title={t("card.opens", { piece: sheet.piece, address })} />
          <p className="tape mt-1 text-[13px]">
            {t("card.of_save", { card: stick.card, version: bench.version })}
          </p>
        </div>
      </div>
      {sheet.bends.length > 0 && (
        <>
          <StickStrip
            piece={asPiece(sheet)}
            width={PAPER_WIDTH}
            longest={sheet.cut.inches}
            chosenBends={[]}
            onChoose={() => undefined}
          />
          <table className="tape w-full border-collapse text-left text-[13px]">
            <thead>
              <tr>
                {HEADINGS.map((heading) => (
                  <th key={heading} className="border border-black px-1.5 py-1">
                    {heading}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {sheet.bends.map((bend) => {
                const cells = [
                  ordinal(bend.act),
                  bend.number,
                  tapeOf(bend),
                  referenceName(bend.use.reference),
                  bend.use.hook,
                  `${bend.angle_reads} (${bend.dial_reads})`,
                  `${bend.end_for_end ? t("card.flip") : ""}${bend.turn_says} ${wayOf(bend.where)}`,
                  bend.checks.map((check) => `${check.says} ${check.reads}`).join("; "),
                ];
                return (
                  <tr key={bend.number}>
                    {cells.map((cell, at) => (
                      <td
                        key={HEADINGS[at]}
                        className={`border border-black px-1.5 py-1 align-top ${at === 2 ? "text-lg font-bold whitespace-nowrap" : ""}`}
                      >
                        {cell}
                      </td>
                    ))}
                  </tr>
                );
              })}
            </tbody>
          </table>
          <ul className="mt-2 list-disc pl-5 text-[13px]">
            {[
              ...new Set(
                sheet.bends.flatMap((bend) =>
                  bend.cautions.map((caution) => t("card.bend_caution", { bend: bend.number, caution })),
                ),
              ),
              ...sheet.stamps,
            ].map((line) => (
              <li key={line} className="tape">
                {line}
              </li>
            ))}
          </ul>
        </>
      )}
      <p className="mt-3 text-[13px]">{t(bench.own_limits ? "card.own_limits" : "card.cautions")}</p>
    </section>
  );
}
