"""A stick as its bends come out one by one: what each was to be, what was read, what the rest is to be then.

Bends are named by their index in the run. Inches; angles in radians inside, degrees where they were read.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from conduit.bench import Reading, is_ninety, readings_on
from conduit.correct import HANDS_ANGLE, HANDS_MARK, AsBent, Correction, Piece, as_read, correct
from conduit.sheet_results import Made
from conduit.shoe import Hook
from conduit.simulate import Setting, arc_of
from conduit.stick import Stick

MOST_OFF = math.radians(6)
HALVINGS = 8


@dataclass(frozen=True)
class State:
    """A stick after some of its bends: what each was or is to be, how each is, what was read, what to do."""

    targets: dict[int, Setting]
    real: dict[int, Setting]
    readings: tuple[AsBent, ...]
    correction: Correction | None


# What was found after so many bends were made and read so, some of them left as they are.
States = dict[tuple[tuple[tuple[int, float, float | None], ...], tuple[int, ...]], State]


class AsMade:
    """Follows a stick through the bends that are made, in the order in which they were."""

    def __init__(
        self,
        stick: Stick,
        planned: Mapping[int, Setting],
        sequence: Sequence[int],
        hooks: Mapping[int, Hook],
        made: Sequence[Made],
        known: States,
    ) -> None:
        self.stick, self.planned, self.sequence, self.hooks = stick, dict(planned), list(sequence), hooks
        self.made = {one.bend - 1: one for one in made if one.bend - 1 in self.planned}
        self.known = known
        self.order = list(self.made)
        self.places = {index: place for place, index in enumerate(self.planned)}

    @cached_property
    def states(self) -> list[State]:
        """The stick before any bend, and after each that is made."""
        states = [State(dict(self.planned), dict(self.planned), (), None)]
        left = tuple(index for index, one in self.made.items() if one.left)
        so_far: tuple[tuple[int, float, float | None], ...] = ()
        for index, one in self.made.items():
            so_far = (*so_far, (index, one.angle, one.tape))
            if (so_far, left) not in self.known:
                self.known[so_far, left] = self._after(states[-1], index, one)
            states.append(self.known[so_far, left])
        return states

    def _after(self, before: State, index: int, one: Made) -> State:
        readings = (*before.readings, AsBent(self.places[index], one.angle, self.further(before, index, one)))
        left = frozenset(self.places[other] for other, made in self.made.items() if made.left)
        found = correct(list(before.targets.values()), readings, self.stick.piece, left)
        read = {reading.bend: reading for reading in readings}
        real = dict(zip(self.planned, found.settings, strict=True))
        if found.advice in ("rebend", "scrap"):
            real = {number: as_read(target, read.get(self.places[number])) for number, target in before.targets.items()}
        targets = {
            number: target if self.places[number] in read else real[number] for number, target in before.targets.items()
        }
        return State(targets, real, readings, found)

    def state_before(self, index: int) -> State:
        """The stick when a bend was made, or as it is now for one that is not."""
        return self.states[self.order.index(index)] if index in self.made else self.states[-1]

    def made_before(self, index: int) -> list[int]:
        """What is bent already when a bend is made: as it was, or as the order has it."""
        if index in self.made:
            return self.order[: self.order.index(index)]
        before = self.sequence[: self.sequence.index(index)]
        return self.order + [other for other in before if other not in self.made]

    def readings(self, state: State, index: int, setting: Setting) -> list[Reading]:
        """What tools read right after a bend that is set so, on the pipe as it then is."""
        real = {number: state.real[number] for number in self.made_before(index)} | {index: setting}
        real = dict(sorted(real.items()))
        arcs = {number: arc_of(one, self.stick.shoe) for number, one in real.items()}
        all_made = len(real) == len(self.planned)
        return readings_on(self.stick.bench, self.stick.bent(real), arcs, index, self.stick.length, all_made)

    def further(self, state: State, index: int, one: Made) -> float:
        """How much further from end A a bend lies than it was to, from what the tape read; 0 where it was not."""
        setting = replace(state.targets[index], angle=math.radians(one.angle))
        reading = asked(self.readings(state, index, setting))
        if one.tape is None or not reading or reading.inches is None:
            return 0.0
        out = one.tape - reading.inches
        return out / math.sin(setting.angle) if reading.kind == "rise" else out

    def band(self, state: State, index: int) -> tuple[float, float]:
        """Between which angles (degrees) the pipe still fits with all else as planned; at least what hands can do."""
        target = state.targets[index]
        settings = list({**state.real, index: target}.values())
        under, over = (_farthest(self.stick.piece, settings, self.places[index], sign) for sign in (-1, 1))
        return math.degrees(target.angle - under), math.degrees(target.angle + over)

    def within(self, index: int) -> bool:
        """Whether a bend that is made came right: nothing needed doing, or it is as near as hands get."""
        state, one = self.state_before(index), self.made[index]
        after = self.states[self.order.index(index) + 1].correction
        if after and after.advice == "go_on":
            return True
        least, most = self.band(state, index)
        return least <= one.angle <= most and abs(self.further(state, index, one)) <= HANDS_MARK + 1e-9

    def shown(self, index: int) -> tuple[Literal["deduct", "gain"] | None, float]:
        """Which figure of the shoe a 90's tape reading shows, and how much larger it was than the one in use.

        Behind end A it is the deduct; between two backs, both hooks toward A, the gain.
        """
        bench, one = self.stick.bench, self.made[index]
        if one.tape is None or not is_ninety(bench, index) or self.hooks[index] != "A":
            return None, 0.0
        further = self.further(self.state_before(index), index, one)
        before = [other for other in self.made_before(index) if other < index]
        if not before:
            return "deduct", further
        neighbour = index - 1
        if max(before) == neighbour and is_ninety(bench, neighbour) and self.hooks[neighbour] == "A":
            return "gain", further - self.states[-1].readings[self.order.index(neighbour)].further
        return None, 0.0


def asked(readings: Sequence[Reading]) -> Reading | None:
    """The tape reading that tells where a bend really came."""
    return next((one for one in readings if one.kind in ("back", "rise")), None)


def _farthest(piece: Piece, settings: Sequence[Setting], place: int, sign: int) -> float:
    """How far (radians) a bend may be off to one side while the pipe still fits, by halving; at least as hands are."""

    def fits(off: float) -> bool:
        changed = list(settings)
        changed[place] = replace(settings[place], angle=settings[place].angle + sign * off)
        return piece.fits(piece.bent(changed))

    if not fits(HANDS_ANGLE):
        return HANDS_ANGLE
    low, high = HANDS_ANGLE, MOST_OFF
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        low, high = (middle, high) if fits(middle) else (low, middle)
    return low
