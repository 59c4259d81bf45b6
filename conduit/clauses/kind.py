"""What the table tells of a kind of step: the figures that it asks for, and its clauses as whole patterns with slots.

A pattern of a note is text with slots `{field}` and optional parts `[ at {angle}]`; a sentence's pattern stands in the
catalogue by its key. Word order is the pattern's, in the note and in each language.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from conduit.clauses.conditions import ALWAYS, Condition
from conduit.document import StepPart

# What a new step takes from the run around it: a direction across its leg, outward where that lies across, the surface
# behind it, and the end of the run that is nearer.
Proposed = Literal["across", "outward", "surface", "box_end"]
PROPOSED: tuple[Proposed, ...] = ("across", "outward", "surface", "box_end")


@dataclass(frozen=True)
class Usual:
    """A figure that is usual, on a tape of inches and on one of millimetres."""

    inches: str
    mm: str


Begins = str | int | Usual


@dataclass(frozen=True)
class Ask:
    """A field in its place in the order of asking; nested ones by a dotted key.

    `begins`: what a new step has there, where it has it at all (empty: to be measured); `offered`: figures to pick
    from; `late`: few change it, so that Enter passes it over.
    """

    key: str
    begins: Begins | None = None
    offered: tuple[str, ...] = ()
    late: bool = False


@dataclass(frozen=True)
class Clause:
    """A clause: how a note has it, which sentence of the interface says it, and when it applies.

    `note` is read and written, `also` is read too; `sets`: what reading it says besides its slots, where nothing else
    does. `says`: the key of its sentence, none where another clause shows it. `example`: a whole line, of a clause that
    begins one. `on_request`: a step at rest goes without it, but for where it applies. `adds`: fields that come and go
    together, by a button.
    """

    note: str = ""
    also: tuple[str, ...] = ()
    when: Condition = ALWAYS
    sets: Mapping[str, str] = field(default_factory=dict)
    says: str = ""
    example: str = ""
    on_request: bool = False
    adds: tuple[str, ...] = ()


@dataclass(frozen=True)
class WayToGive:
    """One way to give a figure: when it is the one taken, what choosing it sets and begins, and its clauses."""

    key: str
    when: Condition
    clauses: tuple[Clause, ...]
    begins: Mapping[str, Begins]
    sets: Mapping[str, str] = field(default_factory=dict)


# Where the tape lies in a kind's drawing: its hook, and where it is read.
TapeLine = tuple[float, float, float, float]


@dataclass(frozen=True)
class StepKind:
    """A kind of step.

    `place`: in a menu, the most usual first; `profile`: a drawing of it, 34 wide and 22 high; `tapes`: where in it the
    tape lies for a length, by its field, and by the choice that says to where it reads (`at.centre`); `told_by`: the
    field that tells it from kinds whose lines begin alike.
    """

    model: type[StepPart]
    place: int
    profile: str
    asks: tuple[Ask, ...]
    clauses: tuple[Clause, ...]
    ways: Mapping[str, tuple[WayToGive, ...]] = field(default_factory=dict)
    tapes: Mapping[str, TapeLine] = field(default_factory=dict)
    told_by: str = ""

    @property
    def name(self) -> str:
        """The kind as a document names it."""
        return str(self.model.model_fields["kind"].annotation.__args__[0])  # type: ignore[union-attr]
