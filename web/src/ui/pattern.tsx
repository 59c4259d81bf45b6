import { Fragment, type ReactNode } from "react";

const SLOT = /\{\{([\w.]+)\}\}/;

interface Props {
  /** A whole sentence with slots `{{name}}`, in the order of its language. */
  sentence: string;
  slot: (name: string) => ReactNode;
}

/** A sentence with controls or marked words in its slots. */
export function Pattern({ sentence, slot }: Props) {
  // What is split off by the expression stands at the odd places.
  return sentence.split(SLOT).map((part, at) => (
    // A sentence's parts never change places.
    // biome-ignore lint/suspicious/noArrayIndexKey: see above
    <Fragment key={at}>{at % 2 ? slot(part) : part}</Fragment>
  ));
}
