import { useState } from "react";
import { useParams } from "react-router";
import { useInvitation, useIsBeginningNeeded, ways } from "@/api/people";
import { useMeAtFirst } from "@/api/queries";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";
import { ByProvider, ToldByProvider } from "./by-provider";
import { FrontDoor } from "./front-door";
import { NOBODY, PersonFields } from "./person-fields";
import { useDoor } from "./use-door";

/** Where an invitation's link leads: join as who is signed in, or as a new person. */
export function JoinPage() {
  const { token = "" } = useParams();
  const invitation = useInvitation(token);
  const me = useMeAtFirst().data;
  if (invitation.isLoading || me === undefined) return null;
  const { crew, role, open } = invitation.data ?? { crew: "", role: "", open: false };
  return (
    <FrontDoor>
      {open ? (
        <>
          <h1 className="text-2xl font-bold">{t("join.title", { crew })}</h1>
          <p className="mt-1 text-lg text-soft">{t("join.as_role", { role })}</p>
          {me ? <AsMyself token={token} name={me.name} /> : <AsNew token={token} />}
        </>
      ) : (
        <Notice severity="stop">{t("join.void")}</Notice>
      )}
    </FrontDoor>
  );
}

function AsMyself({ token, name }: { token: string; name: string }) {
  const door = useDoor(() => ways.joinAsMyself(token));
  return (
    <div className="mt-6 flex flex-col gap-4">
      <p>{t("join.signed_in", { name })}</p>
      {door.says && <Notice severity="stop">{door.says}</Notice>}
      <Button look="main" className="min-h-12 text-lg" disabled={door.busy} onClick={() => door.enter()}>
        {t("join.as_me", { name })}
      </Button>
    </div>
  );
}

function AsNew({ token }: { token: string }) {
  const [person, setPerson] = useState(NOBODY);
  const door = useDoor(() => ways.joinAsNew(token, person));
  const name = useIsBeginningNeeded().data?.provider;
  return (
    <form onSubmit={door.enter} className="mt-6 flex flex-col gap-4">
      <PersonFields person={person} wrong={door.wrong} onChange={setPerson} />
      {door.says && <Notice severity="stop">{door.says}</Notice>}
      <Button look="main" type="submit" className="min-h-12 text-lg" disabled={door.busy}>
        {t("join")}
      </Button>
      {name && <ToldByProvider name={name} />}
      {name && <ByProvider says={t("provider.join", { name })} asked={{ invitation: token }} />}
      <p className="text-[15px] text-soft">
        {t("join.sign_in")} <a href="/">{t("sign_in")}</a> {t("join.sign_in.then")}
      </p>
    </form>
  );
}
