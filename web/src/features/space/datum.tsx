import { type FormEvent, useState } from "react";
import { ApiError } from "@/api/client";
import { useSetDatum } from "@/api/space";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { t } from "@/words/space";

interface Props {
  jobId: number;
  datum: string;
  mayWrite: boolean;
}

/** From where the boxes are placed, in words: the column, the corner, the line on the floor. */
export function Datum({ jobId, datum, mayWrite }: Props) {
  const set = useSetDatum(jobId);
  const [typed, setTyped] = useState<string | null>(null);
  const [was, setWas] = useState(datum);
  const error = set.error instanceof ApiError ? set.error : null;
  const theirs = error?.status === 409 ? String(error.theirs ?? "") : undefined;
  if (typed === null)
    return (
      <p className="flex flex-wrap items-center gap-x-2 px-4 text-[17px]">
        <span>
          {t("datum.from")} <strong>{datum || t("datum.not_said")}</strong>
        </span>
        {mayWrite && (
          <Button
            look="quiet"
            onClick={() => {
              setTyped(datum);
              setWas(datum);
            }}
          >
            {t("box.change")}
          </Button>
        )}
      </p>
    );

  function submit(event: FormEvent) {
    event.preventDefault();
    set.mutate({ datum: (typed ?? "").trim(), was }, { onSuccess: () => setTyped(null) });
  }

  return (
    <form onSubmit={submit} className="flex flex-wrap items-end gap-2 px-4">
      <Field
        label={t("datum.title")}
        className="min-w-0 flex-1"
        maxLength={120}
        value={typed}
        placeholder={t("datum.example")}
        wrong={theirs === undefined ? error?.message : t("datum.theirs", { theirs })}
        onChange={(event) => setTyped(event.target.value)}
      />
      {/* What another wrote meanwhile has been read now. */}
      <Button
        type="submit"
        look="main"
        disabled={set.isPending}
        onClick={() => theirs !== undefined && setWas(theirs)}
      >
        {t("datum.keep")}
      </Button>
      <Button type="button" look="quiet" onClick={() => setTyped(null)}>
        {t("box.leave")}
      </Button>
    </form>
  );
}
