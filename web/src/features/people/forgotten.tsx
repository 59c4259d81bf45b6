import { useState } from "react";
import { useAskForPasswordLink } from "@/api/people";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";

/** What to do about a forgotten password: the lead's link, or one by mail where the server sends mail. */
export function Forgotten({ knownAs, mail }: { knownAs: string; mail: boolean }) {
  const [open, setOpen] = useState(false);
  const ask = useAskForPasswordLink();
  if (!open)
    return (
      <Button look="quiet" className="mt-3 min-h-11 self-start" onClick={() => setOpen(true)}>
        Forgot the password?
      </Button>
    );
  return (
    <div className="mt-4 flex flex-col items-start gap-3">
      <p>Your crew’s lead makes a link by which you set a new one.</p>
      {mail && !ask.isSuccess && (
        <>
          <p>Or type your name, or your e-mail address, above as the name:</p>
          <Button
            className="min-h-11"
            disabled={!knownAs.trim() || ask.isPending}
            onClick={() => ask.mutate(knownAs)}
          >
            Send me a link by mail
          </Button>
        </>
      )}
      {ask.error && <Notice severity="stop">{ask.error.message}</Notice>}
      {ask.isSuccess && (
        <p role="status">
          If that name has an e-mail address here, a link is on its way. It is good for three days.
        </p>
      )}
    </div>
  );
}
