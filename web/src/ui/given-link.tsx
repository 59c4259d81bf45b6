import { QRCodeSVG } from "qrcode.react";
import { useState } from "react";
import { t } from "@/words/ui";
import { Button } from "./button";

interface Props {
  path: string;
  says: string;
  onDone?: () => void;
}

/** A link that is given to one person: to copy, or to scan from this screen. */
export function GivenLink({ path, says, onDone }: Props) {
  const [copied, setCopied] = useState(false);
  const address = `${window.location.origin}${path}`;
  return (
    <div className="my-2 flex flex-wrap items-center gap-4 rounded-md border border-line bg-well p-3">
      <QRCodeSVG value={address} size={116} marginSize={2} title={t("link.scan")} />
      <div className="min-w-56 flex-1">
        <p>{says}</p>
        <input
          readOnly
          aria-label={t("link.label")}
          value={address}
          onFocus={(event) => event.target.select()}
          className="mt-2 min-h-11 w-full rounded-md border border-line bg-paper px-2.5 font-mono text-[15px]"
        />
        <div className="mt-2 flex gap-2">
          <Button
            className="min-h-11"
            onClick={() => navigator.clipboard?.writeText(address).then(() => setCopied(true))}
          >
            {copied ? t("link.copied") : t("link.copy")}
          </Button>
          {onDone && (
            <Button look="quiet" className="min-h-11" onClick={onDone}>
              {t("link.hide")}
            </Button>
          )}
        </div>
      </div>
    </div>
  );
}
