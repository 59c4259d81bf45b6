import { Link, useLocation } from "react-router";
import { t } from "@/words/shell";
import { Shell } from "./shell";

/** An address that leads nowhere: says which, and the ways on. */
export function NotFound() {
  const { pathname } = useLocation();
  return (
    <Shell title={t("no_page.title")}>
      <main className="mx-auto w-full max-w-xl px-4 py-16">
        <h1 className="text-3xl font-bold">{t("no_page.what")}</h1>
        <p className="mt-3 text-lg break-all text-soft">{pathname}</p>
        <p className="mt-3 text-lg">
          {t("no_page.why")}{" "}
          <Link to="/" className="font-semibold underline">
            {t("no_page.all_jobs")}
          </Link>
        </p>
      </main>
    </Shell>
  );
}
