import type { Right } from "@/api/types";
import { GoodIcon } from "@/ui/icons";
import { t } from "@/words/people";
import { ROLE_CHOICES } from "./roles";

/** What each role may do. */
export function Rights({ rights }: { rights: Right[] }) {
  return (
    <section aria-labelledby="rights" className="mt-8">
      <h2 id="rights" className="text-xl font-bold">
        {t("rights.title")}
      </h2>
      <div className="mt-2 overflow-x-auto rounded-lg border border-line bg-paper">
        <table className="w-full">
          <thead>
            <tr className="border-b border-line text-[15px]">
              <th scope="col" className="px-4 py-2 text-left font-semibold">
                {t("rights.may")}
              </th>
              {ROLE_CHOICES.map((role) => (
                <th key={role.value} scope="col" className="w-14 px-1 py-2 font-semibold sm:w-24">
                  {role.label}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rights.map((right) => (
              <tr key={right.says} className="border-b border-line/60 last:border-b-0">
                <th scope="row" className="px-3 py-2 text-left font-normal max-sm:text-[15px] sm:px-4">
                  {right.says}
                </th>
                {ROLE_CHOICES.map((role) => (
                  <td key={role.value} className="px-1 py-2 text-center">
                    {right.roles.includes(role.value) ? (
                      <span className="inline-flex text-good">
                        <GoodIcon width={20} height={20} />
                        <span className="sr-only">{t("rights.yes")}</span>
                      </span>
                    ) : (
                      <span className="text-soft">
                        <span aria-hidden="true">–</span>
                        <span className="sr-only">{t("rights.no")}</span>
                      </span>
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
