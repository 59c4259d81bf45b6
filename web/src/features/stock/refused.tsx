import { ApiError } from "@/api/client";
import { Notice } from "@/ui/notice";

/** Why what was typed was not taken: what is wrong with the length, else what is wrong at all. */
export function Refused({ error }: { error: Error }) {
  return (
    <Notice severity="stop">{(error instanceof ApiError && error.places.length) || error.message}</Notice>
  );
}
