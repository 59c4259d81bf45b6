import { QRCodeSVG } from "qrcode.react";
import { type FormEvent, useState } from "react";
import type { ApiError } from "@/api/client";
import {
  useBeginSecondFactor,
  useConfirmSecondFactor,
  useSecondFactor,
  useTurnOffSecondFactor,
} from "@/api/people";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";
import { CodeField } from "./code-field";

/** A second factor by choice: a code that an app on the phone shows, asked for beside the password. */
export function MySecondFactor() {
  const factor = useSecondFactor();
  const begin = useBeginSecondFactor();
  // Kept here: the form goes as soon as it is known that it is on, and the codes are told only once.
  const confirm = useConfirmSecondFactor();
  const error = factor.error ?? begin.error;
  const start = () => {
    confirm.reset();
    begin.mutate(undefined);
  };
  return (
    <section aria-labelledby="second-factor" className="mt-8">
      <h2 id="second-factor" className="text-xl font-bold">
        {t("factor.title")}
      </h2>
      {error && <Notice severity="stop">{error.message}</Notice>}
      {confirm.data && <SpareCodes codes={confirm.data.codes} onDone={confirm.reset} />}
      {factor.data?.on && <TurnOff />}
      {factor.data && !factor.data.on && (!begin.data || confirm.data) && (
        <div className="mt-2 flex flex-wrap items-center gap-4">
          <p className="min-w-56 flex-1">{t("factor.off")}</p>
          <Button className="min-h-11" disabled={begin.isPending} onClick={start}>
            {t("factor.begin")}
          </Button>
        </div>
      )}
      {factor.data && !factor.data.on && begin.data && !confirm.data && (
        <Confirming address={begin.data.address} confirm={confirm} />
      )}
    </section>
  );
}

interface ConfirmingProps {
  address: string;
  confirm: ReturnType<typeof useConfirmSecondFactor>;
}

function Confirming({ address, confirm }: ConfirmingProps) {
  const [code, setCode] = useState("");
  const error = confirm.error as ApiError | null;
  const secret = new URL(address).searchParams.get("secret") ?? "";
  const submit = (event: FormEvent) => {
    event.preventDefault();
    confirm.mutate(code);
  };
  return (
    <form
      className="mt-2 flex flex-wrap items-start gap-4 rounded-md border border-line bg-well p-3"
      onSubmit={submit}
    >
      <QRCodeSVG value={address} size={148} marginSize={2} title={t("factor.secret")} />
      <div className="flex min-w-56 flex-1 flex-col gap-3">
        <p>
          {t("factor.scan")} <span className="font-mono">{inFours(secret)}</span>
        </p>
        <CodeField label={t("factor.code")} value={code} onChange={setCode} wrong={error?.places.code} />
        {error && <Notice severity="stop">{error.message}</Notice>}
        <Button
          type="submit"
          look="main"
          className="min-h-11 self-start"
          disabled={confirm.isPending || !code}
        >
          {t("factor.turn_on")}
        </Button>
      </div>
    </form>
  );
}

const inFours = (secret: string) => secret.replace(/(.{4})(?=.)/g, "$1 ");

function SpareCodes({ codes, onDone }: { codes: string[]; onDone: () => void }) {
  return (
    <div className="mt-2 rounded-md border border-ink bg-paper p-3">
      <p className="text-lg font-semibold">{t("factor.spare.says")}</p>
      <ul
        aria-label={t("factor.spare")}
        className="mt-2 grid grid-cols-2 gap-x-6 font-mono text-lg sm:grid-cols-4"
      >
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <Button className="mt-3 min-h-11" onClick={onDone}>
        {t("factor.spare.done")}
      </Button>
    </div>
  );
}

function TurnOff() {
  const off = useTurnOffSecondFactor();
  const [password, setPassword] = useState("");
  const error = off.error as ApiError | null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    off.mutate(password);
  };
  return (
    <form className="mt-2 flex flex-wrap items-end gap-4" onSubmit={submit}>
      <p className="min-w-56 flex-1 self-center">{t("factor.on")}</p>
      <Field
        label={t("factor.password")}
        type="password"
        autoComplete="current-password"
        value={password}
        wrong={error?.places.password}
        onChange={(event) => setPassword(event.target.value)}
      />
      <Button type="submit" className="min-h-11" disabled={off.isPending || !password}>
        {t("factor.turn_off")}
      </Button>
      {error && <Notice severity="stop">{error.message}</Notice>}
    </form>
  );
}
