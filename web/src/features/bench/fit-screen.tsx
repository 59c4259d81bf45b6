import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { GoodIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { useBenchContext } from "./bench-context";
import { CorrectionTold } from "./correction";
import { Screens } from "./screens";
import { judgedOf } from "./stick-steps";

/** The last screen of a stick: dry-fit, trim, fit; or begin another. */
export function FitScreen() {
  const { bench, stick, act, mayWrite, waiting, go } = useBenchContext();
  const { sheet } = stick;
  const open = sheet.bends.filter((bend) => !judgedOf(bend, waiting.get(bend.number)));
  const begun = stick.begun || stick.cut_at || waiting.size > 0;
  return (
    <section aria-label="Fit" className="flex flex-1 flex-col gap-4">
      <h2 className="text-2xl font-bold">Fit stick {sheet.piece}</h2>
      {open.length > 0 && (
        <Notice severity="note">
          Not entered as bent: {open.map((bend) => `bend ${bend.number}`).join(", ")}.
        </Notice>
      )}
      <CorrectionTold />
      <ul className="list-disc pl-6 text-lg leading-relaxed">
        <li>Dry-fit it: straight edge on both ends, eye down the pipe for a dog-leg.</li>
        {sheet.spare && (
          <li>Mark end B and cut it to length, {sheet.length.reads} along the pipe by plan; ream it.</li>
        )}
        <li>
          Connectors tight, set-screws all to the same side; strap it within the first support distance of
          each box.
        </li>
        <li>Wipe the pencil off. De-energise, lock out and test before any enclosure is opened.</li>
      </ul>
      {stick.fitted_at && (
        <p className="flex items-center gap-2 text-xl font-semibold text-good">
          <GoodIcon width={26} height={26} /> Fitted{stick.fitted_by && ` by ${stick.fitted_by}`}
        </p>
      )}
      {mayWrite && begun && !stick.fitted_at && (
        <Confirm
          trigger={<Button className="min-h-12 self-start">Scrap it and begin another</Button>}
          title={`Scrap stick ${sheet.piece}?`}
          says="Its bends stay in the log. The new one is laid out from the run as it is now."
          act="Scrap it"
          onAct={async () => {
            if (await act({ kind: "scrapped", piece: sheet.piece })) go("cut");
          }}
        />
      )}
      <p className="text-[15px] text-soft">
        {bench.material} {bench.trade_size}. Limits here are common defaults: your local code, the inspector
        and a licensed electrician decide.
      </p>
      <Screens>
        {mayWrite ? (
          <Button
            look={stick.fitted_at ? "plain" : "main"}
            className="min-h-14 flex-1 text-lg lg:max-w-56"
            onClick={() => act({ kind: stick.fitted_at ? "unfitted" : "fitted", piece: sheet.piece })}
          >
            {stick.fitted_at ? "Not fitted after all" : "It is fitted"}
          </Button>
        ) : undefined}
      </Screens>
    </section>
  );
}
