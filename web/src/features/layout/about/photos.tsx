import { useId, useState } from "react";
import { useAddPhoto, useRemovePhoto } from "@/api/about";
import type { Photo } from "@/api/types";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { RemoveIcon } from "@/ui/icons";
import { timeOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { t } from "@/words/layout";
import { smaller } from "./smaller";

interface Props {
  runId: number;
  photos: Photo[];
  mayWrite: boolean;
}

/** Photos of where the run goes; sized down before they are sent. */
export function Photos({ runId, photos, mayWrite }: Props) {
  return (
    <section aria-label={t("photos.title")}>
      <h3 className="text-lg font-bold">{t("photos.title")}</h3>
      {photos.length === 0 && <p className="text-soft">{t("photos.none")}</p>}
      <ul className="mt-1 flex flex-col gap-3">
        {photos.map((photo) => (
          <OnePhoto key={photo.id} runId={runId} photo={photo} mayWrite={mayWrite} />
        ))}
      </ul>
      {mayWrite && <NewPhoto runId={runId} />}
    </section>
  );
}

function OnePhoto({ runId, photo, mayWrite }: { runId: number; photo: Photo; mayWrite: boolean }) {
  const remove = useRemovePhoto(runId);
  const address = `/api/runs/${runId}/photos/${photo.id}`;
  return (
    <li>
      <a href={address} target="_blank" rel="noreferrer">
        <img
          src={address}
          width={photo.width}
          height={photo.height}
          loading="lazy"
          className="h-auto w-full rounded-md border border-line"
          alt={photo.says || t("photos.by", { by: photo.by })}
        />
      </a>
      <p className="flex items-center gap-2 text-[15px]">
        <span>
          {photo.says && <strong>{photo.says} </strong>}
          <span className="text-soft">
            {photo.by}, {timeOf(photo.at)}
          </span>
        </span>
        {mayWrite && (
          <Confirm
            trigger={
              <Button
                look="quiet"
                className="ml-auto"
                aria-label={t("photos.delete", { says: photo.says || t("photos.this") })}
              >
                <RemoveIcon />
              </Button>
            }
            title={t("photos.delete_ask")}
            says={t("photos.gone")}
            act={t("photos.delete_it")}
            onAct={() => remove.mutate(photo.id)}
          />
        )}
      </p>
    </li>
  );
}

function NewPhoto({ runId }: { runId: number }) {
  const add = useAddPhoto(runId);
  const id = useId();
  const [says, setSays] = useState("");
  const [unread, setUnread] = useState(false);

  async function take(file: File | undefined) {
    if (!file) return;
    const image = await smaller(file).catch(() => null);
    setUnread(image === null);
    if (image) add.mutate({ image, says: says.trim() }, { onSuccess: () => setSays("") });
  }

  return (
    <div className="mt-3 flex flex-col gap-1.5">
      <label className="text-[15px] font-semibold">
        {t("photos.next_shows")}
        <input
          className="mt-1 min-h-11 w-full rounded-md border border-line bg-paper px-2.5 font-normal"
          maxLength={120}
          value={says}
          onChange={(event) => setSays(event.target.value)}
        />
      </label>
      <label
        htmlFor={id}
        className="inline-flex min-h-11 cursor-pointer items-center self-start rounded-md border border-line bg-paper px-3.5 font-medium focus-within:outline-2 hover:border-ink"
      >
        {add.isPending ? t("photos.sending") : t("photos.add")}
        <input
          id={id}
          type="file"
          accept="image/*"
          className="sr-only"
          disabled={add.isPending}
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </label>
      {unread && <Notice severity="stop">{t("photos.no_photo")}</Notice>}
      {add.error && <Notice severity="stop">{add.error.message}</Notice>}
    </div>
  );
}
