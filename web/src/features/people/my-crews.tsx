import { useNavigate } from "react-router";
import { useLetIn, usePeople, useRemoveMember, ways } from "@/api/people";
import type { Me } from "@/api/types";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";

/** The crews that a person is in: work in another, or leave the one they work in. */
export function MyCrews({ me }: { me: Me }) {
  const letIn = useLetIn();
  const navigate = useNavigate();
  const people = usePeople();
  const leave = useRemoveMember();
  const mine = people.data?.members.find((member) => member.me);
  async function workIn(id: number) {
    await letIn(await ways.switchCrew(id));
    navigate("/");
  }
  return (
    <section aria-labelledby="crews" className="mt-8">
      <h2 id="crews" className="text-xl font-bold">
        {t("crews.title")}
      </h2>
      <ul className="mt-2 rounded-lg border border-line bg-paper">
        {me.crews.map((crew) => (
          <li
            key={crew.id}
            className="flex flex-wrap items-center gap-x-4 border-b border-line/60 px-4 py-2 last:border-b-0"
          >
            <span className="grow text-lg">
              <span className="font-semibold">{crew.name}</span>
              {t("invite.as_role", { role: crew.role })}
            </span>
            {crew.id !== me.crew_id && (
              <Button className="min-h-11" onClick={() => workIn(crew.id)}>
                {t("crews.work")}
              </Button>
            )}
            {crew.id === me.crew_id && mine && (
              <>
                <span className="text-soft">{t("crews.now")}</span>
                <Confirm
                  trigger={<Button className="min-h-11">{t("cancel")}</Button>}
                  title={t("crews.leave.ask", { crew: crew.name })}
                  says={t("crews.leave.says")}
                  act={t("crews.leave")}
                  keep={t("crews.stay")}
                  onAct={() => leave.mutate(mine.id, { onSuccess: () => window.location.assign("/") })}
                />
              </>
            )}
          </li>
        ))}
      </ul>
      {leave.error && <Notice severity="stop">{leave.error.message}</Notice>}
    </section>
  );
}
