"""From the centreline and the shoe to pencil marks (docs/trade.md, The shoe).

With the hook facing A and the arrow on `s` the arc is [s + a, s + a + Rθ]; facing B it is
[s - a - Rθ, s - a]. A mark for another reference is the arrow's, moved by that reference's distance
toward the heel, which is away from where the hook faces.
"""

from dataclasses import dataclass

from conduit.bender import Hook, Reference, Shoe
from conduit.catalogue import Message, message


@dataclass(frozen=True)
class Mark:
    """A pencil mark `at` inches from the pipe's end A, for one reference and one way of the hook."""

    reference: Reference
    hook: Hook
    at: float


def marks_of_arc(start: float, end: float, shoe: Shoe) -> tuple[Mark, ...]:
    """All marks that put an arc from `start` to `end` on the straight pipe."""
    references = shoe.references().items()
    hooks: tuple[Hook, Hook] = ("A", "B")
    return tuple(
        Mark(reference, hook, _at(start, end, shoe, distance, hook))
        for hook in hooks
        for reference, distance in references
    )


def _at(start: float, end: float, shoe: Shoe, distance: float, hook: Hook) -> float:
    """Where the mark stands for a reference so far from the arrow, toward the heel."""
    return start - shoe.arc_offset + distance if hook == "A" else end + shoe.arc_offset - distance


def mark_of_arc(start: float, end: float, shoe: Shoe, reference: Reference, hook: Hook) -> Mark:
    """The mark of one reference and hook that puts an arc from `start` to `end` on the pipe; inches from end A.

    The inverse of the simulation's `arc_of`: start - a + distance with the hook toward A, end + a - distance toward
    B, `a` being the shoe's arc offset (docs/trade.md, The shoe). Raises KeyError for a reference that the shoe has
    not.
    """
    distance = shoe.distance(reference, (end - start) / shoe.radius)
    return Mark(reference, hook, _at(start, end, shoe, distance, hook))


@dataclass(frozen=True)
class Recommended:
    """The mark that is proposed for a bend, and why."""

    mark: Mark
    reason: Message


def recommend(
    start: float,
    end: float,
    shoe: Shoe,
    length: float,
    saddle: tuple[int, float] | None = None,
    hook: Hook | None = None,
) -> Recommended:
    """Which reference and hook to use for an arc from `start` to `end` on a piece of `length`, in the trade's habit.

    `saddle` is the bend's number within a three-bend saddle (0, 1, 2) and the centre's angle in degrees; `hook`: where
    it must face one end. A mark that is not on the pipe is taken only where no other is.
    """
    for reference, faces, key in (*_saddle_habits(saddle), *_HABITS):
        mark = mark_of_arc(start, end, shoe, reference, faces)
        if hook in (None, faces) and 0 <= mark.at <= length:
            return Recommended(mark, message(key))
    return Recommended(mark_of_arc(start, end, shoe, "arrow", hook or "A"), message("use.none"))


# By which reference and hook, and the message that says why.
_HABITS: tuple[tuple[Reference, Hook, str], ...] = (
    ("arrow", "A", "use.arrow_a"),
    ("arrow", "B", "use.arrow_b"),
    ("star", "A", "use.star_a"),
    ("star", "B", "use.star_b"),
)


def _saddle_habits(saddle: tuple[int, float] | None) -> tuple[tuple[Reference, Hook, str], ...]:
    if saddle is None:
        return ()
    number, centre = saddle
    if number == 1 and abs(centre - 45) < 0.5:
        return (("notch", "A", "use.notch"),)
    if number == 1:
        return (("arrow", "A", "use.no_notch"),)
    hook: Hook = "B" if number == 0 else "A"
    return (("arrow", hook, "use.outer"),)


@dataclass(frozen=True)
class StubHabits:
    """The same stub done by other habits, all in inches from the pipe's end (docs/trade.md, 90)."""

    burnt_deduct: float
    burnt_mark: float
    slide_to: float
    front_edge: float | None


def stub_habits(height: float, shoe: Shoe) -> StubHabits:
    """A stub of `height` to its back, without the subtraction, without a mark, or on the front edge.

    Burnt: hold the tape's `burnt_deduct` at the pipe's end and mark at the full height. No mark: slide
    the tape in the shoe until the arrow reads `slide_to`. Front edge: height less its own, larger deduct.
    """
    front = shoe.front_deduct
    return StubHabits(shoe.deduct, height, height - shoe.deduct, None if front is None else height - front)
