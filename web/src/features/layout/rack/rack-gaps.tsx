import type { RackPlan } from "@/api/types";
import { CautionIcon, GoodIcon, StopIcon } from "@/ui/icons";
import { t } from "@/words/layout";

/** How near the pipes come to each other, as bent in simulation; and the struts that carry them. */
export function RackGaps({ plan }: { plan: RackPlan }) {
  return (
    <section aria-label={t("gaps.title")} className="px-3 py-2">
      {plan.gaps.length > 0 && (
        <table className="tape w-full text-left">
          <caption className="pb-1 text-left font-bold">{t("gaps.caption")}</caption>
          <thead>
            <tr className="text-[15px] text-soft">
              <th scope="col">{t("gaps.pipes")}</th>
              <th scope="col">{t("gaps.asked")}</th>
              <th scope="col">{t("gaps.least")}</th>
              <th scope="col">{t("gaps.where")}</th>
            </tr>
          </thead>
          <tbody>
            {plan.gaps.map((gap) => (
              <tr key={`${gap.first} ${gap.second}`} className="border-t border-line/60">
                <td>
                  {gap.first}, {gap.second}
                </td>
                <td>{gap.asked?.reads ?? "–"}</td>
                <td className="font-semibold">
                  <span className="inline-flex items-center gap-1">
                    <GapMark kept={gap.kept} touches={gap.least.inches < 0} />
                    {gap.least.inches < 0 ? t("gaps.touch") : gap.least.reads}
                  </span>
                </td>
                <td className="text-[15px] text-soft">
                  {gap.equal
                    ? t("gaps.all_along")
                    : gap.step === null
                      ? t("gaps.first_leg")
                      : t("gaps.step", { step: gap.step + 1 })}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {plan.struts.length > 0 && <Struts plan={plan} />}
    </section>
  );
}

function GapMark({ kept, touches }: { kept: boolean; touches: boolean }) {
  const Icon = touches ? StopIcon : kept ? GoodIcon : CautionIcon;
  const color = touches ? "text-stop" : kept ? "text-good" : "text-caution";
  return <Icon width={18} height={18} className={color} />;
}

function Struts({ plan }: { plan: RackPlan }) {
  return (
    <details className="mt-2">
      <summary className="cursor-pointer py-1.5 font-semibold">
        {plan.struts.length} {plan.struts.length === 1 ? t("struts.one") : t("struts.title")}
      </summary>
      <ul className="tape text-[15px]">
        {plan.struts.map((strut) => (
          <li key={strut.at.inches} className="border-t border-line/60 py-1">
            {t("struts.at")} <strong>{strut.at.reads}</strong> {t("struts.along")}{" "}
            <strong>{strut.length.reads}</strong>{" "}
            {t("struts.long", { holes: strut.holes.map((hole) => hole.reads).join(", ") })}
          </li>
        ))}
      </ul>
    </details>
  );
}
