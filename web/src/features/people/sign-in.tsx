import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useEffect, useState } from "react";
import { ApiError, api, reply } from "@/api/client";
import { dropOthers, ownerOf, tellOtherTabs } from "@/api/owner";
import { keys } from "@/api/queries";
import { Wordmark } from "@/layout/wordmark";
import { store } from "@/outbox/outbox-context";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";

export function SignIn() {
  const queries = useQueryClient();
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const [waiting, setWaiting] = useState(0);
  useEffect(() => {
    store.count().then(setWaiting, () => undefined);
  }, []);

  async function submit(event: FormEvent) {
    event.preventDefault();
    setBusy(true);
    setWrong("");
    try {
      const me = await reply(api.POST("/api/session", { body: { username, password } }));
      await dropOthers(queries, ownerOf(me));
      tellOtherTabs(ownerOf(me));
      queries.setQueryData(keys.me, me);
    } catch (error) {
      setWrong(error instanceof ApiError ? error.message : "Something went wrong here.");
    } finally {
      setBusy(false);
    }
  }

  return (
    <main className="flex min-h-dvh items-center justify-center p-6">
      <div className="w-[min(25rem,100%)]">
        <Wordmark large />
        <p className="mt-3 text-lg text-soft">Conduit that fits the first time: measure, mark, bend, cut.</p>
        {waiting > 0 && (
          <div className="mt-6">
            <Notice severity="caution">
              {waiting === 1
                ? "1 thing done at the bench is kept on this device. Once whoever did it signs in, it is sent."
                : `${waiting} things done at the bench are kept on this device. Once whoever did them signs in, they are sent.`}
            </Notice>
          </div>
        )}
        <form onSubmit={submit} className="mt-8 flex flex-col gap-4">
          <Field
            label="Name"
            autoComplete="username"
            autoFocus
            value={username}
            onChange={(e) => setUsername(e.target.value)}
          />
          <Field
            label="Password"
            type="password"
            autoComplete="current-password"
            value={password}
            onChange={(e) => setPassword(e.target.value)}
          />
          {wrong && <Notice severity="stop">{wrong}</Notice>}
          <Button look="main" type="submit" disabled={busy} className="min-h-12 text-lg">
            Sign in
          </Button>
        </form>
        <p className="mt-8 text-[15px] text-soft">
          Crelda lays out pipe. Your local code, the inspector and a licensed electrician decide.
        </p>
      </div>
    </main>
  );
}
