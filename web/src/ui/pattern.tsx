import { Fragment, type ReactNode } from "react";

const SLOT = /\{\{([\w.]+)\}\}/;

interface Props {
  /** A whole sentence with slots `{{name}}`, in the order of its language. */
  sentence: string;
  /** What stands in each slot. */
  slots: Record<string, ReactNode> | ((name: string) => ReactNode);
}

/** A sentence with controls or marked words in its slots. */
export function Pattern({ sentence, slots }: Props) {
  const put = (name: string) => (typeof slots === "function" ? slots(name) : slots[name]);
  // What is split off by the expression stands at the odd places.
  return sentence.split(SLOT).map((part, at) => (
    // A sentence's parts never change places.
    // biome-ignore lint/suspicious/noArrayIndexKey: see above
    <Fragment key={at}>{at % 2 ? put(part) : part}</Fragment>
  ));
}
