import type { Plan } from "@/api/types";
import { things } from "@/trade/counts";

/** What a picture of a run shows, for those who hear it: from where to where, each bend on the way, each piece. */
export function runInWords({ picture, bends, pieces, developed_length }: Plan): string {
  const ends = [picture?.start.name, picture?.end?.name].map((name) => name || "a box without a name");
  const way = bends.map((bend) => `bend ${bend.number} of ${bend.angle_reads} from ${bend.start.reads}`);
  return [
    `The run goes from ${ends[0]} to ${ends[1]}, ${things(bends.length, "bend")} on the way`,
    ...(way.length ? [`along the pipe: ${way.join(", ")}`] : []),
    ...(developed_length ? [`${developed_length.reads} of pipe in ${things(pieces.length, "piece")}`] : []),
  ].join("; ");
}
