import { Link } from "react-router";
import { useNameCrew, usePeople } from "@/api/people";
import { useMe } from "@/api/queries";
import { Shell } from "@/shell/shell";
import { Called } from "@/ui/called";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";
import { CodesOfLeads } from "./codes-of-leads";
import { CrewHistory } from "./crew-history";
import { Invitations } from "./invitations";
import { Members } from "./members";
import { Rights } from "./rights";

/** Who is in the crew. Its lead invites, changes roles and removes. */
export function PeoplePage() {
  const me = useMe().data;
  const people = usePeople();
  const rename = { label: t("crew.rename"), field: t("crew.name"), by: useNameCrew() };
  const leads = me?.role === "lead";
  return (
    <Shell title={t("page.people")}>
      <main className="mx-auto w-full max-w-4xl px-4 py-6">
        <Called
          title={t("page.title", { name: me?.crew ?? "" })}
          name={me?.crew ?? ""}
          rename={leads ? rename : null}
        />
        {people.error && <Notice severity="stop">{people.error.message}</Notice>}
        {people.data && (
          <>
            <Members members={people.data.members} leads={leads} />
            {leads && me && <CodesOfLeads me={me} />}
            {leads && <Invitations open={people.data.invitations} />}
            <Rights rights={people.data.rights} />
            {leads && (
              <p className="mt-6">
                <Link to="/crew/files" className="underline">
                  {t("page.all_data")}
                </Link>
              </p>
            )}
            {leads && <CrewHistory />}
          </>
        )}
      </main>
    </Shell>
  );
}
