import { type FormEvent, useState } from "react";
import { useNameCrew } from "@/api/people";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";

/** What the crew is called; its lead may call it something else. */
export function CrewName({ name, leads }: { name: string; leads: boolean }) {
  const [typed, setTyped] = useState<string>();
  const rename = useNameCrew();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    rename.mutate(typed ?? name, { onSuccess: () => setTyped(undefined) });
  };
  return (
    <div className="flex flex-wrap items-baseline gap-x-4">
      <h1 className="text-3xl font-bold">{t("peopleOf", { name })}</h1>
      {leads && typed === undefined && (
        <Button look="quiet" className="min-h-11" onClick={() => setTyped(name)}>
          {t("renameTheCrew")}
        </Button>
      )}
      {typed !== undefined && (
        <form onSubmit={submit} className="mt-2 flex basis-full flex-wrap items-end gap-3">
          <Field
            label={t("whatTheCrewIsCalled")}
            autoFocus
            required
            maxLength={80}
            value={typed}
            className="w-80 max-w-full"
            onChange={(event) => setTyped(event.target.value)}
          />
          <Button type="submit" look="main" className="min-h-11" disabled={rename.isPending}>
            {t("rename")}
          </Button>
          <Button className="min-h-11" onClick={() => setTyped(undefined)}>
            {t("leaveIt")}
          </Button>
          {rename.error && <Notice severity="stop">{rename.error.message}</Notice>}
        </form>
      )}
    </div>
  );
}
