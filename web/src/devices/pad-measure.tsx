import { Key } from "@/ui/tape-pad/tape-pad";
import { t } from "@/words/devices";
import { useDevice } from "./hub";
import { putReading, readAnew, useLastPut } from "./put-reading";

/** The distance meter's keys on the pad: have it read, and take what it is not sure of. */
export function PadMeasure() {
  const laser = useDevice("laser");
  const put = useLastPut();
  if (laser.state !== "on") return null;
  return (
    <>
      {laser.canRead && (
        <Key
          label={t("line.read")}
          onPress={() => readAnew("laser")}
          className="shrink-0 border-accent! px-3"
        >
          <span className="font-semibold">{t("line.read")}</span>
        </Key>
      )}
      {put && !put.isSure && (
        <Key
          label={t("line.take_text", { text: put.text })}
          onPress={() => putReading(put.device, put.reading, true)}
          className="shrink-0 border-caution! px-3"
        >
          <span className="tape text-caution">{t("line.take_text", { text: put.text })}</span>
        </Key>
      )}
    </>
  );
}
