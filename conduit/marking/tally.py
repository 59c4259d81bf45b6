"""Where a person's sum by the card stands, and what comes of it: marks, ways, steps, the length to cut."""

from dataclasses import dataclass, field

from conduit.bender import Hook, Reference, Shoe
from conduit.catalogue import NOTHING, Message, message
from conduit.marking.sums import Sums
from conduit.units import Degrees


@dataclass(frozen=True)
class CardMark:
    """A mark by the card: from the pipe's end A, with reference, hook and angle."""

    at: float
    reference: Reference
    hook: Hook
    angle: Degrees


@dataclass(frozen=True)
class CardWay:
    """One way in which crews mark and set a step, with the sentences that are its own."""

    name: Message
    marks: tuple[CardMark, ...]
    lines: tuple[Message, ...] = ()


@dataclass(frozen=True)
class CardStep:
    """What the card gives for one step: the sums before and after that all ways share, and the ways, the usual first.

    `shrink` and `spacing` where the card has them. No ways: the card does not know this step.
    """

    step: int
    ways: tuple[CardWay, ...]
    lines: tuple[Message, ...]
    after: tuple[Message, ...]
    spacing: float | None = None
    shrink: float | None = None

    @property
    def marks(self) -> tuple[CardMark, ...]:
        """The usual way's marks."""
        return self.ways[0].marks if self.ways else ()


@dataclass(frozen=True)
class CardRun:
    """The card's answers step by step, and the length to cut with its sums; None where a step is not on the card."""

    steps: tuple[CardStep, ...]
    cut: float | None
    cut_lines: tuple[Message, ...]


@dataclass
class Tally:
    """Where the person's sum stands: `so_far` plus a measure on this leg is a place on the pipe."""

    shoe: Shoe
    stand_off: float
    sums: Sums
    so_far: float = 0.0
    half: float = 0.0
    turned: bool = False
    known: bool = True
    own: list[CardWay] = field(default_factory=list)

    def at(self, what: str, word: str, measure: float, *more: tuple[str, float], then: Message = NOTHING) -> float:
        """A place on the pipe: what is used so far, a measure on this leg, and what else is added or taken off."""
        begun = [("so_far", self.so_far)] if self.so_far else []
        return self.sums.add(what, *begun, (word, measure), *more, then=then)

    def shrunk(self, shrink: float, what: str = "shrink") -> None:
        """From here on the pipe has used up more than the tape along it shows."""
        self.so_far = self.sums.add("from_here", ("so_far", self.so_far), (what, shrink))

    def turn(self, back: float, gain: float, from_centre: bool = False) -> None:
        """After a 90 with its back at `back`: the next leg is measured from there, and the gain comes off."""
        more = [("half_diameter", self.half)] if from_centre else []
        called = "next_leg_centre" if from_centre else "next_leg"
        self.so_far = self.at(called, "to_back", back, ("gain", -gain), *more)
        self.turned = True

    def way(self, by: str, *marks: CardMark) -> None:
        """One way to mark and set the step, with the sentences since the last."""
        self.own.append(CardWay(message(f"by.{by}"), marks, tuple(self.sums.taken())))
