import { type FormEvent, useState } from "react";
import { useInvite, useWithdraw } from "@/api/people";
import type { Invitation, Role } from "@/api/types";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { GivenLink } from "@/ui/given-link";
import { timeOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { t } from "@/words/people";
import { ROLE_CHOICES } from "./roles";

/** Invite somebody, and see which invitations can still be taken. */
export function Invitations({ open }: { open: Invitation[] }) {
  const [role, setRole] = useState<Role>("bender");
  const [name, setName] = useState("");
  const [shown, setShown] = useState<number>();
  const invite = useInvite();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    invite.mutate(
      { role, name },
      {
        onSuccess: (made) => {
          setName("");
          setShown(made.id);
        },
      },
    );
  };
  return (
    <section aria-labelledby="invite" className="mt-8">
      <h2 id="invite" className="text-xl font-bold">
        {t("invite.title")}
      </h2>
      <form onSubmit={submit} className="mt-2 flex flex-wrap items-end gap-3">
        <Field
          label={t("invite.for")}
          value={name}
          maxLength={80}
          className="w-72 max-w-full"
          onChange={(event) => setName(event.target.value)}
        />
        <div>
          <span className="mb-1 block text-[15px] font-semibold">{t("invite.as")}</span>
          <Select label={t("invite.as")} boxed value={role} choices={ROLE_CHOICES} onChoose={setRole} />
        </div>
        <Button type="submit" look="main" className="min-h-11" disabled={invite.isPending}>
          {t("invite.make")}
        </Button>
      </form>
      {invite.error && <Notice severity="stop">{invite.error.message}</Notice>}
      {open.length > 0 && (
        <ul aria-label={t("invite.open")} className="mt-3 rounded-lg border border-line bg-paper">
          {open.map((one) => (
            <OpenInvitation
              key={one.id}
              invitation={one}
              shown={shown === one.id}
              onShow={(show) => setShown(show ? one.id : undefined)}
            />
          ))}
        </ul>
      )}
    </section>
  );
}

interface OpenProps {
  invitation: Invitation;
  shown: boolean;
  onShow: (show: boolean) => void;
}

function OpenInvitation({ invitation, shown, onShow }: OpenProps) {
  const withdraw = useWithdraw();
  const until = timeOf(invitation.expires_at);
  return (
    <li className="border-b border-line/60 px-4 py-2 last:border-b-0">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="min-w-48 grow text-lg">
          <span className="font-semibold">{invitation.name || t("invite.anybody")}</span>
          {t("invite.as_role", { role: invitation.role })}
          <span className="block text-[15px] text-soft">{t("invite.until", { until })}</span>
        </span>
        <Button className="min-h-11" aria-expanded={shown} onClick={() => onShow(!shown)}>
          {shown ? t("invite.hide") : t("invite.show")}
        </Button>
        <Button
          className="min-h-11"
          disabled={withdraw.isPending}
          onClick={() => withdraw.mutate(invitation.id)}
        >
          {t("invite.withdraw")}
        </Button>
      </div>
      {withdraw.error && <Notice severity="stop">{withdraw.error.message}</Notice>}
      {shown && <GivenLink path={`/join/${invitation.token}`} says={t("invite.how")} />}
    </li>
  );
}
