import { useLetIn, useShareRunning } from "@/api/company";
import type { Company } from "@/api/types";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { Notice } from "@/ui/notice";
import { t } from "@/words/company";

interface Props {
  company: Company;
  me: number | undefined;
}

type Person = Company["people"][number];

/** Everybody in the company, for who runs it. */
export function CompanyPeople({ company, me }: Props) {
  const running = useShareRunning();
  const letIn = useLetIn();
  const runs = new Set(company.runners.map((one) => one.id));
  const leads = new Set(company.crews.flatMap((crew) => crew.leads.map((one) => one.id)));
  const error = running.error ?? letIn.error;
  return (
    <section aria-labelledby="people" className="mt-8">
      <h2 id="people" className="text-xl font-bold">
        {t("people.title")}
      </h2>
      {error && <Notice severity="stop">{error.message}</Notice>}
      <ul className="mt-2 rounded-lg border border-line bg-paper">
        {company.people.map((one) => (
          <li
            key={one.id}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line/60 px-4 py-2 last:border-b-0"
          >
            <span className="min-w-48 grow">
              <span className={`text-lg font-semibold ${one.active ? "" : "text-soft line-through"}`}>
                {one.name}
              </span>
              <span className="block text-[15px] text-soft">
                {one.crews.join(", ")}
                {runs.has(one.id) && t("people.runs_it")}
                {!one.active && t("people.shut_out")}
              </span>
            </span>
            {(leads.has(one.id) || runs.has(one.id)) && (
              <Button
                className="min-h-11"
                disabled={running.isPending}
                onClick={() => running.mutate({ id: one.id, wanted: !runs.has(one.id) })}
              >
                {runs.has(one.id) ? t("people.runs_no_longer") : t("people.let_run")}
              </Button>
            )}
            {one.id !== me && !one.elsewhere && (
              <ShutOut
                one={one}
                busy={letIn.isPending}
                onAct={(wanted) => letIn.mutate({ id: one.id, wanted })}
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

interface ShutOutProps {
  one: Person;
  busy: boolean;
  onAct: (wanted: boolean) => void;
}

function ShutOut({ one, busy, onAct }: ShutOutProps) {
  if (!one.active)
    return (
      <Button className="min-h-11" disabled={busy} onClick={() => onAct(true)}>
        {t("people.let_back")}
      </Button>
    );
  return (
    <Confirm
      trigger={
        <Button className="min-h-11" aria-label={t("people.shut_out.label", { name: one.name })}>
          {t("people.shut_out.do")}
        </Button>
      }
      title={t("people.shut_out.label", { name: one.name })}
      says={t("people.shut_out.says")}
      act={t("people.shut_out.do")}
      onAct={() => onAct(false)}
    />
  );
}
