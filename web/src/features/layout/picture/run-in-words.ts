import type { Plan } from "@/api/types";
import { things } from "@/trade/counts";
import { t } from "@/words/layout";

/** What a picture of a run shows, for those who hear it: from where to where, each bend on the way, each piece. */
export function runInWords({ picture, bends, pieces, developed_length }: Plan): string {
  const named = (name: string | undefined) => name || t("picture.box_unnamed");
  const way = bends.map((bend) =>
    t("words.bend", { bend: bend.number, angle_reads: bend.angle_reads, start: bend.start.reads }),
  );
  return [
    t("words.run", {
      start: named(picture?.start.name),
      end: named(picture?.end?.name),
      bends: things(bends.length, "bend"),
    }),
    ...(way.length ? [t("words.along", { way: way.join(", ") })] : []),
    ...(developed_length
      ? [
          t("words.length", {
            developed_length: developed_length.reads,
            pieces: things(pieces.length, "piece"),
          }),
        ]
      : []),
  ].join("; ");
}
