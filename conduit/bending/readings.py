"""A piece at the bench: how each bend is set, how the pipe is rolled, and what tape and level must then read."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import singledispatch

from conduit.bender import Way
from conduit.bending.tape_lies import HookedAt, TapeLies
from conduit.catalogue import Message, message
from conduit.document import (
    AnyStep,
    BendStep,
    BoxOffsetStep,
    KickStep,
    OffsetStep,
    RolledStep,
    Saddle3Step,
    Saddle4Step,
    SweepStep,
)
from conduit.geometry import Vec
from conduit.layout import Layout, tangent_length
from conduit.simulation import Arc, Bent, Pose
from conduit.units import Degrees, Radians, Tape, format_angle


@dataclass(frozen=True)
class ToolReading:
    """What a tool must show: tape or level, the sentence, and the figure (a tape's also in inches).

    `lies`: how the tape lies.
    """

    tool: str
    says: Message
    reads: Message
    inches: float | None = None
    lies: TapeLies | None = None


@dataclass(frozen=True)
class Roll:
    """How the pipe is turned before a bend, seen from end A.

    Degrees clockwise that it is turned (none where it is told by a bend that was not made last), where the bend beside
    it then points (degrees clockwise from straight up, and as a clock position), words.
    """

    degrees: Degrees | None
    points: Degrees | None
    clock: Message | None
    says: Message


@dataclass(frozen=True)
class Bench:
    """What readings are worked out from: the run's layout, and how lengths are shown."""

    layout: Layout
    diameter: float
    tape: Tape

    def shows(self, inches: float) -> str:
        """A length as the tape shows it."""
        return self.tape.shows(inches)

    def taped(self, says: Message, inches: float, lies: TapeLies) -> ToolReading:
        """What the tape must read."""
        return ToolReading("tape", says, Message(self.shows(inches)), inches, lies)


def roll_before(
    rolls: Mapping[int, float], index: int, beside: int | None, where: Way = "floor", before: Way | None = "floor"
) -> Roll:
    """How to turn the pipe for bend `index`, told by the nearest bend `beside` it; None: it is the first.

    `rolls`: how each bend is rolled, or really came, in radians.

    On the floor a bend's inside points up, in the air down (`where` this one is made, `before` the one beside it, if
    that was made last). Rolls grow clockwise seen from A: the inside of the bend beside must come to stand at this
    one's less the difference, and stood up or down as it was made.
    """
    if beside is None:
        return Roll(None, None, None, message("roll.first"))
    inside = 180 if where == "air" else 0
    points = (inside - math.degrees(rolls[index] - rolls[beside])) % 360
    at, bend, stands = clock(points), beside + 1, _stands(points)
    if before is None:
        return Roll(None, points, at, message("roll.until", bend=bend, stands=stands))
    turn = (points - (180 if before == "air" else 0)) % 360
    turn = turn - 360 if turn > 180 + 1e-6 else turn
    if abs(turn) < 0.5:
        return Roll(0.0, points, at, message("roll.none", bend=bend, stands=stands))
    if abs(abs(turn) - 180) < 0.5:
        return Roll(180.0, points, at, message("roll.half", bend=bend, stands=stands))
    level = format_angle(min(abs(turn), 180 - abs(turn)))
    key = "roll.clockwise" if turn > 0 else "roll.anticlockwise"
    says = message(key, angle=format_angle(abs(turn)), bend=bend, stands=stands, level=level)
    return Roll(turn, points, at, says)


def _stands(degrees: Degrees) -> Message:
    """Where a bend points, as one says it."""
    plain = {0: "stands.up", 12: "stands.down"}.get(_half_hours(degrees))
    return message(plain) if plain else message("stands.to", clock=clock(degrees))


def _half_hours(degrees: Degrees) -> int:
    return round((degrees % 360) / 15) % 24


def clock(degrees: Degrees) -> Message:
    """Degrees clockwise from straight up as a clock position, to the half hour."""
    halves = _half_hours(degrees)
    hour = halves // 2 or 12
    return Message(f"{hour}:30") if halves % 2 else message("clock.hour", hour=hour)


Arcs = Mapping[int, Arc]
# Straight pipe that a straight edge needs beside a bend, in inches; and the angles whose outside corner it shows well.
LEAST_EDGE, SHARP = 2.0, (math.radians(9.5), math.radians(120))
# So far (radians) two legs are parallel for a tape.
PARALLEL = math.radians(0.25)


def readings_on(bench: Bench, bent: Bent, arcs: Arcs, just_made: int, all_made: bool = False) -> Iterator[ToolReading]:
    """What tape and level must read on a piece bent so far, one after the other as they are worked out.

    All is read on the pipe as it is in the hand: from rim to rim, with what is spared on its ends. `arcs`: its bends
    made, by their index in the run; `all_made`: also what is left to end B.
    """
    taped = _taped(bench, bent, arcs, just_made)
    yield from taped
    yield _angled(message("reading.legs"), math.degrees(arcs[just_made].angle))
    if all_made and bent.arcs:
        known = {one.lies for one in taped}
        yield from (one for one in _to_end_b(bench, bent, arcs) if one.lies not in known)


@dataclass(frozen=True)
class _JustMade:
    """A bend that was just made on a piece, among the others of its step (`mates`); bends by their index in the run."""

    bench: Bench
    bent: Bent
    arcs: Arcs
    index: int
    mates: list[int]

    @property
    def whole(self) -> bool:
        """Whether all bends of the step are made."""
        return set(self.mates) <= set(self.arcs)

    def corner(self) -> list[ToolReading]:
        """Where the bend's corner must lie."""
        return _to_corner(self.bench, self.bent, self.arcs, [self.index])

    def rise(self, pair: Sequence[int]) -> ToolReading:
        """How far the second of two bends lies off the leg before the first."""
        low, high = pair
        return _rise(self.bench, self.bent, self.arcs, low, high)

    def kicked(self) -> list[ToolReading]:
        """How far a kick has moved its 90."""
        return _kicked(self.bench, self.bent, self.arcs, self.mates) if len(self.mates) == 2 else []


def _taped(bench: Bench, bent: Bent, arcs: Arcs, just_made: int) -> list[ToolReading]:
    step, mates = bench.layout.step_of(just_made), bench.layout.indices_of(bench.layout.owners[just_made])
    return _read_by_kind(step, _JustMade(bench, bent, arcs, just_made, mates))


@singledispatch
def _read_by_kind(step: AnyStep | None, made: _JustMade) -> list[ToolReading]:
    """What the tape must read of a step's bends by its kind: of most where the corner of the bend lies."""
    return made.corner()


@_read_by_kind.register
def _of_turn(step: BendStep | KickStep, made: _JustMade) -> list[ToolReading]:
    """A 90 by its back, with how far its kick lifts it; a flatter one by its corner."""
    kicked = made.kicked() if made.whole else []
    if made.bench.layout.is_ninety(made.index):
        return [*(_to_back(made.bench, made.bent, made.arcs, made.index) or made.corner()), *kicked]
    return [*kicked, *made.corner()]


@_read_by_kind.register
def _of_offset(step: OffsetStep | RolledStep | BoxOffsetStep, made: _JustMade) -> list[ToolReading]:
    """Its rise once both bends are made, and that its outer legs are parallel."""
    if not made.whole:
        return made.corner()
    return [made.rise(made.mates), *made.corner(), _level("reading.outer_legs", "reads.parallel")]


@_read_by_kind.register
def _of_three_bend_saddle(step: Saddle3Step, made: _JustMade) -> list[ToolReading]:
    """Its height once it is whole, and that its outer legs lie in line."""
    if not made.whole:
        return made.corner()
    height = _height(made.bench, made.bent, made.arcs, made.mates)
    return [height, *made.corner(), _level("reading.saddle_legs", "reads.in_line")]


@_read_by_kind.register
def _of_four_bend_saddle(step: Saddle4Step, made: _JustMade) -> list[ToolReading]:
    """The rise of each side once its two bends are made."""
    pair = _pair_of(made.mates, made.index)
    if not made.whole:
        return [*([made.rise(pair)] if pair and set(pair) <= set(made.arcs) else []), *made.corner()]
    ends = _level("reading.saddle_legs", "reads.parallel" if step.beyond else "reads.in_line")
    return [made.rise(pair), *made.corner(), ends]


@_read_by_kind.register
def _of_sweep(step: SweepStep, made: _JustMade) -> list[ToolReading]:
    shots = [index for index in made.mates if index in made.arcs]
    return _swept(made.bench, made.bent, made.arcs, shots, made.whole)


def _level(says: str, reads: str) -> ToolReading:
    return ToolReading("level", message(says), message(reads))


def _angled(says: Message, degrees: Degrees) -> ToolReading:
    return ToolReading("level", says, Message(format_angle(degrees)))


def _swept(bench: Bench, bent: Bent, arcs: Arcs, shots: Sequence[int], whole: bool) -> list[ToolReading]:
    """How far a sweep has come, from its first shot to the last that is made; once it is `whole` where it lies."""
    if len(shots) < 2:
        return []
    before, after = bent.pose_at(arcs[min(shots)].start), bent.pose_at(arcs[max(shots)].end)
    angle = math.degrees(before.heading.angle_to(after.heading))
    return [
        _angled(message("reading.sweep", shots=len(shots)), angle),
        *(_to_corner(bench, bent, arcs, shots) if whole else []),
    ]


def _pair_of(mates: list[int], index: int) -> list[int]:
    """The two bends of a four-bend saddle's near or far side."""
    return mates[:2] if index in mates[:2] else mates[2:]


def _aside(bent: Bent, from_s: float, to: Vec) -> float:
    """How far a point lies off the line of the leg at `from_s`."""
    pose = bent.pose_at(from_s)
    between = to.minus(pose.point)
    return between.along(pose.heading, -between.dot(pose.heading)).length()


def _rise(bench: Bench, bent: Bent, arcs: Arcs, low: int, high: int) -> ToolReading:
    rise = _aside(bent, arcs[low].start, bent.point_at(arcs[high].end))
    return bench.taped(message("reading.rise"), rise, TapeLies("rise", None, (low, high)))


def _height(bench: Bench, bent: Bent, arcs: Arcs, mates: list[int]) -> ToolReading:
    centre = arcs[mates[1]]
    height = _aside(bent, arcs[mates[0]].start, bent.point_at((centre.start + centre.end) / 2))
    return bench.taped(message("reading.height"), height, TapeLies("height", None, (mates[0], mates[1])))


def _kicked(bench: Bench, bent: Bent, arcs: Arcs, mates: list[int]) -> list[ToolReading]:
    """How far the kick has moved the 90's far leg off the line of the leg that is not kicked."""
    kick, ninety = sorted(mates, key=lambda index: bench.layout.is_ninety(index))
    if not bench.layout.is_ninety(ninety):
        return []
    at = arcs[kick].start if kick < ninety else arcs[kick].end
    rise = _aside(bent, at, _corner(bent, arcs[ninety], at_start=kick < ninety))
    return [bench.taped(message("reading.kick"), rise, TapeLies("kick", None, (kick, ninety)))]


def _corner(bent: Bent, arc: Arc, at_start: bool) -> Vec:
    """Where a bend's two legs would meet, from the leg before it or the one after it."""
    pose, reach = bent.pose_at(arc.start if at_start else arc.end), tangent_length(bent.radius, arc.angle)
    return pose.point.along(pose.heading, reach if at_start else -reach)


def _to_back(bench: Bench, bent: Bent, arcs: Arcs, index: int) -> list[ToolReading]:
    """To the back of a 90: from end A or the back of the last 90, where what lies between runs parallel to its leg."""
    enters = bent.pose_at(arcs[index].start)
    hooked = _hooked_at(bench, bent, arcs, index)
    if hooked.heading.angle_to(enters.heading) > PARALLEL:
        return []
    corner = _corner(bent, arcs[index], at_start=True)
    reach = corner.minus(hooked.point).dot(enters.heading) + _outside(bench, arcs[index].angle)
    says = message("reading.back", hooked=hooked.called)
    return [bench.taped(says, reach, TapeLies("back", hooked.at, (index,)))]


def _to_end_b(bench: Bench, bent: Bent, arcs: Arcs) -> list[ToolReading]:
    """What is left to end B, as it is now: from the back of the last 90 if that runs parallel, else the last bend."""
    hooked, last = _hooked_at(bench, bent, arcs, math.inf), max(arcs)
    if hooked.at != "end_a" and hooked.heading.angle_to(bent.end.heading) <= PARALLEL:
        reach = bent.end.point.minus(hooked.point).dot(bent.end.heading)
        return [bench.taped(message("reading.end_b", hooked=hooked.called), reach, TapeLies("end_b", hooked.at, ()))]
    shots = bench.layout.indices_of(bench.layout.owners[last])
    is_swept = isinstance(bench.layout.step_of(last), SweepStep)
    return _to_corner(bench, bent, arcs, [one for one in shots if one in arcs] if is_swept else [last], from_b=True)


@dataclass(frozen=True)
class _Hooked:
    """Where a tape hooks, which way the leg runs from there, and what that is called."""

    at: HookedAt
    point: Vec
    heading: Vec
    called: Message


def _hooked_at(bench: Bench, bent: Bent, arcs: Arcs, before: float) -> _Hooked:
    """The back of the last 90 made before a bend on this piece, or its end A."""
    nineties = [index for index in arcs if index < before and bench.layout.is_ninety(index)]
    if not nineties:
        return _Hooked("end_a", bent.start.point, bent.start.heading, message("hooked.end_a"))
    last = max(nineties)
    leaves, corner = bent.pose_at(arcs[last].end), _corner(bent, arcs[last], at_start=False)
    back = corner.along(leaves.heading, -_outside(bench, arcs[last].angle))
    return _Hooked(last, back, leaves.heading, message("hooked.back", bend=last + 1))


def _to_corner(bench: Bench, bent: Bent, arcs: Arcs, shots: Sequence[int], from_b: bool = False) -> list[ToolReading]:
    """From an end along its leg to the bend's outside corner; nothing where another bend is between, or no room.

    The tape lies on the leg's outside, hooked on the rim; a straight edge on the outside of the other leg crosses it
    where it is read (docs/trade.md, What can be read). `shots`: the bend, or all of a sweep; from end A if that can be.
    """
    first, last = arcs[min(shots)], arcs[max(shots)]
    enters, leaves = bent.pose_at(first.start), bent.pose_at(last.end)
    angle = enters.heading.angle_to(leaves.heading)
    before = max((arcs[one].end for one in arcs if one < min(shots)), default=0.0)
    after = min((arcs[one].start for one in arcs if one > max(shots)), default=bent.length)
    has_edges = first.start - before >= LEAST_EDGE and after - last.end >= LEAST_EDGE
    if not SHARP[0] <= angle <= SHARP[1] or not has_edges:
        return []
    crossing = _outside(bench, angle)
    corner = enters.point.along(enters.heading, _to_crossing(enters, leaves, angle))
    if before == 0.0 and not from_b:
        reach = corner.minus(bent.start.point).dot(enters.heading) + crossing
        return [_cornered(bench, "end_a", shots, reach)]
    if after == bent.length:
        reach = bent.end.point.minus(corner).dot(leaves.heading) + crossing
        return [_cornered(bench, "end_b", shots, reach)]
    return []


def _outside(bench: Bench, angle: Radians) -> float:
    """How far beyond the corner of a bend's centrelines its outsides cross; at a 90 half the diameter."""
    return bench.diameter / 2 * math.tan(angle / 2)


def _to_crossing(enters: Pose, leaves: Pose, angle: Radians) -> float:
    """How far along the leg before a bend the line of the leg after it crosses it."""
    between = leaves.point.minus(enters.point)
    across = between.along(enters.heading, -between.dot(enters.heading)).length()
    return between.dot(enters.heading) - across / math.tan(angle)


def _cornered(bench: Bench, hook: HookedAt, shots: Sequence[int], reach: float) -> ToolReading:
    says = message("reading.corner", hooked=message(f"hooked.{hook}"))
    return bench.taped(says, reach, TapeLies("corner", hook, tuple(shots)))
