import { replaceEqualDeep } from "@tanstack/react-query";
import { useRef } from "react";
import { rackFindings } from "@/features/layout/rack/rack-findings";
import { placed, readUnder, useFocus, usePlanned, useWork } from "@/features/layout/run-context";
import { t } from "@/words/layout";
import type { StepContext } from "./step-context";

/** What is to be known of a step of the run by whatever shows it; what is unchanged stays the same object. */
export function useContextOf(index: number): StepContext {
  const { draft, mayWrite } = useWork();
  const { plan, rack } = usePlanned();
  const { chosen } = useFocus();
  const place = `steps.${index}`;
  return useSame({
    place,
    called: t("step.called", { index: index + 1 }),
    mayWrite,
    chosen: chosen === index,
    racked: Boolean(draft.document.rack),
    findings: [...placed(plan?.findings, place), ...placed(rackFindings(rack), place)],
    read: readUnder(plan, place),
  });
}

/** The value of before as long as it says the same. */
export function useSame<Value>(value: Value): Value {
  const last = useRef(value);
  last.current = replaceEqualDeep(last.current, value);
  return last.current;
}
