import { useState } from "react";
import { useParams } from "react-router";
import { usePasswordLinkFor, ways } from "@/api/people";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";
import { CodeField } from "./code-field";
import { FrontDoor } from "./front-door";
import { useDoor } from "./use-door";

/** Where a password link leads. */
export function PasswordPage() {
  const { token = "" } = useParams();
  const link = usePasswordLinkFor(token);
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const door = useDoor(() => ways.setPassword(token, password, code));
  if (link.isLoading) return null;
  return (
    <FrontDoor>
      {link.data ? (
        <form onSubmit={door.enter} className="flex flex-col gap-4">
          <h1 className="text-2xl font-bold">{t("reset.title", { data: link.data.name })}</h1>
          <input type="hidden" autoComplete="username" value={link.data.username} readOnly />
          <p className="text-soft">{t("reset.name", { username: link.data.username })}</p>
          <Field
            label={t("password.first")}
            type="password"
            autoComplete="new-password"
            autoFocus
            required
            value={password}
            wrong={door.wrong.password}
            onChange={(event) => setPassword(event.target.value)}
          />
          {link.data.second_factor && <CodeField value={code} onChange={setCode} wrong={door.wrong.code} />}
          {door.says && <Notice severity="stop">{door.says}</Notice>}
          <Button look="main" type="submit" className="min-h-12 text-lg" disabled={door.busy}>
            {t("reset.do")}
          </Button>
        </form>
      ) : (
        <Notice severity="stop">{link.error?.message ?? t("link.void")}</Notice>
      )}
    </FrontDoor>
  );
}
