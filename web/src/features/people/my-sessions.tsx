import { useSessions, useSignOutElsewhere, useSignOutThere } from "@/api/people";
import { Button } from "@/ui/button";
import { timeOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";

/** Where a person is signed in. */
export function MySessions() {
  const sessions = useSessions();
  const there = useSignOutThere();
  const elsewhere = useSignOutElsewhere();
  const error = sessions.error ?? there.error ?? elsewhere.error;
  const all = sessions.data ?? [];
  return (
    <section aria-labelledby="sessions" className="mt-8">
      <h2 id="sessions" className="text-xl font-bold">
        {t("sessions.title")}
      </h2>
      {error && <Notice severity="stop">{error.message}</Notice>}
      <ul className="mt-2 rounded-lg border border-line bg-paper">
        {all.map((one) => (
          <li
            key={one.id}
            className="flex flex-wrap items-center gap-x-4 border-b border-line/60 px-4 py-2 last:border-b-0"
          >
            <span className="min-w-48 grow text-lg">
              <span className="font-semibold">{one.device}</span>
              {one.address && (
                <span className="text-soft"> {t("sessions.from", { address: one.address })}</span>
              )}
              <span className="block text-[15px] text-soft">
                {one.here ? t("sessions.this") : t("sessions.last_used", { time: timeOf(one.last) })}
              </span>
            </span>
            {!one.here && (
              <Button className="min-h-11" disabled={there.isPending} onClick={() => there.mutate(one.id)}>
                {t("sessions.sign_out")}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {all.length > 1 && (
        <Button
          className="mt-3 min-h-11"
          disabled={elsewhere.isPending}
          onClick={() => elsewhere.mutate(undefined)}
        >
          {t("sessions.sign_out_others")}
        </Button>
      )}
    </section>
  );
}
