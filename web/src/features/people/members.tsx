import { useState } from "react";
import { useChangeRole, usePasswordLink, useRemoveMember, useTakeAwaySecondFactor } from "@/api/people";
import type { Member, Role } from "@/api/types";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { dayOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { GivenLink } from "./given-link";
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
            {member.me && <span className="font-normal text-soft"> (you)</span>}
          </span>
          <span className="block text-[15px] text-soft">
            signs in as <span className="font-mono">{member.username}</span>, here since {since}
            {member.second_factor && ", with a second factor"}
          </span>
        </div>
        {leads ? (
          <Select
            label={`Role of ${member.name}`}
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
            Forgot the password
          </Button>
        )}
        {leads && !member.me && member.second_factor && (
          <Confirm
            trigger={<Button className="min-h-11">Lost the phone</Button>}
            title={`Take the second factor away from ${member.name}?`}
            says="Name and password are then enough for them to sign in, until they turn it on again."
            act="Take it away"
            keep="Keep"
            onAct={() => factor.mutate(member.id)}
          />
        )}
        {leads && !member.me && (
          <Confirm
            trigger={
              <Button className="min-h-11" aria-label={`Remove ${member.name}`}>
                Remove
              </Button>
            }
            title={`Remove ${member.name}?`}
            says="Their access ends at once. What they measured, bent and cut stays in the crew’s work and log."
            act="Remove"
            keep="Keep"
            onAct={() => remove.mutate(member.id)}
          />
        )}
      </div>
      {error && <Notice severity="stop">{error.message}</Notice>}
      {link.data && linkSeen && (
        <GivenLink
          path={`/password/${link.data.token}`}
          says={`Give this link to ${member.name}. It sets a new password, once, within three days; wherever they are signed in, they are signed out.`}
          onDone={() => setLinkSeen(false)}
        />
      )}
    </li>
  );
}
