import { useLeaveProvider, useMyProvider } from "@/api/people";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";
import { ByProvider, ToldByProvider } from "./by-provider";

/** Signing in by the company's own account, where the server knows one. */
export function MyProvider() {
  const mine = useMyProvider().data;
  const leave = useLeaveProvider();
  if (!mine?.name) return null;
  const { name, connected } = mine;
  return (
    <section aria-labelledby="company-sign-in" className="mt-8">
      <h2 id="company-sign-in" className="text-xl font-bold">
        {t("provider.title")}
      </h2>
      <ToldByProvider name={name} />
      {leave.error && <Notice severity="stop">{leave.error.message}</Notice>}
      <div className="mt-2 flex flex-wrap items-center gap-4">
        <p className="min-w-56 flex-1">
          {connected ? t("provider.connected", { name }) : t("provider.offer", { name })}
        </p>
        {connected ? (
          <Button className="min-h-11" disabled={leave.isPending} onClick={() => leave.mutate(undefined)}>
            {t("provider.disconnect")}
          </Button>
        ) : (
          <ByProvider says={t("provider.connect")} asked={{ connect: "1" }} className="min-h-11" />
        )}
      </div>
    </section>
  );
}
