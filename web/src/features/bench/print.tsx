import { tapeAt, useBenchContext } from "./bench-context";
import { Card } from "./card";

/** The bench cards of a run on paper: a sheet a stick. */
export function BenchPrint() {
  const context = useBenchContext();
  const { bench } = context;
  return (
    <div className="hidden text-black print:block" data-theme="light">
      {bench.sticks.map((stick) => (
        <Card key={stick.sheet.piece} bench={bench} stick={stick} tapeOf={(bend) => tapeAt(context, bend)} />
      ))}
    </div>
  );
}
