import { Button } from "@/ui/button";
import { RemoveIcon } from "@/ui/icons";

/** Asks for a figure that most sentences do without. */
export function AddFigure({ says, onAdd }: { says: string; onAdd: () => void }) {
  return (
    <Button look="quiet" className="ml-1 min-h-9 px-1! align-baseline" onClick={onAdd}>
      {says}
    </Button>
  );
}

/** Takes such a figure out again. */
export function TakeOut({ says, onTake }: { says: string; onTake: () => void }) {
  return (
    <Button look="quiet" className="min-h-9 px-0!" aria-label={says} onClick={onTake}>
      <RemoveIcon width={16} height={16} />
    </Button>
  );
}
