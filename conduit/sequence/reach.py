"""What can be bent when: room for the shoe on straight pipe, and bent pipe clear of floor and handle.

For a bend about to be made the pipe lies along x, hook at the near side, the bend's inside toward y. On
the floor the inside is up: what stands off below the floor line is in the way, before the bend or while the
hook's side rises. Over an edge it is as on the floor, but that what stands off on one side may hang free there. In
the air the shoe is up, its handle on the floor, and the pipe is pushed down: the inside is down, and what stands off
that way, before the bend or while the heel's side comes down, must not reach the floor. A machine has its body under
the pipe, and no handle; the bend's plane lies level, or stands upright with its inside up (docs/trade.md, Ways of
bending). Inches; radians.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from conduit.bender import Hook, Shoe
from conduit.catalogue import NOTHING, Message, joined, message
from conduit.kernels import HOOKS, Clear, ClearOfAll
from conduit.units import Radians

# With what an angle computed from lengths may be out by: a bend of 15° is slight however it was measured.
SLIGHT = math.radians(15) + 1e-6
Obstruction = Message


@dataclass(frozen=True)
class Unit:
    """A bend, or a sweep's shots together, on a piece.

    `start` and `end`: its arc along the straight pipe, in inches; angle and roll in radians; `hook`: the end that the
    shoe's hook faces by habit.
    """

    called: Message
    start: float
    end: float
    angle: Radians
    roll: Radians
    hook: Hook = "A"

    @property
    def radius(self) -> float:
        """The centreline radius; a sweep's is larger than the shoe's."""
        return (self.end - self.start) / self.angle

    @property
    def slight(self) -> bool:
        """Whether hook or heel may lie over it, or hang over an end for it (docs/trade.md, Room for the shoe)."""
        return self.angle <= SLIGHT


@dataclass(frozen=True)
class ShoeRoom:
    """Straight pipe for the shoe: by unit and hook, which other bends leave too little of it once they are made.

    `too_near` as bits, one a unit; `off_pipe`: where hook or heel would hang over an end of the piece (docs/trade.md,
    Room for the shoe).
    """

    called: tuple[Message, ...]
    too_near: dict[tuple[int, Hook], int]
    off_pipe: frozenset[tuple[int, Hook]]

    def obstruction(self, unit: int, hook: Hook, done: int) -> Obstruction:
        """Why there is no room, or nothing."""
        if (unit, hook) in self.off_pipe:
            return message("order.no_pipe")
        near = self.too_near[unit, hook] & done
        if not near:
            return NOTHING
        names = [name for number, name in enumerate(self.called) if near >> number & 1]
        return message("order.no_room", bends=joined(names, message("order.and")))


def room_for(units: Sequence[Unit], shoe: Shoe, length: float) -> ShoeRoom:
    """Where the shoe finds straight pipe on a piece of `length` inches (docs/trade.md, Room for the shoe).

    A bend above 15° needs the shoe's straight ahead of the arrow and behind the arc, a slighter one only the contact
    from arrow to arc's end. Whether another bend is in the way does not depend on the rest: so pairs are enough.
    """
    near: dict[tuple[int, Hook], int] = {}
    off: set[tuple[int, Hook]] = set()
    for number, unit in enumerate(units):
        for hook in HOOKS:
            others = ((i, other) for i, other in enumerate(units) if i != number)
            near[number, hook] = sum(1 << i for i, other in others if _in_the_way(unit, other, hook, shoe))
            low, high = (_contact if unit.slight else _grip)(unit, hook, shoe)
            if low < 0 or high > length:
                off.add((number, hook))
    return ShoeRoom(tuple(unit.called for unit in units), near, frozenset(off))


def _contact(unit: Unit, hook: Hook, shoe: Shoe) -> tuple[float, float]:
    """Where the shoe bears on the pipe: from the arrow to the end of the arc. It must be straight, and pipe."""
    ahead = max(0.0, shoe.arc_offset)
    return (unit.start - ahead, unit.end) if hook == "A" else (unit.start, unit.end + ahead)


def _grip(unit: Unit, hook: Hook, shoe: Shoe) -> tuple[float, float]:
    """The same with the hook ahead of the arrow, and the heel behind the arc."""
    before, behind = shoe.straight_ahead, shoe.straight_behind
    return (unit.start - before, unit.end + behind) if hook == "A" else (unit.start - behind, unit.end + before)


def _in_the_way(unit: Unit, other: Unit, hook: Hook, shoe: Shoe) -> bool:
    """Whether another bend, once made, leaves no room for the shoe.

    A slight bend may lie under the hook or the heel, as the second bend of a box offset has it.
    """
    low, high = (_contact if other.slight else _grip)(unit, hook, shoe)
    return other.end > low and other.start < high


def obstruction(room: ShoeRoom, clear: Clear, unit: int, hook: Hook, done: int, row: int) -> Obstruction:
    """Why a bend cannot be made when `done` is, or nothing; `row`: that set's among those that `clear` is of."""
    found = room.obstruction(unit, hook, done)
    if found or clear.way(row):
        return found
    if clear.strikes_handle(row):
        return message("order.handle")
    return message("order.machine" if "machine" in clear.ways else "order.floor_and_air")


@dataclass(frozen=True)
class Reach:
    """Which bends can be made in which ways, for every set of bends done.

    Sets are bits of an integer, one a unit; what `clear` gives has 2ⁿ rows, the set being the row's number.
    """

    room: ShoeRoom
    clear: ClearOfAll

    def at(self, unit: int, hook: Hook, done: int) -> tuple[Clear, int]:
        """What is clear for a bend, and in which row of it a set of bends done stands."""
        return self.clear.of(unit, hook), done

    def obstruction(self, unit: int, hook: Hook, done: int) -> Obstruction:
        """Why the bend cannot be made now, or nothing."""
        return obstruction(self.room, self.clear.of(unit, hook), unit, hook, done, done)


def reach_of(units: Sequence[Unit], shoe: Shoe, length: float) -> Reach:
    """Work out what can be bent when on a piece of `length` inches, for all 2ⁿ sets of its n bends."""
    return Reach(room_for(units, shoe, length), ClearOfAll(shoe, units, length))
