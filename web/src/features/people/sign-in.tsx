import { type FormEvent, useEffect, useState } from "react";
import { useLocation } from "react-router";
import { ApiError, api, reply } from "@/api/client";
import { useIsBeginningNeeded, useLetIn, ways } from "@/api/people";
import { store } from "@/outbox/outbox-context";
import { useTitle } from "@/shell/title";
import { Button } from "@/ui/button";
import { CheckBox } from "@/ui/check-box";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";
import { ByProvider, ToldByProvider, useProviderSays } from "./by-provider";
import { CodeField } from "./code-field";
import { Forgotten } from "./forgotten";
import { FrontDoor } from "./front-door";
import { useDoor } from "./use-door";

export function SignIn() {
  useTitle(t("sign_in"));
  const beginning = useIsBeginningNeeded().data;
  const codeWanted = useProviderSays() === "code";
  const [waiting, setWaiting] = useState(0);
  useEffect(() => {
    store.count().then(setWaiting, () => undefined);
  }, []);

  return (
    <FrontDoor>
      <p className="text-lg text-soft">{t("door.slogan")}</p>
      {waiting > 0 && (
        <div className="mt-6">
          <Notice severity="caution">
            {waiting === 1 ? t("door.one_kept") : t("door.kept", { waiting })}
          </Notice>
        </div>
      )}
      {beginning?.provider && codeWanted && <CodeToo name={beginning.provider} />}
      {!codeWanted && <ByPassword provider={beginning?.provider ?? ""} mail={beginning?.mail ?? false} />}
      {beginning?.needed && (
        <p className="mt-6 text-[15px]">
          {t("door.no_crew")} <span className="font-mono">{t("door.no_crew.command")}</span>.
        </p>
      )}
    </FrontDoor>
  );
}

/** For whom the company's provider vouched, and who has a second factor here. */
function CodeToo({ name }: { name: string }) {
  const [code, setCode] = useState("");
  const door = useDoor(() => ways.byCode(code));
  return (
    <form onSubmit={door.enter} className="mt-8 flex flex-col gap-4">
      <p>{t("provider.code", { name })}</p>
      <CodeField value={code} onChange={setCode} />
      {door.says && <Notice severity="stop">{door.says}</Notice>}
      <Button look="main" type="submit" disabled={door.busy || !code} className="min-h-12 text-lg">
        {t("sign_in")}
      </Button>
      <a href="/">{t("provider.another_way")}</a>
    </form>
  );
}

function ByPassword({ provider, mail }: { provider: string; mail: boolean }) {
  const letIn = useLetIn();
  const { pathname } = useLocation();
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const [shared, setShared] = useState(false);
  const [codeWanted, setCodeWanted] = useState(false);
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);

  async function submit(event: FormEvent) {
    event.preventDefault();
    setBusy(true);
    setWrong("");
    try {
      await letIn(await reply(api.POST("/api/session", { body: { username, password, code, shared } })));
    } catch (error) {
      setCodeWanted(codeWanted || (error instanceof ApiError && error.codeWanted));
      setWrong(error instanceof ApiError ? error.message : t("door.wrong"));
    } finally {
      setBusy(false);
    }
  }

  return (
    <>
      <form onSubmit={submit} className="mt-8 flex flex-col gap-4">
        <ToldByProvider name={provider} />
        <Field
          label={t("sign_in.name")}
          autoComplete="username"
          autoFocus
          value={username}
          onChange={(e) => setUsername(e.target.value)}
        />
        <Field
          label={t("sign_in.password")}
          type="password"
          autoComplete="current-password"
          value={password}
          onChange={(e) => setPassword(e.target.value)}
        />
        {codeWanted && <CodeField value={code} onChange={setCode} />}
        <CheckBox checked={shared} onCheck={setShared}>
          {t("sign_in.shared_device")}
        </CheckBox>
        {wrong && <Notice severity={codeWanted && !code ? "note" : "stop"}>{wrong}</Notice>}
        <Button look="main" type="submit" disabled={busy} className="min-h-12 text-lg">
          {t("sign_in")}
        </Button>
        {provider && (
          <ByProvider
            says={t("provider.sign_in", { name: provider })}
            asked={{ next: pathname, ...(shared ? { shared: "1" } : {}) }}
          />
        )}
      </form>
      <Forgotten knownAs={username} mail={mail} />
    </>
  );
}
