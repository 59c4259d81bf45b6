import { useRackWays } from "@/api/draft-queries";
import type { RackOption, RackWay, Step } from "@/api/types";
import { useWork } from "@/features/layout/run-context";
import { rackWays } from "@/trade/words";
import { Button } from "@/ui/button";
import { StopIcon } from "@/ui/icons";
import { t } from "@/words/layout";

/** How the pipes beside the run could take the chosen step, and what each way costs the whole rack. */
export function RackWays({ step, index }: { step: Step; index: number }) {
  const { draft, edit, mayWrite } = useWork();
  const { document } = draft;
  const options = useRackWays(document, index).data ?? [];
  if (!document.rack || options.length < 2) return null;
  const take = (option: RackOption) => {
    const rack: RackWay = { how: option.how, ...(option.after ? { after: option.after } : {}) };
    edit({ ...document, steps: document.steps.with(index, { ...step, rack } as Step) }, "");
  };
  return (
    <section aria-label={t("rack.ways")} className="border-b border-line/60 pb-1">
      <h4 className="px-3 pt-2 font-bold">{t("rack.ways.title")}</h4>
      <ul>
        {options.map((option) => (
          <li
            key={`${option.how} ${option.after}`}
            aria-current={option.now ? "true" : undefined}
            className={`flex items-center gap-2 border-t border-line/60 px-3 py-1.5 ${option.now ? "border-l-4 border-l-accent bg-tint/50 pl-2" : ""}`}
          >
            <div className="min-w-0 flex-1">
              <p className="font-semibold">{nameOf(step, option)}</p>
              <Costs option={option} />
            </div>
            {option.now && <span className="text-[15px] font-semibold">{t("ways.now")}</span>}
            {!option.now && option.makeable && mayWrite && (
              <Button
                aria-label={t("ways.use_named", { way: nameOf(step, option) })}
                onClick={() => take(option)}
              >
                {t("ways.use")}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function nameOf(step: Step, option: RackOption): string {
  const name = rackWays(step.kind).find((one) => one.value === option.how)?.label ?? option.how;
  return option.after ? t("rack.ways.then", { name, after: option.after }) : name;
}

function Costs({ option }: { option: RackOption }) {
  if (!option.makeable)
    return (
      <p className="mt-0.5 flex gap-1 text-[15px] leading-snug text-soft">
        <StopIcon width={17} height={17} className="mt-0.5 shrink-0 text-stop" />
        <span className="tape">{option.why_not}</span>
      </p>
    );
  return (
    <p className="tape flex flex-wrap gap-x-3 text-[15px] text-soft">
      {option.least_gap && (
        <span>
          {t("rack.ways.least_gap")} <strong className="text-ink">{option.least_gap.reads}</strong>
          {option.gaps_kept ? "" : t("rack.ways.less")}
        </span>
      )}
      {option.pipe && (
        <span>
          <strong className="text-ink">{option.pipe.reads}</strong> {t("rack.ways.pipe")}
        </span>
      )}
    </p>
  );
}
