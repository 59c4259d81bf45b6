import type { Announcements, ScreenReaderInstructions, UniqueIdentifier } from "@dnd-kit/core";
import { t } from "@/words/ui";

const HOW: ScreenReaderInstructions = { draggable: t("drag.keys") };

/** What is dragged, by keys or otherwise, told in words: what it is and to which place it would go. */
export function announced(ids: readonly UniqueIdentifier[], nameOf: (at: number) => string) {
  const name = (id: UniqueIdentifier) => nameOf(ids.indexOf(id));
  const place = (id: UniqueIdentifier) => ids.indexOf(id) + 1;
  const announcements: Announcements = {
    onDragStart: ({ active }) => t("drag.taken", { name: name(active.id), place: place(active.id) }),
    onDragOver: ({ active, over }) =>
      over ? t("drag.over", { name: name(active.id), place: place(over.id) }) : undefined,
    onDragEnd: ({ active, over }) =>
      over
        ? t("drag.put", { name: name(active.id), place: place(over.id) })
        : t("drag.left", { name: name(active.id) }),
    onDragCancel: ({ active }) => t("drag.left", { name: name(active.id) }),
  };
  return { announcements, screenReaderInstructions: HOW };
}
