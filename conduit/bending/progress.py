"""A stick as its bends come out one by one: what each was to be, what was read, what the rest is to be then.

Bends are named by their index in the run. Inches; angles in radians inside, degrees where they were read.
"""

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from conduit.bender import Shoe
from conduit.bending.arrangement import Arrangement
from conduit.bending.correction import (
    HANDS_ANGLE,
    HANDS_MARK,
    Advice,
    AsBent,
    Correction,
    OutBy,
    as_read,
    correct,
    is_as_near_as_hands_get,
)
from conduit.bending.forcing import HANDS_TURN
from conduit.bending.piece_to_correct import PieceToCorrect
from conduit.bending.readings import ToolReading, readings_on
from conduit.bending.schema import BendAsMade
from conduit.bending.stick import Stick, arcs_of
from conduit.geometry import Turning, Vec
from conduit.simulation import Bent, Setting, arc_of
from conduit.units import Degrees

MOST_OFF = math.radians(6)
ALL_BUT, MOST_ROUNDS = 0.995, 20
# Of figures that were typed.
ROUNDING = 1e-6
# A reading shows a mark that is 1/8 off, as a tape's 1/16, if it moves by half of what the mark does; it tells where
# the bend is if by a quarter; so much is tried.
HAIR, SHOWS, TELLS = 1e-3, 0.49, 0.25


@dataclass(frozen=True)
class State:
    """A stick after some of its bends: what each was or is to be, how each is, what was read, what to do."""

    targets: dict[int, Setting]
    real: dict[int, Setting]
    readings: tuple[AsBent, ...]
    correction: Correction | None


# What was found after so many bends were made and read so, some of them left as they are.
_Read = tuple[int, float, float | None, float]
States = dict[tuple[tuple[_Read, ...], tuple[int, ...]], State]


@dataclass(frozen=True)
class Window:
    """Between which angles (degrees) a bend still fits, its mark no farther off than so many inches."""

    least: Degrees
    most: Degrees
    mark: float

    @property
    def is_close(self) -> bool:
        """Whether it is closer than a finder is read."""
        return self.most - self.least < 2 * math.degrees(HANDS_ANGLE)


@dataclass(frozen=True)
class AskedReading:
    """A tape reading that is asked for, and how many inches it moves for each that the bend's mark does."""

    reading: ToolReading
    slope: float

    @property
    def inches(self) -> float:
        """What it is to be."""
        return self.reading.inches or 0.0


class AsMade:
    """Follows a stick through the bends that are made, in the order in which they were."""

    def __init__(
        self,
        stick: Stick,
        planned: Mapping[int, Setting],
        arrangement: Arrangement,
        made: Sequence[BendAsMade],
        known: States,
    ) -> None:
        self.stick, self.planned, self.arrangement = stick, dict(planned), arrangement
        self.sequence, self.hooks = arrangement.sequence, arrangement.hooks
        self.made = {one.bend - 1: one for one in made if one.bend - 1 in self.planned}
        self.known = known
        self.order = list(self.made)
        self.places = {index: place for place, index in enumerate(self.planned)}
        self._wholes: dict[tuple[Setting, ...], Bent] = {}

    @cached_property
    def states(self) -> list[State]:
        """The stick before any bend, and after each that is made."""
        states = [State(dict(self.planned), dict(self.planned), (), None)]
        left = tuple(index for index, one in self.made.items() if one.left)
        so_far: tuple[_Read, ...] = ()
        for index, one in self.made.items():
            so_far = (*so_far, (index, one.angle, one.tape, one.turned))
            if (so_far, left) not in self.known:
                self.known[so_far, left] = self._after(states[-1], index, one)
            states.append(self.known[so_far, left])
        return states

    def _after(self, before: State, index: int, one: BendAsMade) -> State:
        further = self.further(before, index, one, self.stick.measured.head.tape.half_step)
        as_bent = AsBent(self.places[index], self._angle(before, index, one), further, one.turned)
        readings = (*before.readings, as_bent)
        left = frozenset(self.places[other] for other, made in self.made.items() if made.left)
        piece = replace(self.stick.piece, follows=lambda settings: self._follows(settings, readings))
        found = correct(list(before.targets.values()), readings, piece, left)
        read = {reading.bend: reading for reading in readings}
        real = dict(zip(self.planned, found.settings, strict=True))
        if found.advice in ("rebend", "scrap"):
            real = {number: as_read(target, read.get(self.places[number])) for number, target in before.targets.items()}
        targets = {
            number: target if self.places[number] in read else real[number] for number, target in before.targets.items()
        }
        return State(targets, real, readings, found)

    def _follows(self, settings: Sequence[Setting], readings: Sequence[AsBent]) -> bool:
        """Whether what is left can still be made in its order, where it could as planned."""
        made = {list(self.planned)[one.bend] for one in readings}
        real = dict(zip(self.planned, settings, strict=True))
        now = self.arrangement.after(self.stick, arcs_of(real, self.stick.shoe), made)
        return now.broken <= self.arrangement.broken

    @cached_property
    def arranged(self) -> Arrangement:
        """The order as it is now: with the bends that are made as they came, and the rest as re-planned."""
        real = self.states[-1].real
        if real == self.planned:
            return self.arrangement
        return self.arrangement.after(self.stick, arcs_of(real, self.stick.shoe), self.order)

    def state_before(self, index: int) -> State:
        """The stick when a bend was made, or as it is now for one that is not."""
        return self.states[self.order.index(index)] if index in self.made else self.states[-1]

    def made_before(self, index: int) -> list[int]:
        """What is bent already when a bend is made: as it was, or as the order has it."""
        if index in self.made:
            return self.order[: self.order.index(index)]
        before = self.sequence[: self.sequence.index(index)]
        return self.order + [other for other in before if other not in self.made]

    def neighbour(self, made: Sequence[int], index: int) -> int | None:
        """The nearest bend beside one, with straight pipe between: it shows how the pipe is turned."""
        beside = [max((one for one in made if one < index), default=None)]
        beside += [min((one for one in made if one > index), default=None)]
        places = {one: arc_of(self.planned[one], self.stick.shoe).start for one in (*made, index)}
        there = [one for one in beside if one is not None]
        return min(there, key=lambda one: abs(places[one] - places[index]), default=None)

    def readings(self, state: State, index: int, setting: Setting) -> Iterator[ToolReading]:
        """What tools read right after a bend that is set so, on the pipe as it then is."""
        real = {number: state.real[number] for number in self.made_before(index)} | {index: setting}
        real = dict(sorted(real.items()))
        arcs = {number: arc_of(one, self.stick.shoe) for number, one in real.items()}
        all_made = len(real) == len(self.planned)
        return readings_on(self.stick.bench, self.stick.bent(real), arcs, index, all_made)

    def asked(self, state: State, index: int, setting: Setting, readings: Sequence[ToolReading]) -> AskedReading | None:
        """The first tape reading that shows a mark that is 1/8 off, or else the one that shows it best.

        With how it moves with the bend's mark.
        """
        moved = self.readings(state, index, replace(setting, mark=setting.mark + HAIR))
        then = {one.lies: one.inches for one in moved}
        asked = [
            AskedReading(one, (there - one.inches) / HAIR)
            for one in readings
            if one.inches is not None and (there := then.get(one.lies)) is not None
        ]
        first = next((one for one in asked if abs(one.slope) >= SHOWS), None)
        best = max(asked, key=lambda one: abs(one.slope), default=None)
        return first or (best if best and abs(best.slope) >= TELLS else None)

    def _angle(self, state: State, index: int, one: BendAsMade) -> Degrees:
        """The angle that a bend came out with: as it was to be where the finder could not tell it from that."""
        meant = math.degrees(state.targets[index].angle)
        return meant if abs(one.angle - meant) <= _read_to(one.angle) + ROUNDING else one.angle

    def further(self, state: State, index: int, one: BendAsMade, told_from: float = 0.0) -> float:
        """How much further from end A a bend lies than it was to, from what the tape read; 0 where it was not.

        Nor where the tape reads no more than `told_from` off what it was to.
        """
        if one.tape is None:
            return 0.0
        setting = replace(state.targets[index], angle=math.radians(self._angle(state, index, one)))
        asked = self.asked(state, index, setting, list(self.readings(state, index, setting)))
        off = one.tape - asked.inches if asked else 0.0
        return off / asked.slope if asked and abs(off) > told_from + ROUNDING else 0.0

    def window(self, state: State, index: int) -> Window:
        """What a bend may be off, angle and mark together, so that the pipe still fits with all else as it is.

        The mark has its 1/16, or as much of it as takes half of what is left; the angle has the rest.
        """
        target = state.targets[index]
        settings = tuple({**state.real, index: target}.values())
        used = _used_with(self.stick.piece, settings, self.places[index], self._whole(settings))

        def worst(off: float, moved: float) -> float:
            return max(used(off, moved), used(off, -moved))

        left = (1 + used(0.0, 0.0)) / 2
        mark = HANDS_MARK if worst(0.0, HANDS_MARK) <= left else _farthest(lambda by: worst(0.0, by), HANDS_MARK, left)
        under = _farthest(lambda off: worst(-off, mark), MOST_OFF)
        over = _farthest(lambda off: worst(off, mark), MOST_OFF)
        return Window(math.degrees(target.angle - under), math.degrees(target.angle + over), mark)

    def _whole(self, settings: tuple[Setting, ...]) -> Bent:
        """The piece with all its bends set so, held where the run has it; as long as nothing is made it is the same."""
        if settings not in self._wholes:
            self._wholes[settings] = self.stick.piece.bent(settings)
        return self._wholes[settings]

    def advice_after(self, index: int) -> Advice:
        """What was to be done after a bend that is made; it came right where nothing was."""
        after = self.states[self.order.index(index) + 1].correction
        return after.advice if after else "go_on"

    def within(self, index: int) -> bool:
        """Whether nothing is to be done about a bend that is made: it still fits, or is as near as hands get."""
        after = self.states[self.order.index(index) + 1]
        meant = self.state_before(index).targets[index]
        return self.advice_after(index) == "go_on" or is_as_near_as_hands_get(after.readings[-1], meant)

    def out_by(self, index: int) -> OutBy:
        """What of a bend that is made is out of tolerance; where each of its readings is within, it is what adds up."""
        if self.within(index):
            return ""
        one, before = self.made[index], self.state_before(index)
        window = self.window(before, index)
        if not window.least <= one.angle <= window.most:
            return "angle"
        if abs(one.turned) > HANDS_TURN:
            return "dog_leg"
        if one.tape is not None and abs(self.further(before, index, one)) > window.mark:
            return "mark"
        return "end"

    def shown(self, index: int) -> tuple[Literal["deduct", "gain"] | None, float]:
        """Which figure of the shoe a 90's tape reading shows, and how much larger it was than the one in use.

        Behind end A it is the deduct; between two backs, both hooks toward A, the gain.
        """
        layout, one = self.stick.layout, self.made[index]
        if one.tape is None or not layout.is_ninety(index) or self.hooks[index] != "A":
            return None, 0.0
        further = self.further(self.state_before(index), index, one)
        before = [other for other in self.made_before(index) if other < index]
        if not before:
            return "deduct", further
        neighbour = index - 1
        if max(before) == neighbour and layout.is_ninety(neighbour) and self.hooks[neighbour] == "A":
            # The tape hooks on that one where it was taken to be.
            return "gain", further - self.states[-1].readings[self.order.index(neighbour)].further
        return None, 0.0


def _read_to(angle: Degrees) -> Degrees:
    """How exactly a finder was read: to the half or quarter degree, or to the tenth if it was written with one."""
    return next((step / 2 for step in (0.5, 0.25) if abs(math.remainder(angle, step)) < ROUNDING), 0.05)


def _used_with(
    piece: PieceToCorrect, settings: Sequence[Setting], place: int, bent: Bent
) -> Callable[[float, float], float]:
    """How much is used of what the pipe is forgiven, with one bend so many radians and inches further than set.

    `bent`: the pipe as set.
    """
    ends = _end_with(bent, settings, place, piece.shoe)

    def used(off: float, moved: float) -> float:
        at_end = piece.at_end(*ends(off, moved))
        if piece.passing is None or at_end > 1:
            return at_end
        changed, one = list(settings), settings[place]
        changed[place] = replace(one, angle=one.angle + off, mark=one.mark + moved)
        return max(at_end, piece.passing(piece.bent(changed)))

    return used


def _farthest(used: Callable[[float], float], high: float, allowed: float = 1.0) -> float:
    """How far a bend may be off, at most `high`, until all that is `allowed` is used.

    Regula falsi with the Illinois rule: what is used grows nearly as what is off. Found once 99 to 100 % are used.
    """
    full = ALL_BUT * allowed
    low, most = 0.0, high
    below, above = used(low) - full, used(high) - full
    if below >= 0:
        return low
    if above <= 0:
        return most
    kept_low = kept_high = False
    for _ in range(MOST_ROUNDS):
        middle = low - below * (high - low) / (above - below)
        here = used(middle) - full
        if abs(here) <= allowed - full:
            return middle
        if here < 0:
            low, below, above = middle, here, above / 2 if kept_high else above
        else:
            high, above, below = middle, here, below / 2 if kept_low else below
        kept_low, kept_high = here > 0, here < 0
    return low


def _end_with(
    bent: Bent, settings: Sequence[Setting], place: int, shoe: Shoe
) -> Callable[[float, float], tuple[Vec, Vec]]:
    """Where end B comes, and which way it points, with one bend so many radians and inches further than it is set.

    What lies behind the arc keeps its shape: it turns about the arc's centre, and is drawn back along the leg after by
    the length that goes into the arc; with the hook toward B the arc begins earlier by as much. A mark that is moved
    shifts the arc along the leg before, and back along the leg after.
    """
    arcs = [arc_of(one, shoe) for one in settings]
    bow = bent.bows[sorted(range(len(arcs)), key=lambda one: arcs[one].start).index(place)]
    axis, centre = bow.heading.cross(bow.inside), bow.entry.along(bow.inside, shoe.radius)
    arm, leg = Turning.of(bent.end.point.minus(centre), axis), Turning.of(bow.onward, axis)
    heading, backward = Turning.of(bent.end.heading, axis), settings[place].hook == "B"

    def ends(by: float, moved: float) -> tuple[Vec, Vec]:
        onward = leg.by(by)
        drawn = bow.heading if backward else onward
        there = centre.plus(arm.by(by)).along(drawn, -shoe.radius * by)
        return there.along(bow.heading, moved).along(onward, -moved), heading.by(by)

    return ends
