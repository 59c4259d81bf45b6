import { Link, useParams } from "react-router";
import { useFloor, useRun, useShoes } from "@/api/queries";
import type { Floor, FloorStick } from "@/api/types";
import { runTabs } from "@/shell/pages";
import { Shell } from "@/shell/shell";
import { shoeCaution } from "@/trade/fitting-shoe";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { useSize } from "@/ui/use-size";
import { t } from "@/words/racks";
import { FloorDrawing } from "./floor-drawing";
import { Stages } from "./floor-stages";

const LEAST_WIDE = 640;

/** A rack's sticks side by side on the floor: the squared line, every mark, and what is bent on all of them in turn. */
export function FloorPage() {
  const runId = Number(useParams().runId);
  const floor = useFloor(runId);
  const run = useRun(runId).data;
  return (
    <Shell
      title={t("page.title", { data: floor.data?.name ?? t("page.racks") })}
      trail={
        run && (
          <>
            <span className="max-sm:hidden">{run.job_name} / </span>
            <strong className="text-ink">{floor.data?.name || run.document.name}</strong>
          </>
        )
      }
      tabs={run ? runTabs(run.id, run.job_id) : []}
    >
      <main className="mx-auto w-full max-w-6xl px-4 py-5 print:p-0">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <h1 className="text-2xl font-bold">
            {t("page.heading")}
            {floor.data && `: ${floor.data.name}`}
          </h1>
          <span className="ml-auto flex gap-2 print:hidden">
            {floor.data && (
              <Link
                to={`/runs/${floor.data.lead_id}/layout`}
                className="inline-flex min-h-9 items-center rounded-md border border-line bg-paper px-3.5 font-medium hover:border-ink"
              >
                {t("page.to_layout")}
              </Link>
            )}
            <Button onClick={() => window.print()}>{t("page.print")}</Button>
          </span>
        </div>
        {floor.error && <Notice severity="stop">{floor.error.message}</Notice>}
        {floor.data && !floor.data.sticks.length && <p className="mt-4">{t("page.none")}</p>}
        {floor.data && <Shoes floor={floor.data} />}
        {floor.data?.sticks.map((stick) => (
          <Stick key={stick.number} stick={stick} floor={floor.data} />
        ))}
      </main>
    </Shell>
  );
}

/** What is to be said of the shoes that the marks are for, each once. */
function Shoes({ floor }: { floor: Floor }) {
  const shoes = useShoes().data;
  if (!shoes) return null;
  const told = new Map<string, number[]>();
  for (const run of floor.runs) {
    const says = shoeCaution(shoes, run.document);
    if (says) told.set(says, [...(told.get(says) ?? []), run.number]);
  }
  return [...told].map(([says, pipes]) => (
    <Notice key={says} severity="caution">
      {t("lay.on_shoe", { pipes: pipes.join(", "), says })}
    </Notice>
  ));
}

function Stick({ stick, floor }: { stick: FloorStick; floor: Floor }) {
  const [ref, size] = useSize<HTMLDivElement>();
  return (
    <section
      aria-label={t("page.stick", { stick: stick.number })}
      className="mt-5 rounded-lg border border-line bg-paper break-inside-avoid"
    >
      <h2 className="border-b border-line px-4 py-2 text-xl font-bold">
        {floor.sticks.length > 1 ? t("page.stick_of_each", { stick: stick.number }) : t("page.pipes")}
      </h2>
      {stick.line && (
        <p className="px-4 pt-2">
          {t("lay.how", {
            step: stick.line.step + 1,
            detail: stick.line.flush ? t("lay.flush") : t("lay.not_flush"),
          })}
        </p>
      )}
      <div ref={ref} className="overflow-x-auto px-2 py-2">
        {size.width > 0 && <FloorDrawing stick={stick} width={Math.max(size.width - 4, LEAST_WIDE)} />}
      </div>
      <Stages stick={stick} runs={floor.runs} />
    </section>
  );
}
