"""A piece at the bench: how each bend is set, how the pipe is rolled, and what tape and level must then read."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from conduit.bender import Way
from conduit.catalogue import Message, message
from conduit.document import KickStep, Saddle3Step, Saddle4Step, SlopeStep, SweepStep
from conduit.geometry import Vec
from conduit.layout import Layout, tangent_length
from conduit.simulation import Arc, Bent
from conduit.units import Degrees, Tape, format_angle


@dataclass(frozen=True)
class ToolReading:
    """What a tool must show: tape or level, the sentence, and the figure (a tape's also in inches).

    `kind`: "back" moves with the bend's own place along the leg, "rise" with the distance of an offset's bends; "off",
    how an end stands off, is read only where nothing else tells.
    """

    tool: str
    says: Message
    reads: Message
    inches: float | None = None
    kind: "Kind" = "other"


@dataclass(frozen=True)
class Roll:
    """How the pipe is turned before a bend, seen from end A.

    Degrees clockwise that it is turned, where the bend made before then points (degrees clockwise from
    straight up, and as a clock position), words.
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

    def taped(self, says: Message, inches: float, kind: "Kind" = "other") -> ToolReading:
        """What the tape must read."""
        return ToolReading("tape", says, Message(self.shows(inches)), inches, kind)


def roll_before(
    rolls: Mapping[int, float], index: int, previous: int | None, where: Way = "floor", before: Way = "floor"
) -> Roll:
    """How to turn the pipe for bend `index` where `previous` was made before it; None: it is the first.

    `rolls`: how each bend is rolled, or really came, in radians.

    On the floor a bend's inside points up, in the air down (`where` this one is made, `before` the previous).
    Rolls grow anticlockwise seen from A: the previous bend's inside must come to stand at this one's less
    the difference, and stood up or down as it was made.
    """
    if previous is None:
        return Roll(None, None, None, message("roll.first"))
    inside, stood = (180 if one == "air" else 0 for one in (where, before))
    points = (inside - math.degrees(rolls[index] - rolls[previous])) % 360
    turn = (points - stood) % 360
    turn = turn - 360 if turn > 180 + 1e-6 else turn
    at, bend, stands = clock(points), previous + 1, _stands(points)
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


Kind = Literal["back", "rise", "off", "other"]
Arcs = Mapping[int, Arc]


def readings_on(
    bench: Bench, bent: Bent, arcs: Arcs, just_made: int, length: float, all_made: bool = False
) -> Iterator[ToolReading]:
    """What tape and level must read on a piece bent so far, one after the other as they are worked out.

    `arcs`: its bends made, by their index in the run; `length`: to where its end B is trimmed;
    `all_made`: also what is left to end B.
    """
    yield from _taped(bench, bent, arcs, just_made)
    yield _angled(message("reading.legs"), math.degrees(arcs[just_made].angle))
    if all_made and bent.arcs:
        base, called = _hooked_at(bench, bent, arcs, math.inf)
        end = bent.pose_at(length)
        yield bench.taped(message("reading.end_b", hooked=called), end.point.minus(base).dot(end.heading))
    yield from _standing_off(bench, bent, arcs[just_made], length)


def _standing_off(bench: Bench, bent: Bent, arc: Arc, length: float) -> list[ToolReading]:
    """For a bend that shows in nothing else: how far end B, or end A, stands off the line of the other leg."""
    return [
        bench.taped(message(key), _aside(bent, at, to), "off")
        for key, at, to in (
            ("reading.off.b", arc.start, bent.pose_at(length).point),
            ("reading.off.a", arc.end, bent.start.point),
        )
    ]


def _taped(bench: Bench, bent: Bent, arcs: Arcs, just_made: int) -> list[ToolReading]:
    step = bench.layout.step_of(just_made)
    mates = bench.layout.indices_of(bench.layout.owners[just_made])
    if isinstance(step, SweepStep):
        return _swept(bent, arcs, [index for index in mates if index in arcs])
    if bench.layout.is_ninety(just_made):
        back = _to_back(bench, bent, arcs, just_made)
        return [back] if set(mates) - set(arcs) or len(mates) == 1 else [back, *_kicked(bench, bent, arcs, mates)]
    if not set(mates) <= set(arcs):
        pair = _pair_of(mates, just_made) if isinstance(step, Saddle4Step) else []
        return [_rise(bench, bent, arcs, *pair)] if pair and set(pair) <= set(arcs) else []
    if isinstance(step, SlopeStep):
        return [_sloped(bench, bent, arcs, *mates)]
    if bench.layout.is_of_offset(just_made):
        return [_rise(bench, bent, arcs, *mates), _level("reading.outer_legs", "reads.parallel")]
    if isinstance(step, Saddle4Step):
        ends = _level("reading.both_ends", "reads.parallel" if step.beyond else "reads.in_line")
        return [_rise(bench, bent, arcs, *_pair_of(mates, just_made)), ends]
    if isinstance(step, Saddle3Step):
        return [_height(bench, bent, arcs, mates), _level("reading.both_ends", "reads.in_line")]
    return _kicked(bench, bent, arcs, mates) if isinstance(step, KickStep) and len(mates) == 2 else []


def _level(says: str, reads: str) -> ToolReading:
    return ToolReading("level", message(says), message(reads))


def _angled(says: Message, degrees: Degrees) -> ToolReading:
    return ToolReading("level", says, Message(format_angle(degrees)))


def _swept(bent: Bent, arcs: Arcs, shots: Sequence[int]) -> list[ToolReading]:
    """How far a sweep has come, from its first shot to the last that is made."""
    if len(shots) < 2:
        return []
    before, after = bent.pose_at(arcs[min(shots)].start), bent.pose_at(arcs[max(shots)].end)
    angle = math.degrees(before.heading.angle_to(after.heading))
    return [_angled(message("reading.sweep", shots=len(shots)), angle)]


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
    return bench.taped(message("reading.rise"), rise, "rise")


def _sloped(bench: Bench, bent: Bent, arcs: Arcs, low: int, high: int) -> ToolReading:
    off = _aside(bent, arcs[low].start, _corner(bent, arcs[high], at_start=False))
    return bench.taped(message("reading.slope"), off, "off")


def _height(bench: Bench, bent: Bent, arcs: Arcs, mates: list[int]) -> ToolReading:
    centre = arcs[mates[1]]
    height = _aside(bent, arcs[mates[0]].start, bent.point_at((centre.start + centre.end) / 2))
    return bench.taped(message("reading.height"), height)


def _kicked(bench: Bench, bent: Bent, arcs: Arcs, mates: list[int]) -> list[ToolReading]:
    """How far the kick has moved the 90's corner off the line of its leg."""
    kick, ninety = sorted(mates, key=lambda index: bench.layout.is_ninety(index))
    if not bench.layout.is_ninety(ninety):
        return []
    at = arcs[kick].start if kick < ninety else arcs[kick].end
    rise = _aside(bent, at, _corner(bent, arcs[ninety], at_start=kick < ninety))
    return [bench.taped(message("reading.kick"), rise)]


def _corner(bent: Bent, arc: Arc, at_start: bool) -> Vec:
    """Where a bend's two legs would meet, from the leg before it or the one after it."""
    pose, reach = bent.pose_at(arc.start if at_start else arc.end), tangent_length(bent.radius, arc.angle)
    return pose.point.along(pose.heading, reach if at_start else -reach)


def _to_back(bench: Bench, bent: Bent, arcs: Arcs, index: int) -> ToolReading:
    base, called = _hooked_at(bench, bent, arcs, index)
    enters = bent.pose_at(arcs[index].start)
    corner = _corner(bent, arcs[index], at_start=True)
    reach = corner.minus(base).dot(enters.heading) + bench.diameter / 2
    return bench.taped(message("reading.back", hooked=called), reach, "back")


def _hooked_at(bench: Bench, bent: Bent, arcs: Arcs, before: float) -> tuple[Vec, Message]:
    """Where the tape hooks: the back of the last 90 made before a bend on this piece, or its end A."""
    nineties = [index for index in arcs if index < before and bench.layout.is_ninety(index)]
    if not nineties:
        return bent.start.point, message("hooked.end_a")
    last = max(nineties)
    leaves = bent.pose_at(arcs[last].end)
    corner = _corner(bent, arcs[last], at_start=False)
    return corner.along(leaves.heading, -bench.diameter / 2), message("hooked.back", bend=last + 1)
