import { type FormEvent, useState } from "react";
import { useMakeSeries } from "@/api/job-queries";
import { Button } from "@/ui/button";
import { CheckBox } from "@/ui/check-box";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/jobs";

const [FEWEST, MOST] = [2, 50];

/** How many runs like one there are to be. */
export function Series({ runId, onDone }: { runId: number; onDone: () => void }) {
  const series = useMakeSeries();
  const [typed, setTyped] = useState("");
  const [ownBoxes, setOwnBoxes] = useState(true);
  const count = Number(typed);
  const isCount = Number.isInteger(count) && count >= FEWEST && count <= MOST;
  function submit(event: FormEvent) {
    event.preventDefault();
    if (isCount) series.mutate({ id: runId, count, own_boxes: ownBoxes }, { onSuccess: onDone });
  }
  return (
    <form onSubmit={submit} className="flex basis-full flex-wrap items-end gap-2 px-4 pb-2">
      <Field
        label={t("series.count")}
        inputMode="numeric"
        autoFocus
        className="w-40"
        value={typed}
        wrong={typed && !isCount ? t("series.range", { least: FEWEST, most: MOST }) : undefined}
        onChange={(event) => setTyped(event.target.value)}
      />
      <CheckBox checked={ownBoxes} onCheck={setOwnBoxes}>
        {t("series.own_boxes")}
      </CheckBox>
      <Button type="submit" look="main" className="min-h-11" disabled={!isCount || series.isPending}>
        {t("series.make")}
      </Button>
      <Button look="quiet" className="min-h-11" onClick={onDone}>
        {t("series.none")}
      </Button>
      {series.error && <Notice severity="stop">{series.error.message}</Notice>}
    </form>
  );
}
