import { useCompany, useNameCompany } from "@/api/company";
import { useMe } from "@/api/queries";
import { Shell } from "@/shell/shell";
import { Called } from "@/ui/called";
import { Notice } from "@/ui/notice";
import { t } from "@/words/company";
import { BeginCompany } from "./begin-company";
import { CompanyCrews } from "./company-crews";
import { CompanyPeople } from "./company-people";

/** The company that the crew is of: its crews; for who runs it everybody in it, more crews, its name. */
export function CompanyPage() {
  const me = useMe().data;
  const company = useCompany();
  const rename = { label: t("rename"), field: t("name"), by: useNameCompany() };
  const leads = me?.role === "lead";
  return (
    <Shell title={t("title")}>
      <main className="mx-auto w-full max-w-4xl px-4 py-6">
        {company.error && <Notice severity="stop">{company.error.message}</Notice>}
        {company.data === null && <BeginCompany leads={leads} />}
        {company.data && (
          <>
            <Called
              title={company.data.name}
              name={company.data.name}
              rename={company.data.runs_it ? rename : null}
            />
            <p className="mt-1 text-lg text-soft">{t("says")}</p>
            <CompanyCrews company={company.data} own={leads ? me.crew_id : null} />
            {company.data.runs_it && <CompanyPeople company={company.data} me={me?.id} />}
          </>
        )}
      </main>
    </Shell>
  );
}
