import { useMe } from "@/api/queries";
import { Shell } from "@/shell/shell";
import { t } from "@/words/people";
import { MyCrews } from "./my-crews";
import { MyNames } from "./my-names";
import { MyPassword } from "./my-password";
import { MyProvider } from "./my-provider";
import { MySecondFactor } from "./my-second-factor";
import { MySessions } from "./my-sessions";

/** A person's own name, password, crews, and where they are signed in. */
export function MePage() {
  const me = useMe().data;
  if (!me) return null;
  return (
    <Shell title={t("page.me")}>
      <main className="mx-auto w-full max-w-3xl px-4 py-6">
        <h1 className="text-3xl font-bold">{me.name}</h1>
        <div className="grid gap-8 sm:grid-cols-2">
          <MyNames key={me.username} me={me} />
          <MyPassword />
        </div>
        <MySecondFactor />
        <MyProvider />
        <MyCrews me={me} />
        <MySessions />
      </main>
    </Shell>
  );
}
