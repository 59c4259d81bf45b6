import { Link } from "react-router";
import { useWantCodesOfLeads } from "@/api/people";
import type { Me } from "@/api/types";
import { CheckBox } from "@/ui/check-box";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";

/** Whether what only leads may takes a second factor; and to a lead who has none yet, where it is turned on. */
export function CodesOfLeads({ me }: { me: Me }) {
  const want = useWantCodesOfLeads();
  return (
    <div className="mt-4 flex flex-col gap-2">
      <CheckBox
        checked={me.leads_with_code}
        disabled={want.isPending || me.must_turn_on_code}
        onCheck={(wanted) => want.mutate(wanted)}
      >
        {t("factor.leads_need")}
      </CheckBox>
      {want.error && <Notice severity="stop">{want.error.message}</Notice>}
      {me.must_turn_on_code && (
        <Notice severity="caution">
          {t("factor.turn_on_first")}{" "}
          <Link to="/me" className="font-semibold text-accent underline">
            {t("factor.title")}
          </Link>
        </Notice>
      )}
    </div>
  );
}
