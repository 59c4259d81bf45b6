import { useAssign } from "@/api/about";
import { usePeople } from "@/api/people";
import type { Run } from "@/api/types";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { t } from "@/words/layout";

interface Props {
  runId: number;
  assigned: Run["assigned"];
  mayWrite: boolean;
}

const NOBODY = "";

/** For whom of the crew the run is. */
export function ForWhom({ runId, assigned, mayWrite }: Props) {
  const assign = useAssign(runId);
  const people = usePeople().data?.members ?? [];
  const chosen = people.find((one) => one.user_id === assigned?.id);
  const choices = [
    { value: NOBODY, label: t("about.unassigned") },
    ...people
      .filter((one) => one.role !== "viewer")
      .map((one) => ({
        value: String(one.id),
        label: one.me ? t("about.me", { name: one.name }) : one.name,
      })),
  ];
  return (
    <section className="text-[17px]">
      {t("about.assigned")}{" "}
      <Select
        label={t("about.assign_to")}
        value={chosen ? String(chosen.id) : NOBODY}
        choices={choices}
        disabled={!mayWrite || !people.length}
        onChoose={(id) => assign.mutate(id === NOBODY ? null : Number(id))}
      />
      .{assign.error && <Notice severity="stop">{assign.error.message}</Notice>}
    </section>
  );
}
