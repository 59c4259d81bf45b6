import { useState } from "react";
import type { ApiError } from "@/api/client";
import { useSetNewRuns } from "@/api/people";
import type { Me } from "@/api/types";
import { READINGS, TAPES } from "@/trade/words";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { t } from "@/words/crew";

interface Props {
  newRuns: Me["new_runs"];
  maySet: boolean;
}

const LOOK = "mt-5 rounded-lg border border-line bg-paper px-4 py-3 text-lg";

/** How a run is read when it is begun; those that are there keep their own. */
export function NewRunsForm({ newRuns, maySet }: Props) {
  const [typed, setTyped] = useState(newRuns);
  const set = useSetNewRuns();
  const error = set.error as ApiError | null;
  if (!maySet) {
    const unit = newRuns.feet ? t("new_runs.feet") : "inches";
    return (
      <p className={LOOK}>
        {t("new_runs.sentence", { tape: newRuns.tape, unit, stand_off: newRuns.stand_off })}
      </p>
    );
  }
  const changed = JSON.stringify(typed) !== JSON.stringify(newRuns);
  return (
    <form
      aria-label={t("new_runs.title")}
      className={`${LOOK} flex flex-wrap items-center gap-x-2 gap-y-3`}
      onSubmit={(event) => {
        event.preventDefault();
        set.mutate(typed);
      }}
    >
      <span>
        {t("new_runs.tape_to")}{" "}
        <Select
          label={t("new_runs.tape")}
          value={typed.tape}
          choices={TAPES}
          onChoose={(tape) => setTyped({ ...typed, tape })}
        />{" "}
        {t("new_runs.in")}{" "}
        <Select
          label={t("new_runs.readings")}
          value={typed.feet ? "feet" : "inches"}
          choices={READINGS}
          onChoose={(next) => setTyped({ ...typed, feet: next === "feet" })}
        />
        {t("new_runs.straps")}{" "}
        <TapeField
          label={t("new_runs.stand_off")}
          value={typed.stand_off}
          onChange={(stand_off) => setTyped({ ...typed, stand_off })}
        />
        .
      </span>
      {changed && (
        <Button type="submit" look="main" className="min-h-11" disabled={set.isPending}>
          {t("new_runs.save")}
        </Button>
      )}
      {error && <Notice severity="stop">{error.places.stand_off ?? error.message}</Notice>}
    </form>
  );
}
