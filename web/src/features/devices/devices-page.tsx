import { useState } from "react";
import { DEVICES, STATES, WAYS } from "@/devices/device-words";
import { askToRead, connect, type DeviceName, linkBy, useDevice, type Way, waysOf } from "@/devices/hub";
import { asTyped } from "@/devices/put-reading";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { Pattern } from "@/ui/pattern";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { choosePad, usePadChoice } from "@/ui/tape-pad/pad-choice";
import { t } from "@/words/devices";
import { CoreHere } from "./core-here";

/** What this machine measures with: the tape's own body, a distance meter, an angle finder. */
export function DevicesPage() {
  return (
    <Shell title={t("title")}>
      <main className="mx-auto flex w-full max-w-3xl flex-col gap-4 px-4 py-6">
        <h1 className="text-3xl font-bold">{t("title")}</h1>
        <p className="text-soft">{t("intro")}</p>
        <Tape />
        <Device device="laser" />
        <Device device="finder" />
        <Device device="printer" />
        <CoreHere />
      </main>
    </Shell>
  );
}

const CARD = "rounded-lg border border-line bg-paper px-4 py-3";
// As the pad adds it: inches with a fraction, or millimetres.
const BODY = /^\d{1,3}(?: \d{1,2}\/\d{1,2})?$/;

function Tape() {
  const { body } = usePadChoice();
  const [typed, setTyped] = useState(body);
  const isRight = BODY.test(typed.trim());
  return (
    <section aria-label={t("tape")} className={CARD}>
      <h2 className="text-xl font-bold">{t("tape")}</h2>
      <p className="text-lg leading-10">
        <Pattern
          sentence={t("tape.body")}
          slots={{
            body: (
              <TapeField
                label={t("tape.body.label")}
                value={typed}
                invalid={!isRight}
                describedBy={isRight ? undefined : "body-wrong"}
                onChange={(next) => {
                  setTyped(next);
                  if (BODY.test(next.trim())) choosePad({ body: next.trim() });
                }}
              />
            ),
          }}
        />
      </p>
      {!isRight && (
        <p id="body-wrong" className="text-stop">
          {t("tape.body.wrong")}
        </p>
      )}
    </section>
  );
}

function Device({ device }: { device: DeviceName }) {
  const { called, says } = DEVICES[device];
  const { way, state, says: why, canRead, last } = useDevice(device);
  const choices = waysOf(device).map((one) => ({ value: one, label: WAYS[one] }));
  return (
    <section aria-label={called} className={CARD}>
      <h2 className="text-xl font-bold">{called}</h2>
      <p className="text-soft">{says}</p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <span>{t("way")}</span>
        <Select<Way>
          boxed
          label={`${called}, ${t("way")}`}
          value={way}
          choices={choices}
          onChoose={(next) => linkBy(device, next)}
        />
        {way !== "none" && (
          <p role="status" className={state === "failed" ? "text-stop" : ""}>
            {state === "failed" && why ? t("state.failed.why", { says: why }) : STATES[state]}
          </p>
        )}
        {way !== "none" && (state === "off" || state === "failed") && (
          <Button onClick={() => void connect(device)}>{t("link")}</Button>
        )}
        {canRead && state === "on" && <Button onClick={() => askToRead(device)}>{t("try")}</Button>}
      </div>
      {way === "program" && state !== "on" && <p className="mt-1 text-soft">{t("program.how")}</p>}
      {last && (
        <p className="mt-1">
          {t("last", { text: `${asTyped(last, "1/16")}${last.unit === "deg" ? "°" : ""}` })}
        </p>
      )}
    </section>
  );
}
