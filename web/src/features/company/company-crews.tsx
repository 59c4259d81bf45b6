import { type FormEvent, useState } from "react";
import { useAddCrew, useLeaveCompany, useMakeCompanyLink } from "@/api/company";
import type { Company } from "@/api/types";
import { things } from "@/trade/counts";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { Field } from "@/ui/field";
import { GivenLink } from "@/ui/given-link";
import { Notice } from "@/ui/notice";
import { t } from "@/words/company";

interface Props {
  company: Company;
  /** The crew that one leads oneself. */
  own: number | null;
}

/** The company's crews, and how one more comes in. */
export function CompanyCrews({ company, own }: Props) {
  const leave = useLeaveCompany();
  return (
    <section aria-labelledby="crews" className="mt-6">
      <h2 id="crews" className="text-xl font-bold">
        {t("crews.title")}
      </h2>
      {leave.error && <Notice severity="stop">{leave.error.message}</Notice>}
      <ul className="mt-2 rounded-lg border border-line bg-paper">
        {company.crews.map((crew) => (
          <li
            key={crew.id}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line/60 px-4 py-2 last:border-b-0"
          >
            <span className="min-w-48 grow">
              <span className="text-lg font-semibold">{crew.name}</span>
              <span className="block text-[15px] text-soft">
                {things(crew.people, "person")}
                {crew.leads.length > 0 &&
                  t("crews.led_by", { names: crew.leads.map((one) => one.name).join(", ") })}
              </span>
            </span>
            {(company.runs_it || crew.id === own) && (
              <Confirm
                trigger={
                  <Button className="min-h-11" aria-label={t("crews.take_out.label", { crew: crew.name })}>
                    {t("crews.take_out")}
                  </Button>
                }
                title={t("crews.take_out.label", { crew: crew.name })}
                says={t("crews.take_out.says")}
                act={t("crews.take_out")}
                onAct={() => leave.mutate(crew.id)}
              />
            )}
          </li>
        ))}
      </ul>
      {company.runs_it && <MoreCrews />}
    </section>
  );
}

function MoreCrews() {
  const link = useMakeCompanyLink();
  const add = useAddCrew();
  const [name, setName] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add.mutate(name.trim(), { onSuccess: () => setName("") });
  };
  const error = link.error ?? add.error;
  return (
    <>
      <form onSubmit={submit} className="mt-4 flex flex-wrap items-end gap-3">
        <Field
          label={t("crews.new")}
          value={name}
          maxLength={80}
          className="w-72 max-w-full"
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" className="min-h-11" disabled={!name.trim() || add.isPending}>
          {t("crews.add")}
        </Button>
        <Button className="min-h-11" disabled={link.isPending} onClick={() => link.mutate(undefined)}>
          {t("crews.link")}
        </Button>
      </form>
      {error && <Notice severity="stop">{error.message}</Notice>}
      {add.data && (
        <GivenLink path={`/join/${add.data.token}`} says={t("crews.new.says")} onDone={add.reset} />
      )}
      {link.data && (
        <GivenLink
          path={`/company/join/${link.data.token}`}
          says={t("crews.link.says")}
          onDone={link.reset}
        />
      )}
    </>
  );
}
