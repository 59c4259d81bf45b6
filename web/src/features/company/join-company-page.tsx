import { Link, useNavigate, useParams } from "react-router";
import { useJoinCompany } from "@/api/company";
import { useMe } from "@/api/queries";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/company";

/** Where a company's link leads: a lead brings the crew in. */
export function JoinCompanyPage() {
  const { token = "" } = useParams();
  const me = useMe().data;
  const join = useJoinCompany();
  const navigate = useNavigate();
  const leads = me?.role === "lead";
  return (
    <Shell title={t("title")}>
      <main className="mx-auto w-full max-w-3xl px-4 py-6">
        <h1 className="text-3xl font-bold">{t("join.title", { crew: me?.crew ?? "" })}</h1>
        <p className="mt-2 text-lg">{leads ? t("join.says") : t("join.lead_only")}</p>
        {join.error && <Notice severity="stop">{join.error.message}</Notice>}
        {leads && (
          <Button
            look="main"
            className="mt-4 min-h-12 text-lg"
            disabled={join.isPending}
            onClick={() => join.mutate(token, { onSuccess: () => navigate("/company", { replace: true }) })}
          >
            {t("join.do")}
          </Button>
        )}
        <p className="mt-4">
          <Link to="/me">{t("join.other_crew")}</Link>
        </p>
      </main>
    </Shell>
  );
}
