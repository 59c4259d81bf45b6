import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { ApiError } from "@/api/client";
import { useLetIn } from "@/api/people";
import type { Me } from "@/api/types";
import { t } from "@/words/people";

/** A form that lets somebody in: what is wrong with it, and where; what was typed stays. */
export function useDoor(ask: () => Promise<Me>) {
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<ApiError>();
  const letIn = useLetIn();
  const navigate = useNavigate();
  async function enter(event?: FormEvent) {
    event?.preventDefault();
    setBusy(true);
    setError(undefined);
    try {
      await letIn(await ask());
      navigate("/", { replace: true });
    } catch (wrong) {
      setError(wrong instanceof ApiError ? wrong : new ApiError(0, t("door.wrong")));
    } finally {
      setBusy(false);
    }
  }
  return { busy, says: error?.message, wrong: error?.places ?? {}, enter };
}
