import { type FormEvent, useState } from "react";
import type { useNameCompany } from "@/api/company";
import type { useNameCrew } from "@/api/people";
import { t } from "@/words/ui";
import { Button } from "./button";
import { Field } from "./field";
import { Notice } from "./notice";

interface Props {
  title: string;
  name: string;
  /** Of whoever may call it something else. */
  rename: { label: string; field: string; by: ReturnType<typeof useNameCrew | typeof useNameCompany> } | null;
}

/** What a crew or a company is called. */
export function Called({ title, name, rename }: Props) {
  const [typed, setTyped] = useState<string>();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    rename?.by.mutate(typed ?? name, { onSuccess: () => setTyped(undefined) });
  };
  return (
    <div className="flex flex-wrap items-baseline gap-x-4">
      <h1 className="text-3xl font-bold">{title}</h1>
      {rename && typed === undefined && (
        <Button look="quiet" className="min-h-11" onClick={() => setTyped(name)}>
          {rename.label}
        </Button>
      )}
      {rename && typed !== undefined && (
        <form onSubmit={submit} className="mt-2 flex basis-full flex-wrap items-end gap-3">
          <Field
            label={rename.field}
            autoFocus
            required
            maxLength={80}
            value={typed}
            className="w-80 max-w-full"
            onChange={(event) => setTyped(event.target.value)}
          />
          <Button type="submit" look="main" className="min-h-11" disabled={rename.by.isPending}>
            {t("rename")}
          </Button>
          <Button className="min-h-11" onClick={() => setTyped(undefined)}>
            {t("cancel")}
          </Button>
          {rename.by.error && <Notice severity="stop">{rename.by.error.message}</Notice>}
        </form>
      )}
    </div>
  );
}
