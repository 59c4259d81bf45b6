"""A bend came out wrong: where the pipe really is, and what is best for the rest (handbook, Trade §7).

The bends not made yet may have their marks moved and their angles changed, and the ends may be cut;
the smallest changes that bring end B back to its place and direction are found by damped Gauss-Newton
on the simulation. Where that is not enough, the bend itself is opened or closed, and where that cannot
be, the pipe is scrap.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from conduit.bender import Hook, Shoe
from conduit.geometry import Vec
from conduit.plan import SLACK_ACROSS, SLACK_ALONG
from conduit.simulation import Bent, Bow, Pose, Setting, arc_of, bend_pipe
from conduit.tables import Material

# A mark is moved by an inch as gladly as an angle is changed by this much; a cut is made less gladly.
ANGLE_FOR_AN_INCH = math.radians(2)
ROLL_FOR_AN_INCH = math.radians(2)
CUT_FOR_AN_INCH = 0.25
# How hard a wrong direction counts against a wrong place: a degree as a quarter inch.
INCHES_PER_RADIAN = 0.25 / math.radians(1)
ROUNDS, DAMPING = 25, 1e-3
# Inches: far below what a pencil or a tape shows.
SETTLED = 1e-5
GOOD_DIRECTION = math.radians(1)
MOST_REPLANNED, MOST_TURNED = math.radians(6), math.radians(10)
# What hands, level and finder cannot better: nothing is done about a bend that is out by less.
HANDS_ANGLE, HANDS_MARK, HANDS_TURN = math.radians(0.5), 1 / 16, 1.0
# A saw takes off no less than this.
LEAST_CUT = 1 / 32
# By hand EMT up to this diameter can be opened a little; heavy wall cannot.
OPENABLE_DIAMETER, MOST_OPENED = 1.2, math.radians(5)

Advice = Literal["go_on", "replan", "rebend", "trim", "scrap"]
Clears = Callable[[Bent], bool]


@dataclass(frozen=True)
class AsBent:
    """What was read on a bend that is made: its number (from 0), the finder's angle in degrees, and the tape.

    `further` is how much further from end A than planned the tape finds the bend, in inches; `turned` how far
    it is rolled out of its plane (a dog-leg), in degrees clockwise seen from A.
    """

    bend: int
    angle: float
    further: float = 0.0
    turned: float = 0.0


@dataclass(frozen=True)
class Rebend:
    """A bend that is made already and is to be opened (negative) or closed by so many degrees."""

    bend: int
    by: float


@dataclass(frozen=True)
class Cuts:
    """What is to be cut off end A and end B, in inches; a negative cut leaves more of the spare."""

    a: float = 0.0
    b: float = 0.0


UNCUT = Cuts()


@dataclass(frozen=True)
class Correction:
    """What to do. `misses` is where end B would be without it, `after` with it; inches and degrees.

    `settings` are those of every bend, with the marks and angles of the rest re-planned. `go_on`:
    nothing needs doing; `replan`: the rest as given here; `rebend`: first the bends named; `trim`:
    the cuts suffice; `scrap`. Cuts may come with any of them. `or_leave`: instead of rebending, the
    rest could make up for it.
    """

    advice: Advice
    misses: float
    off_degrees: float
    after: float
    settings: tuple[Setting, ...]
    rebends: tuple[Rebend, ...]
    cuts: Cuts
    says: str
    or_leave: bool = False


@dataclass(frozen=True)
class Aim:
    """Where end B must come to be, and which way it must point."""

    point: Vec
    heading: Vec


@dataclass(frozen=True)
class Piece:
    """The pipe that is corrected: shoe, how it is held, its length, its aim; `spare` was left on end B.

    `clears` tells of a bent pipe whether it passes what it must pass; None: there is nothing. `sweeps`: which bends
    are the shots of one sweep; those that are left of it are changed alike.
    """

    shoe: Shoe
    start: Pose
    length: float
    aim: Aim
    material: Material = "EMT"
    spare: float = 0.0
    clears: Clears | None = None
    sweeps: tuple[tuple[int, ...], ...] = ()

    def changed_alike(self, rest: Sequence[int]) -> list[list[int]]:
        """Bends in `rest` by what is changed as one: the shots of a sweep, every other bend by itself."""
        sweep_of = {shot: sweep for sweep in self.sweeps for shot in sweep}
        alike: dict[tuple[int, ...], list[int]] = {}
        for number in rest:
            alike.setdefault(sweep_of.get(number, (number,)), []).append(number)
        return list(alike.values())

    def bent(self, settings: Sequence[Setting], cuts: Cuts = UNCUT) -> Bent:
        """The pipe, its end A cut back to where it seats."""
        held = self.start.forward(-cuts.a)
        return bend_pipe(self.length - cuts.b, settings, self.shoe, held)

    def fits(self, bent: Bent) -> bool:
        """Whether a connector along the leg, and the straps across it, forgive what is off, and all is cleared."""
        return self.ends(bent.end.point, bent.end.heading) and (self.clears is None or self.clears(bent))

    def ends(self, point: Vec, heading: Vec) -> bool:
        """Whether an end that comes there, pointing so, can be fitted."""
        miss = point.minus(self.aim.point)
        along = miss.dot(self.aim.heading)
        across = miss.along(self.aim.heading, -along).length()
        straight = heading.angle_to(self.aim.heading) <= GOOD_DIRECTION
        return abs(along) <= SLACK_ALONG and across <= SLACK_ACROSS and straight

    def off(self, bent: Bent) -> tuple[float, float]:
        """How far end B is from its aim, in inches, and its direction, in degrees."""
        return bent.miss(self.aim.point), math.degrees(bent.end.heading.angle_to(self.aim.heading))


def correct(
    planned: Sequence[Setting], readings: Sequence[AsBent], piece: Piece, left: frozenset[int] = frozenset()
) -> Correction:
    """What to do after the bends in `readings` came out as read; the others are still to be made.

    A bend that is under goes back into the shoe; one that is over is opened, unless the rest can make up
    for it with changes no larger than its own. The bends in `left` are not to be touched again.
    """
    real = {reading.bend: reading for reading in readings}
    settings = [as_read(one, real.get(number)) for number, one in enumerate(planned)]
    rest = [number for number in range(len(planned)) if number not in real]
    if piece.fits(piece.bent(settings)):
        return _told("go_on", piece, settings, settings, "The pipe still fits; go on as planned.")
    out = [one for one in readings if one.bend not in left and abs(_short(planned, one)) >= HANDS_ANGLE]
    made_up = _made_up(settings, rest, piece)
    rebent = _rebent(planned, settings, out, rest, piece)
    under = any(_short(planned, one) > 0 for one in out)
    if rebent and (under or not made_up or not _modest(planned, settings, made_up, out, rest)):
        return replace(rebent, or_leave=made_up is not None)
    if made_up:
        return made_up
    if _as_near_as_hands_get(planned, readings):
        says = "As near as hands and finder get; what is off at the end is sprung in at the straps."
        return _told("go_on", piece, settings, settings, says)
    return _told("scrap", piece, settings, settings, _why_scrap(planned, readings, out, piece))


def _short(planned: Sequence[Setting], reading: AsBent) -> float:
    """By how much (radians) a bend is under; negative: over."""
    return planned[reading.bend].angle - math.radians(reading.angle)


def as_read(planned: Setting, reading: AsBent | None) -> Setting:
    """A setting as its bend came out; as planned where it is not made."""
    if reading is None:
        return planned
    mark, roll = planned.mark + reading.further, planned.roll - math.radians(reading.turned)
    return replace(planned, mark=mark, angle=math.radians(reading.angle), roll=roll)


def _told(
    advice: Advice,
    piece: Piece,
    before: Sequence[Setting],
    settings: Sequence[Setting],
    says: str,
    rebends: Sequence[Rebend] = (),
    cuts: Cuts = UNCUT,
) -> Correction:
    misses, off = piece.off(piece.bent(before))
    after, _ = piece.off(piece.bent(settings, cuts))
    return Correction(advice, misses, off, after, tuple(settings), tuple(rebends), cuts, says)


def _made_up(settings: Sequence[Setting], rest: Sequence[int], piece: Piece) -> Correction | None:
    """What is off made up for by the rest and the cuts, where that can be."""
    better, cuts = _replanned(settings, rest, piece)
    if not piece.fits(piece.bent(better, cuts)) or not _gentle(settings, better, rest):
        return None
    moved = any(_differs(better[i], settings[i]) for i in rest)
    says = " ".join(["Bend the rest to the new marks and angles."] * moved + _cut_words(cuts))
    return _told("replan" if moved else "trim", piece, settings, better, says, cuts=cuts)


def _modest(
    planned: Sequence[Setting],
    settings: Sequence[Setting],
    made_up: Correction,
    out: Sequence[AsBent],
    rest: Sequence[int],
) -> bool:
    """Whether the rest only follows what was over by as much: an offset's second bend made like its first."""
    most = max((-_short(planned, one) for one in out), default=0.0) + HANDS_ANGLE / 2
    return all(-HANDS_ANGLE / 2 <= made_up.settings[i].angle - settings[i].angle <= most for i in rest)


def _as_near_as_hands_get(planned: Sequence[Setting], readings: Sequence[AsBent]) -> bool:
    return all(
        abs(math.radians(one.angle) - planned[one.bend].angle) < HANDS_ANGLE
        and abs(one.further) <= HANDS_MARK
        and abs(one.turned) <= HANDS_TURN
        for one in readings
    )


def _differs(one: Setting, other: Setting) -> bool:
    turned = abs(math.remainder(one.roll - other.roll, 2 * math.pi)) > math.radians(0.5)
    return turned or abs(one.mark - other.mark) > LEAST_CUT or abs(one.angle - other.angle) > math.radians(0.1)


def _cut_words(cuts: Cuts) -> list[str]:
    ends = (("A", cuts.a), ("B", cuts.b))
    return [f"Move the cut at end {end}." for end, cut in ends if abs(cut) >= LEAST_CUT]


def _rebent(
    planned: Sequence[Setting],
    settings: Sequence[Setting],
    out: Sequence[AsBent],
    rest: Sequence[int],
    piece: Piece,
) -> Correction | None:
    """The bends that are out brought back to their planned angles, if hands can do that and it helps."""
    if not out or any(not can_open(piece, -_short(planned, one)) for one in out):
        return None
    straightened = list(settings)
    for one in out:
        straightened[one.bend] = replace(settings[one.bend], angle=planned[one.bend].angle)
    rebends = [Rebend(one.bend, math.degrees(_short(planned, one))) for one in out]
    words = [f"{'close' if one.by > 0 else 'open'} bend {one.bend + 1} by {abs(one.by):.1f}°" for one in rebends]
    back = f"Back in the shoe, mark on the same reference: {' and '.join(words)}."
    if piece.fits(piece.bent(straightened)):
        return _told("rebend", piece, settings, straightened, f"{back} Then go on as planned.", rebends)
    better = _made_up(straightened, rest, piece)
    if not better:
        return None
    then = better.says.replace("Bend the rest", "Then bend the rest").replace("Move the cut", "Then move the cut")
    return _told("rebend", piece, settings, better.settings, f"{back} {then}", rebends, better.cuts)


def _why_scrap(planned: Sequence[Setting], readings: Sequence[AsBent], out: Sequence[AsBent], piece: Piece) -> str:
    dog_leg = next((one for one in readings if abs(one.turned) > HANDS_TURN), None)
    if dog_leg:
        out_by = f"{abs(dog_leg.turned):.1f}° out of plane"
        return f"Scrap it: bend {dog_leg.bend + 1} is {out_by}, and the bends that are left cannot make up for it."
    for one in out:
        over = -_short(planned, one)
        if not can_open(piece, over):
            return f"Scrap it: bend {one.bend + 1} is {math.degrees(over):.1f}° over and cannot be opened by so much."
    return "Scrap it: neither the bends that are left, nor a cut, nor a correction bring the end back."


def can_open(piece: Piece, by: float) -> bool:
    """Whether a bend can be opened by so many radians, by hand or foot; what is under can always be closed."""
    return by <= 0 or (piece.material == "EMT" and piece.shoe.diameter <= OPENABLE_DIAMETER and by <= MOST_OPENED)


def _gentle(before: Sequence[Setting], after: Sequence[Setting], rest: Sequence[int]) -> bool:
    return all(
        abs(after[i].angle - before[i].angle) <= MOST_REPLANNED
        and abs(after[i].roll - before[i].roll) <= MOST_TURNED
        and after[i].angle > 0
        for i in rest
    )


Change = NDArray[np.float64]
NOWHERE = Vec(0.0, 0.0, 0.0)


def _column(place: Vec, direction: Vec) -> Change:
    return np.array([*place, *direction.times(INCHES_PER_RADIAN)])


@dataclass(frozen=True)
class _Search:
    """Which numbers may be changed: marks, angles and rolls, each of several bends alike, then the cuts at `ends`."""

    settings: Sequence[Setting]
    alike: Sequence[Sequence[int]]
    ends: tuple[str, ...]
    piece: Piece

    @property
    def size(self) -> int:
        return 3 * len(self.alike) + len(self.ends)

    def changed(self, by: Change) -> tuple[list[Setting], Cuts]:
        """The settings and cuts with a change made."""
        changed, count = list(self.settings), len(self.alike)
        for place, bends in enumerate(self.alike):
            moved, bent, rolled = (float(one) for one in by[place : 3 * count : count])
            for number in bends:
                one = changed[number]
                angle, roll = one.angle + bent * ANGLE_FOR_AN_INCH, one.roll + rolled * ROLL_FOR_AN_INCH
                changed[number] = replace(one, mark=one.mark + moved, angle=angle, roll=roll)
        cut = [float(one) * CUT_FOR_AN_INCH for one in by[3 * count :]]
        cuts = dict(zip(self.ends, cut, strict=True))
        return changed, Cuts(cuts.get("A", 0.0), cuts.get("B", 0.0))

    def error(self, bent: Bent) -> Change:
        """Place (three, inches) and direction (three, as inches) of end B less the aim's."""
        aim = self.piece.aim
        return _column(bent.end.point.minus(aim.point), bent.end.heading.minus(aim.heading))

    def slopes(self, bent: Bent, settings: Sequence[Setting]) -> Change:
        """How the error changes with each number that may be changed.

        What lies behind an arc keeps its shape. A mark that is moved shifts it along the leg before the arc and
        back along the leg after; more angle turns it about the arc's centre, and draws it back along the leg after
        by the length that went into the arc. Rolled, it turns about the leg before, and back about the leg after,
        as the frame that later rolls are against goes through the arc without twist.
        """
        order = sorted(range(len(settings)), key=lambda number: arc_of(settings[number], self.piece.shoe).start)
        bows = dict(zip(order, bent.bows, strict=True))
        columns = [self._columns(bent, bows, bends) for bends in self.alike]
        cut = {"A": bent.start.heading, "B": bent.end.heading}
        cuts = [_column(cut[end].times(-CUT_FOR_AN_INCH), NOWHERE) for end in self.ends]
        return np.array([*(one[what] for what in range(3) for one in columns), *cuts]).T

    def _columns(self, bent: Bent, bows: Mapping[int, Bow], bends: Sequence[int]) -> Change:
        """The slopes for mark, angle and roll of bends that are changed alike: theirs together."""
        theirs = [self._columns_of(bent, bows[number], self.settings[number].hook) for number in bends]
        return np.asarray(np.sum(theirs, axis=0))

    def _columns_of(self, bent: Bent, bow: Bow, hook: Hook) -> Change:
        radius = self.piece.shoe.radius
        axis = bow.heading.cross(bow.inside)
        from_centre = bent.end.point.minus(bow.entry.along(bow.inside, radius))
        shifted = bow.heading.minus(bow.onward)
        turned = axis.cross(from_centre).along(bow.onward, -radius)
        if hook == "B":
            # The arc then begins earlier by as much as it grows.
            turned = turned.along(shifted, -radius)
        tilted = bow.heading.cross(bent.end.heading).minus(bow.onward.cross(bent.end.heading))
        swung = bow.heading.cross(bent.end.point.minus(bow.entry))
        rolled = swung.minus(bow.onward.cross(bent.end.point.minus(bow.exit)))
        return np.array(
            [
                _column(shifted, NOWHERE),
                _column(turned, axis.cross(bent.end.heading)) * ANGLE_FOR_AN_INCH,
                _column(rolled, tilted) * ROLL_FOR_AN_INCH,
            ]
        )

    def smallest(self) -> Change:
        """The smallest change that brings the end nearest to its aim."""
        by = np.zeros(self.size)
        for _ in range(ROUNDS if self.size else 0):
            settings, cuts = self.changed(by)
            bent = self.piece.bent(settings, cuts)
            error, slopes = self.error(bent), self.slopes(bent, settings)
            # Damping keeps the changes small where many would do.
            left = slopes.T @ slopes + DAMPING**2 * np.eye(self.size)
            move = np.linalg.solve(left, -(slopes.T @ error) - DAMPING**2 * by)
            by = by + move
            if float(np.abs(move).max()) < SETTLED:
                break
        return by


def _replanned(settings: Sequence[Setting], rest: Sequence[int], piece: Piece) -> tuple[list[Setting], Cuts]:
    """The smallest changes of the rest and of the cuts; an end that would have to grow is left as it is."""
    ends: tuple[str, ...] = ("A", "B")
    while True:
        search = _Search(settings, piece.changed_alike(rest), ends, piece)
        better, cuts = search.changed(search.smallest())
        short = [end for end, cut, spare in (("A", cuts.a, 0.0), ("B", cuts.b, piece.spare)) if cut < -spare - 1e-9]
        if not short:
            return better, cuts
        ends = tuple(end for end in ends if end not in short)
