import { Button } from "@/ui/button";
import { t } from "@/words/devices";
import { DEVICES, STATES } from "./device-words";
import { useDevice } from "./hub";
import { type Put, putReading, readAnew, useLastPut } from "./put-reading";

/** What a reading became, and what can be done with it; while a laser is linked it can be asked to read. */
export function DeviceLine() {
  const laser = useDevice("laser");
  const put = useLastPut();
  if (laser.way === "none") return null;
  return (
    // Its buttons leave the focus in the figure that is measured.
    <section
      aria-label={t("line.label")}
      onPointerDown={(event) => event.preventDefault()}
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line bg-paper px-4 py-1 print:hidden"
    >
      <p role="status" className="min-w-0 flex-1">
        <strong>{DEVICES.laser.called}</strong> {put ? <WhatBecame put={put} /> : STATES[laser.state]}
      </p>
      {put && !put.isSure && (
        <Button className="min-h-12" onClick={() => putReading(put.device, put.reading, true)}>
          {t("line.take")}
        </Button>
      )}
      {laser.canRead && laser.state === "on" && (
        <Button look="main" className="min-h-12" onClick={() => readAnew("laser")}>
          {t("line.read")}
        </Button>
      )}
    </section>
  );
}

function WhatBecame({ put }: { put: Put }) {
  const { text, into, isSure } = put;
  if (!isSure) return <span className="text-caution">{t("line.unsure", { text })}</span>;
  return into ? t("line.put", { text, into }) : t("line.kept", { text });
}
