"""How the ends of a bar are, which of them the tape is hooked on, and what is cut off first. Sixteenths of an inch."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from conduit.tables import Material

End = Literal["factory", "cut", "threaded", "rough", "bent"]
ENDS: tuple[End, ...] = get_args(End)
# Ends that serve as they are: a rough one is not square, at a bent one the pipe goes on in a bend.
TRUE_ENDS: tuple[End, ...] = ("factory", "cut", "threaded")


@dataclass(frozen=True)
class BarEnds:
    """A bar's two ends as it is cut: `begin`, on which the tape is hooked, and the `far` one.

    `square`: what comes off the begin first; `off_far`: what is not trusted at the far end.
    """

    mark: Literal["A", "B"]
    begin: End
    far: End
    square: int
    off_far: int

    @classmethod
    def of(cls, ends: Sequence[End], material: Material, square: int) -> "BarEnds":
        """Which end is begun on: the best one; on pipe that is threaded best one that has its thread.

        `square`: what a squaring cut takes off a rough end, the blade with it. At a bend the saw goes where the
        straight ends, the blade on the bend's side, and nothing is lost; at the far end a sixteenth, so that it must.
        """
        first, last = ends
        first_off, last_off = (square if end == "rough" else 0 for end in ends)
        if _worth(last, material) > _worth(first, material):
            return cls("B", last, first, last_off, first_off or int(first == "bent"))
        return cls("A", first, last, first_off, last_off or int(last == "bent"))

    @property
    def is_squared(self) -> bool:
        """Whether a saw must make the begin before anything is measured from it."""
        return self.begin not in TRUE_ENDS


def _worth(end: End, material: Material) -> int:
    if end not in TRUE_ENDS:
        return 0 if end == "rough" else -1
    return 1 if end == "cut" or material == "EMT" else 2
