import { HEADINGS, type Heading, sidesOf } from "@/trade/words";
import { Arrow } from "./arrow";
import { Choices, LargeChoice } from "./choices";

interface Props {
  chosen: Heading | undefined;
  onChoose: (way: Heading) => void;
  /** The direction of the leg: what goes along it comes last. */
  along?: Heading;
}

/** The six directions, as one facing the wall sees them. */
export function Directions({ chosen, onChoose, along }: Props) {
  const isAlong = (way: Heading) => along !== undefined && !sidesOf(along).includes(way);
  const ordered = HEADINGS.toSorted(
    (one, other) => Number(isAlong(one.value)) - Number(isAlong(other.value)),
  );
  return (
    <Choices>
      {ordered.map(({ value, label, hint }) => (
        <LargeChoice
          key={value}
          drawn={<Arrow way={value} />}
          says={label}
          hint={hint}
          isOn={value === chosen}
          onChoose={() => onChoose(value)}
        />
      ))}
    </Choices>
  );
}
