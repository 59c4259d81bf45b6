import { useState } from "react";
import { useParams } from "react-router";
import { useIsBeginningNeeded, ways } from "@/api/people";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";
import { FrontDoor } from "./front-door";
import { NOBODY, PersonFields } from "./person-fields";
import { useDoor } from "./use-door";

/** The first crew of this server, and its lead. */
export function BeginPage() {
  const { token = "" } = useParams();
  const needed = useIsBeginningNeeded();
  const [crew, setCrew] = useState("");
  const [person, setPerson] = useState(NOBODY);
  const door = useDoor(() => ways.begin(token, crew, person));
  if (needed.isLoading) return null;
  return (
    <FrontDoor>
      {needed.data?.needed ? (
        <form onSubmit={door.enter} className="flex flex-col gap-4">
          <h1 className="text-2xl font-bold">{t("begin.title")}</h1>
          <p className="text-soft">{t("begin.says")}</p>
          <Field
            label={t("crew.name")}
            autoFocus
            required
            maxLength={80}
            value={crew}
            wrong={door.wrong.crew}
            onChange={(event) => setCrew(event.target.value)}
          />
          <PersonFields person={person} wrong={door.wrong} onChange={setPerson} />
          {door.says && <Notice severity="stop">{door.says}</Notice>}
          <Button look="main" type="submit" className="min-h-12 text-lg" disabled={door.busy}>
            {t("begin")}
          </Button>
        </form>
      ) : (
        <Notice severity="stop">{needed.error?.message ?? t("begin.has_crew")}</Notice>
      )}
    </FrontDoor>
  );
}
