import { useState } from "react";
import { useChangeRole, usePasswordLink, useRemoveMember, useTakeAwaySecondFactor } from "@/api/people";
import type { Member, Role } from "@/api/types";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { GivenLink } from "@/ui/given-link";
import { dayOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { t } from "@/words/people";
import { ROLE_CHOICES } from "./roles";

/** Everybody in the crew, leads first. */
export function Members({ members, leads }: { members: Member[]; leads: boolean }) {
  return (
    <ul className="mt-5 rounded-lg border border-line bg-paper">
      {members.map((member) => (
        <OneMember key={member.id} member={member} leads={leads} />
      ))}
    </ul>
  );
}

function OneMember({ member, leads }: { member: Member; leads: boolean }) {
  const changeRole = useChangeRole();
  const remove = useRemoveMember();
  const link = usePasswordLink();
  const factor = useTakeAwaySecondFactor();
  const [linkSeen, setLinkSeen] = useState(false);
  const error = changeRole.error ?? remove.error ?? link.error ?? factor.error;
  const since = dayOf(member.joined);
  return (
    <li className="border-b border-line/60 px-4 py-2 last:border-b-0">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <div className="min-w-48 grow">
          <span className="text-lg font-semibold">
            {member.name}
            {member.me && <span className="font-normal text-soft"> {t("member.you")}</span>}
          </span>
          <span className="block text-[15px] text-soft">
            {t("member.signs_in_as")} <span className="font-mono">{member.username}</span>
            {t("member.since", { since })}
            {member.second_factor && t("member.factor")}
          </span>
        </div>
        {leads ? (
          <Select
            label={t("member.role", { member: member.name })}
            boxed
            value={member.role}
            choices={ROLE_CHOICES}
            disabled={changeRole.isPending}
            onChoose={(role: Role) => changeRole.mutate({ id: member.id, role })}
          />
        ) : (
          <span className="w-24 text-lg">{member.role}</span>
        )}
        {leads && !member.me && (
          <Button
            className="min-h-11"
            disabled={link.isPending}
            onClick={() => link.mutate(member.id, { onSuccess: () => setLinkSeen(true) })}
          >
            {t("member.forgot")}
          </Button>
        )}
        {leads && !member.me && member.second_factor && (
          <Confirm
            trigger={<Button className="min-h-11">{t("member.lost_phone")}</Button>}
            title={t("member.factor_off.ask", { member: member.name })}
            says={t("member.factor_off.says")}
            act={t("member.factor_off")}
            keep={t("member.keep")}
            onAct={() => factor.mutate(member.id)}
          />
        )}
        {leads && !member.me && (
          <Confirm
            trigger={
              <Button className="min-h-11" aria-label={t("member.remove.label", { member: member.name })}>
                {t("member.remove")}
              </Button>
            }
            title={t("member.remove.ask", { member: member.name })}
            says={t("member.remove.says")}
            act={t("member.remove")}
            keep={t("member.keep")}
            onAct={() => remove.mutate(member.id)}
          />
        )}
      </div>
      {error && <Notice severity="stop">{error.message}</Notice>}
      {link.data && linkSeen && (
        <GivenLink
          path={`/password/${link.data.token}`}
          says={t("member.link", { member: member.name })}
          onDone={() => setLinkSeen(false)}
        />
      )}
    </li>
  );
}
