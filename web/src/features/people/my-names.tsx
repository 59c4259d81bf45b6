import { useState } from "react";
import type { ApiError } from "@/api/client";
import { useChangeNames } from "@/api/people";
import type { Me } from "@/api/types";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";

const namesOf = ({ username, first, last, email }: Me) => ({ username, first, last, email });

/** The name that others see, the one to sign in by, and an e-mail address. */
export function MyNames({ me }: { me: Me }) {
  const [names, setNames] = useState(namesOf(me));
  const [password, setPassword] = useState("");
  const change = useChangeNames();
  const error = change.error as ApiError | null;
  const changed = JSON.stringify(names) !== JSON.stringify(namesOf(me));
  const put = (key: keyof typeof names) => ({
    value: names[key],
    wrong: error?.places[key],
    onChange: (event: { target: { value: string } }) => setNames({ ...names, [key]: event.target.value }),
  });
  return (
    <form
      aria-labelledby="names"
      className="mt-6 flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate({ ...names, password });
      }}
    >
      <h2 id="names" className="text-xl font-bold">
        {t("sign_in.name")}
      </h2>
      <Field label={t("person.first_name")} autoComplete="given-name" {...put("first")} />
      <Field label={t("person.last_name")} autoComplete="family-name" {...put("last")} />
      <Field
        label={t("person.sign_in_name")}
        autoComplete="username"
        autoCapitalize="none"
        required
        {...put("username")}
      />
      <Field label={t("person.mail")} type="email" autoComplete="email" {...put("email")} />
      {names.email !== me.email && (
        <Field
          label={t("person.mail_password")}
          type="password"
          autoComplete="current-password"
          value={password}
          wrong={error?.places.password}
          onChange={(event) => setPassword(event.target.value)}
        />
      )}
      {error && <Notice severity="stop">{error.message}</Notice>}
      <Button
        type="submit"
        look="main"
        className="min-h-11 self-start"
        disabled={!changed || change.isPending}
      >
        {t("names.change")}
      </Button>
      {change.isSuccess && !changed && <span role="status">{t("names.changed")}</span>}
    </form>
  );
}
