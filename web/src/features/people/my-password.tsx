import { type FormEvent, useState } from "react";
import type { ApiError } from "@/api/client";
import { useChangePassword } from "@/api/people";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";

const NONE = { old: "", new: "" };

/** Another password. */
export function MyPassword() {
  const [typed, setTyped] = useState(NONE);
  const change = useChangePassword();
  const error = change.error as ApiError | null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    change.mutate(typed, { onSuccess: () => setTyped(NONE) });
  };
  return (
    <form aria-labelledby="password" className="mt-6 flex flex-col gap-3" onSubmit={submit}>
      <h2 id="password" className="text-xl font-bold">
        {t("sign_in.password")}
      </h2>
      <Field
        label={t("password.old")}
        type="password"
        autoComplete="current-password"
        required
        value={typed.old}
        wrong={error?.places.old}
        onChange={(event) => setTyped({ ...typed, old: event.target.value })}
      />
      <Field
        label={t("password.new")}
        type="password"
        autoComplete="new-password"
        required
        value={typed.new}
        wrong={error?.places.new}
        onChange={(event) => setTyped({ ...typed, new: event.target.value })}
      />
      {error && <Notice severity="stop">{error.message}</Notice>}
      <Button type="submit" look="main" className="min-h-11 self-start" disabled={change.isPending}>
        {t("password.change")}
      </Button>
      {change.isSuccess && <span role="status">{t("password.changed")}</span>}
    </form>
  );
}
