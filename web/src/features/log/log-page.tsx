import { useSearchParams } from "react-router";
import { type LogWanted, useLog } from "@/api/queries";
import type { LogLine } from "@/api/types";
import { Shell } from "@/shell/shell";
import { BendTab, GoodIcon, StopIcon } from "@/ui/icons";
import { timeOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { t } from "@/words/log";

const ALL = "all";
/** The way in which a bend was made, where that was not on the floor, as most are. */
const ADVICE: Record<Exclude<LogLine["advice"], "" | "go_on">, string> = {
  replan: t("line.remark"),
  rebend: t("line.back_in"),
  trim: t("line.move_cut"),
  spring: t("line.nearly"),
  scrap: t("line.scrap"),
};

/** What of a bend was out of tolerance. */
const OUT_BY: Record<Exclude<LogLine["out_by"], "">, string> = {
  angle: t("out.angle"),
  mark: t("out.tape"),
  dog_leg: t("out.dog_leg"),
  end: t("out.end"),
};

/** As it was told at the bench: what is out, and what was to be done. */
function verdictOf({ within, out_by, advice }: LogLine): string {
  if (within) return t("line.within");
  const word = out_by ? t("out.because", { why: OUT_BY[out_by] }) : t("line.out");
  return advice && advice !== "go_on" ? `${word}: ${ADVICE[advice]}` : word;
}

const wayOf = (where: LogLine["where"]) =>
  ({ floor: "", edge: t("line.edge"), air: t("line.air"), machine: t("line.machine") })[where];

/** Every bend that was made: planned, and as bent. */
export function LogPage() {
  const [search, setSearch] = useSearchParams();
  const wanted = wantedOf(search);
  const log = useLog(wanted);
  const narrow = (key: string, value: string) => {
    const next = new URLSearchParams(search);
    if (value === ALL) next.delete(key);
    else next.set(key, value);
    setSearch(next, { replace: true });
  };
  const everything = { value: ALL, label: t("filter.all") };
  const choices = {
    run: [
      everything,
      ...(log.data?.runs ?? []).map((run) => ({
        value: String(run.id),
        label: run.name || t("filter.no_name"),
      })),
    ],
    person: [
      everything,
      ...(log.data?.people ?? []).map((person) => ({ value: String(person.id), label: person.name })),
    ],
    shoe: [everything, ...(log.data?.shoes ?? []).map((name) => ({ value: name, label: name }))],
  };
  return (
    <Shell title={t("title")}>
      <main className="mx-auto w-full max-w-6xl px-4 py-6 print:max-w-none print:p-0">
        <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2">
          <h1 className="text-3xl font-bold">{t("title")}</h1>
          <p className="text-lg leading-9">
            {t("filter.bends_of")}{" "}
            <Select
              label={t("filter.run")}
              value={search.get("run") ?? ALL}
              choices={known(choices.run, search.get("run"))}
              onChoose={(value) => narrow("run", value)}
            />{" "}
            {t("filter.runs_by")}{" "}
            <Select
              label={t("filter.person")}
              value={search.get("person") ?? ALL}
              choices={known(choices.person, search.get("person"))}
              onChoose={(value) => narrow("person", value)}
            />
            {t("filter.on")}{" "}
            <Select
              label={t("filter.shoe")}
              value={search.get("shoe") ?? ALL}
              choices={known(choices.shoe, search.get("shoe"))}
              onChoose={(value) => narrow("shoe", value)}
            />{" "}
            {t("filter.shoes")}
          </p>
          <a
            href={`/api/log.csv?${new URLSearchParams(search)}`}
            className="ml-auto inline-flex min-h-10 items-center rounded-md border border-line bg-paper px-3.5 font-medium hover:border-ink"
          >
            {t("csv")}
          </a>
        </div>
        {log.error && <Notice severity="stop">{log.error.message}</Notice>}
        {log.data && log.data.total === 0 && <p className="mt-8 text-lg">{t("none")}</p>}
        {log.data && log.data.total > 0 && (
          <>
            <Summary lines={log.data.lines} total={log.data.total} />
            <Table lines={log.data.lines} />
          </>
        )}
      </main>
    </Shell>
  );
}

interface Choice {
  value: string;
  label: string;
}

/** A choice from the address that is not in the list yet is shown all the same. */
const known = (choices: Choice[], asked: string | null): Choice[] =>
  asked && !choices.some((one) => one.value === asked)
    ? [...choices, { value: asked, label: asked }]
    : choices;

function wantedOf(search: URLSearchParams): LogWanted {
  const run = Number(search.get("run"));
  const person = Number(search.get("person"));
  const shoe = search.get("shoe");
  return { ...(run ? { run } : {}), ...(person ? { person } : {}), ...(shoe ? { shoe } : {}) };
}

function Summary({ lines, total }: { lines: LogLine[]; total: number }) {
  const within = lines.filter((line) => line.within).length;
  return (
    <p className="tape mt-1 text-soft">
      {total} {total === 1 ? t("count.one") : t("count.many")}
      {total > lines.length && t("count.last_shown", { lines: lines.length })}
      {t("count.within", { within, lines: lines.length })}
    </p>
  );
}

function Table({ lines }: { lines: LogLine[] }) {
  return (
    <section
      aria-label={t("table.label")}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: on a narrow screen the table is scrolled, also by keys
      tabIndex={0}
      className="mt-4 overflow-x-auto rounded-lg border border-line bg-paper print:overflow-visible print:border-0"
    >
      <table className="tape w-full border-collapse text-left whitespace-nowrap print:text-[12px] print:whitespace-normal [&_td]:print:px-1! [&_th]:print:px-1!">
        <thead className="text-[15px] text-soft">
          <tr className="[&>th]:px-3 [&>th]:py-2 [&>th]:font-medium">
            <th>{t("table.when")}</th>
            <th>{t("table.run")}</th>
            <th>{t("table.shoe")}</th>
            <th className="text-right">{t("table.planned")}</th>
            <th className="text-right">{t("table.bent")}</th>
            <th className="text-right">{t("table.tape_planned")}</th>
            <th className="text-right">{t("table.tape")}</th>
            <th>{t("table.came_out")}</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.id} className="border-t border-line/60 [&>td]:px-3 [&>td]:py-2 align-top">
              <td>
                {timeOf(line.at)}
                <span className="block text-[15px] text-soft">{line.by}</span>
              </td>
              <td>
                <strong>{line.run || t("filter.no_name")}</strong>
                <span className="block text-[15px] text-soft">
                  {t("line.stick", { piece: line.piece })} <BendTab number={line.bend} /> {wayOf(line.where)}
                </span>
              </td>
              <td>
                {line.shoe}
                <span className="block text-[15px] text-soft">
                  {line.mark} {line.reference} {t(line.hook === "A" ? "line.hook_a" : "line.hook_b")}
                </span>
              </td>
              <td className="text-right">{line.planned_angle}</td>
              <td className="text-right">
                <strong>{line.angle}</strong>
                <span className="block text-[15px] text-soft">{line.off}</span>
              </td>
              <td className="text-right">{line.tape_wanted || "–"}</td>
              <td className="text-right">
                <strong>{line.tape || "–"}</strong>
                {line.tape_off && line.tape_off !== "0" && (
                  <span className="block text-[15px] text-soft">{line.tape_off}</span>
                )}
              </td>
              <td>
                <span
                  className={`flex items-center gap-1 text-[15px] ${line.within ? "text-good" : "text-stop"}`}
                >
                  {line.within ? <GoodIcon /> : <StopIcon />} {verdictOf(line)}
                </span>
                {line.again && <span className="block text-[15px] text-soft">{t("line.read_again")}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
