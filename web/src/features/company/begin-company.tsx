import { type FormEvent, useState } from "react";
import { useBeginCompany } from "@/api/company";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/company";

/** A crew that is of no company: its lead may begin one. */
export function BeginCompany({ leads }: { leads: boolean }) {
  const begin = useBeginCompany();
  const [name, setName] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    begin.mutate(name.trim());
  };
  return (
    <>
      <h1 className="text-3xl font-bold">{t("title")}</h1>
      <p className="mt-2 text-lg">{t("none")}</p>
      {leads ? (
        <form onSubmit={submit} className="mt-4 flex flex-wrap items-end gap-3">
          <Field
            label={t("name")}
            value={name}
            maxLength={80}
            className="w-80 max-w-full"
            onChange={(event) => setName(event.target.value)}
          />
          <Button type="submit" look="main" className="min-h-11" disabled={!name.trim() || begin.isPending}>
            {t("begin")}
          </Button>
        </form>
      ) : (
        <p className="mt-2 text-soft">{t("begin.lead_only")}</p>
      )}
      {begin.error && <Notice severity="stop">{begin.error.message}</Notice>}
    </>
  );
}
