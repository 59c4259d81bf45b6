"""A bend came out wrong: where the pipe really is, and what is best for the rest (docs/trade.md, Correcting).

The bends not made yet may have their marks moved and their angles changed, and the ends may be cut: the smallest
changes that bring end B back are looked for (`least_change`). Where that is not enough, the bend itself is opened or
closed, and where that cannot be, the pipe is scrap.
"""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from conduit.bending.forcing import HANDS_TURN, READ_TO, can_open, can_twist, is_lived_with, is_thin
from conduit.bending.least_change import least_change, parts_of
from conduit.bending.piece_to_correct import UNCUT, Cuts, PieceToCorrect
from conduit.catalogue import NOTHING, Message, joined, message
from conduit.simulation import Bent, Setting, arc_of
from conduit.units import TOLERANCE, Degrees

MOST_REPLANNED, MOST_TURNED = math.radians(6), math.radians(10)
# What hands, level and finder cannot better: nothing is done about a bend that is out by less.
HANDS_ANGLE, HANDS_MARK = math.radians(0.5), 1 / 16
# A saw takes off no less than this.
LEAST_CUT = 1 / 32
# Nobody moves a mark farther than this, beside what a bend that is made lies out of its place.
MOST_MOVED = 1.5
# The shots that are left of a sweep are moved together, by up to half of what usually lies between two.
MOST_SWEPT = 3.0

Advice = Literal["go_on", "replan", "rebend", "trim", "spring", "scrap"]
# What of a bend is out of tolerance: one of its readings, or the end, where each is within and they add up.
OutBy = Literal["", "angle", "mark", "dog_leg", "end"]


@dataclass(frozen=True)
class AsBent:
    """What was read on a bend that is made: its number (from 0), the finder's angle in degrees, and the tape.

    `further` is how much further from end A than planned the tape finds the bend, in inches; `turned` how far
    the leg after it leans out of its plane (a dog-leg), in degrees, clockwise looking along the pipe from end A.
    """

    bend: int
    angle: Degrees
    further: float = 0.0
    turned: Degrees = 0.0


@dataclass(frozen=True)
class Rebend:
    """A bend that is made already and is to be opened (negative) or closed by so many degrees, or twisted back."""

    bend: int
    by: Degrees
    twist: bool = False

    @property
    def way(self) -> Literal["close", "open", "twist"]:
        """What is done with it."""
        return "twist" if self.twist else "close" if self.by > 0 else "open"


@dataclass(frozen=True)
class Correction:
    """What to do. `misses` is where end B would be without it, `after` with it; inches and degrees.

    `settings` are those of every bend, with the marks and angles of the rest re-planned. `go_on`: nothing needs doing;
    `replan`: the rest as given here; `rebend`: first the bends named; `trim`: the cuts suffice; `spring`: the end comes
    near enough to be sprung to its place; `scrap`. Cuts may come with any of them. `or_leave`: instead of rebending,
    the rest could make up for it.
    """

    advice: Advice
    misses: float
    off_degrees: Degrees
    after: float
    settings: tuple[Setting, ...]
    rebends: tuple[Rebend, ...]
    cuts: Cuts
    says: Message
    or_leave: bool = False


def correct(
    planned: Sequence[Setting], readings: Sequence[AsBent], piece: PieceToCorrect, left: frozenset[int] = frozenset()
) -> Correction:
    """What to do after the bends in `readings` came out as read; the others are still to be made.

    First the pipe as it is: if its end still fits, go on. Else two ways are weighed. The rest can make up for it, by
    the smallest change of marks, angles, rolls and cuts (`least_change`); or the bends that are out can be brought
    back, one that is under by closing it in the shoe, one that is over by opening it, where hands can. Bringing back
    comes first, unless all that is out is over and the rest makes up for it with changes no larger. What neither mends
    is scrap, or as near as hands get (docs/trade.md, Correcting). The bends in `left` are not to be touched again.
    """
    real = {reading.bend: reading for reading in readings}
    settings = [as_read(one, real.get(number)) for number, one in enumerate(planned)]
    rest = [number for number in range(len(planned)) if number not in real]
    if piece.fits(piece.bent(settings)):
        return _told("go_on", piece, settings, settings, message("correct.go_on"))
    meant = _as_meant(planned, settings, readings, piece)
    out = [one for one in readings if one.bend not in left and _is_out(meant, one)]
    piece = replace(piece, misplaced=max((abs(one.further) for one in readings), default=0.0))
    # Nearer to a thing in the way than was asked for, or in another order, is by choice, and rather than scrap.
    changes = _changes(settings, rest, piece)
    nearer = _made_up(settings, changes, rest, piece)
    made_up = nearer if nearer and _is_as_planned(nearer, piece) else None
    rebent = _rebent(meant, settings, out, rest, piece)
    if rebent and (not made_up or _is_simpler(meant, settings, made_up, out, rest)):
        return replace(rebent, or_leave=nearer is not None)
    if nearer:
        return nearer
    if all(is_as_near_as_hands_get(one, planned[one.bend]) for one in readings):
        return _told("go_on", piece, settings, settings, message("correct.near_enough"))
    sprung = _first(changes, piece, lambda bent: is_lived_with(piece, bent)) or _as_it_is(settings, piece)
    if sprung:
        return _told("spring", piece, settings, sprung[0], message("correct.spring"), cuts=sprung[1])
    return _told("scrap", piece, settings, settings, _why_scrap(meant, readings, out, piece))


def _as_meant(
    planned: Sequence[Setting], settings: Sequence[Setting], readings: Sequence[AsBent], piece: PieceToCorrect
) -> Sequence[Setting]:
    """What each bend was to be; of a sweep's shots the last that is made was to bring the sum to what it is to be.

    What a shot is over or under is made up for by those after it, so that alone it says nothing.
    """
    meant, made = list(planned), {one.bend for one in readings}
    for sweep in piece.sweeps:
        done = [one.bend for one in readings if one.bend in sweep]
        for shot in done:
            meant[shot] = replace(planned[shot], angle=settings[shot].angle)
        if done:
            short = piece.swept[sweep] - sum(settings[shot].angle for shot in done)
            short -= sum(planned[shot].angle for shot in sweep if shot not in made)
            meant[done[-1]] = replace(planned[done[-1]], angle=settings[done[-1]].angle + short)
    return meant


def _is_out(planned: Sequence[Setting], reading: AsBent) -> bool:
    """Whether a bend is out by more than hands can better, in its angle or out of its plane."""
    return abs(_short(planned, reading)) >= HANDS_ANGLE or abs(reading.turned) > HANDS_TURN


def _is_simpler(
    planned: Sequence[Setting],
    settings: Sequence[Setting],
    made_up: Correction,
    out: Sequence[AsBent],
    rest: Sequence[int],
) -> bool:
    """Whether bringing bends back is simpler than making up for them: of those that are under, or far over.

    What is only out of its plane is made up for by how the rest is rolled.
    """
    if all(abs(_short(planned, one)) < HANDS_ANGLE for one in out):
        return False
    under = any(_short(planned, one) > 0 for one in out)
    return under or not _modest(planned, settings, made_up, out, rest)


def _short(planned: Sequence[Setting], reading: AsBent) -> float:
    """By how much (radians) a bend, or a sweep so far, is under; negative: over."""
    return planned[reading.bend].angle - math.radians(reading.angle)


def as_read(planned: Setting, reading: AsBent | None) -> Setting:
    """A setting as its bend came out; as planned where it is not made."""
    if reading is None:
        return planned
    mark, roll = planned.mark + reading.further, planned.roll + math.radians(reading.turned)
    return replace(planned, mark=mark, angle=math.radians(reading.angle), roll=roll)


def _told(
    advice: Advice,
    piece: PieceToCorrect,
    before: Sequence[Setting],
    settings: Sequence[Setting],
    says: Message,
    rebends: Sequence[Rebend] = (),
    cuts: Cuts = UNCUT,
) -> Correction:
    misses, off = piece.off(piece.bent(before))
    after, _ = piece.off(piece.bent(settings, cuts))
    return Correction(advice, misses, off, after, tuple(settings), tuple(rebends), cuts, says)


Change = tuple[Sequence[Setting], Cuts]


def _made_up(
    settings: Sequence[Setting],
    changes: Sequence[Change],
    rest: Sequence[int],
    piece: PieceToCorrect,
    before: Message = NOTHING,
) -> Correction | None:
    """What is off made up for by the rest and the cuts; None where that does not bring end B back.

    Nor where a bend would change by more than `MOST_REPLANNED`, a roll by more than `MOST_TURNED` (radians) or a mark
    by more than `MOST_MOVED`, nor where the shoe would find no room at a mark that was moved. `before`: what is done
    first.
    """
    found = _first(changes, piece, piece.fits)
    if not found:
        return None
    better, cuts = found
    moved = any(_differs(better[i], settings[i]) for i in rest)
    then = "then_" if before else ""
    says = [message(f"correct.{then}rest")] if moved else []
    says += [message(f"correct.{then}cut", end=end) for end, cut in (("A", cuts.a), ("B", cuts.b)) if is_sawn(cut)]
    return _told("replan" if moved else "trim", piece, settings, better, joined([before, *says]), cuts=cuts)


def _can_be_done(
    settings: Sequence[Setting], better: Sequence[Setting], rest: Sequence[int], piece: PieceToCorrect
) -> bool:
    """Whether no change is larger than a person would make, and the shoe finds room."""
    return _gentle(settings, better, rest, piece) and _has_room(settings, better, piece)


def _is_as_planned(made_up: Correction, piece: PieceToCorrect) -> bool:
    """Whether no more clearance of what is passed is given up than a plan would, and the order still works."""
    clears = piece.keeping is None or piece.keeping(piece.bent(made_up.settings, made_up.cuts)) <= 1
    return clears and (piece.follows is None or piece.follows(made_up.settings))


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


def is_as_near_as_hands_get(reading: AsBent, meant: Setting) -> bool:
    """Whether hands, level and finder cannot better a bend."""
    return (
        abs(math.radians(reading.angle) - meant.angle) < HANDS_ANGLE + TOLERANCE
        and abs(reading.further) <= HANDS_MARK + READ_TO
        and abs(reading.turned) <= HANDS_TURN
    )


def _changes(settings: Sequence[Setting], rest: Sequence[int], piece: PieceToCorrect) -> list[Change]:
    """Changes of the rest that can be done, those that bring the end nearest first."""
    parts = parts_of(settings, *least_change(settings, rest, piece))
    return [(better, cuts) for better, cuts in parts if _can_be_done(settings, better, rest, piece)]


def _first(changes: Sequence[Change], piece: PieceToCorrect, is_enough: Callable[[Bent], bool]) -> Change | None:
    """The first change that is enough for the pipe as it is then bent."""
    return next((change for change in changes if is_enough(piece.bent(*change))), None)


def _as_it_is(settings: Sequence[Setting], piece: PieceToCorrect) -> Change | None:
    """The pipe with nothing changed, if somebody lives with that."""
    return _first([(settings, UNCUT)], piece, lambda bent: is_lived_with(piece, bent))


def is_sawn(cut: float) -> bool:
    """Whether a correction moves a cut by so much, in inches, that a saw takes it off."""
    return abs(cut) >= LEAST_CUT


def _differs(one: Setting, other: Setting) -> bool:
    turned = abs(math.remainder(one.roll - other.roll, 2 * math.pi)) > math.radians(0.5)
    return turned or abs(one.mark - other.mark) > LEAST_CUT or abs(one.angle - other.angle) > math.radians(0.1)


def _rebent(
    planned: Sequence[Setting],
    settings: Sequence[Setting],
    out: Sequence[AsBent],
    rest: Sequence[int],
    piece: PieceToCorrect,
) -> Correction | None:
    """The bends that are out brought back to their planned angles, and the rest re-planned if need be.

    None where there are none, where hands cannot open or twist so far, or where the end would still not fit.
    """
    if not out or any(not can_open(piece, -_short(planned, one)) or not can_twist(piece, one.turned) for one in out):
        return None
    straightened = list(settings)
    for one in out:
        # A sweep is opened along all of it; what is under is closed at its last shot.
        shots = piece.made_with(one.bend, rest) if _short(planned, one) < 0 else [one.bend]
        share = _short(planned, one) / len(shots)
        for shot in shots:
            straightened[shot] = replace(straightened[shot], angle=settings[shot].angle + share)
        straightened[one.bend] = replace(straightened[one.bend], roll=planned[one.bend].roll)
    rebends = [rebend for one in out for rebend in _rebends(planned, one)]
    back = _rebend_words(rebends, piece)
    if piece.fits(piece.bent(straightened)):
        says = joined((back, message("correct.then_go_on")))
        return _told("rebend", piece, settings, straightened, says, rebends)
    better = _made_up(straightened, _changes(straightened, rest, piece), rest, piece, back)
    if not better or not _is_as_planned(better, piece):
        return None
    return _told("rebend", piece, settings, better.settings, better.says, rebends, better.cuts)


def _rebends(planned: Sequence[Setting], one: AsBent) -> Iterator[Rebend]:
    """What brings a bend back: into its plane first, then to its angle."""
    if abs(one.turned) > HANDS_TURN:
        yield Rebend(one.bend, one.turned, twist=True)
    if abs(_short(planned, one)) >= HANDS_ANGLE:
        yield Rebend(one.bend, math.degrees(_short(planned, one)))


def _rebend_words(rebends: Sequence[Rebend], piece: PieceToCorrect) -> Message:
    """What is under goes back into the shoe; what is over is taken out by hand, as no shoe opens a bend."""
    by_hand = "correct.open" if is_thin(piece) else "correct.open_in_vise"
    twisted = [_by("correct.twist", one) for one in rebends if one.twist]
    rebends = [one for one in rebends if not one.twist]
    opened = [one for one in rebends if one.by <= 0]
    close = [_by("correct.close_one", one) for one in rebends if one.by > 0]
    words = [message("correct.close", bends=joined(close, message("correct.and")))] if close else []
    return joined(
        [*twisted, *words, *(_by("correct.open_sweep" if piece.is_shot(one.bend) else by_hand, one) for one in opened)]
    )


def _by(key: str, rebend: Rebend) -> Message:
    return message(key, bend=rebend.bend + 1, by=f"{abs(rebend.by):.1f}")


def _why_scrap(
    planned: Sequence[Setting], readings: Sequence[AsBent], out: Sequence[AsBent], piece: PieceToCorrect
) -> Message:
    dog_leg = next((one for one in readings if abs(one.turned) > HANDS_TURN), None)
    if dog_leg:
        return message("correct.scrap_dog_leg", bend=dog_leg.bend + 1, by=f"{abs(dog_leg.turned):.1f}")
    for one in out:
        over = -_short(planned, one)
        if not can_open(piece, over):
            return message("correct.scrap_over", bend=one.bend + 1, by=f"{math.degrees(over):.1f}")
    return message("correct.scrap")


def _has_room(before: Sequence[Setting], after: Sequence[Setting], piece: PieceToCorrect) -> bool:
    """Whether the shoe finds straight pipe between bends as a plan would have it, or as there was before."""
    least = piece.shoe.least_between
    gaps = zip(_gaps(before, piece), _gaps(after, piece), strict=True)
    return all(now >= min(was, least) - TOLERANCE for was, now in gaps)


def _gaps(settings: Sequence[Setting], piece: PieceToCorrect) -> list[float]:
    """The straights before the first bend and between bends, along the pipe, in inches."""
    arcs = [arc_of(one, piece.shoe) for one in settings]
    edges = [0.0, *(edge for arc in arcs for edge in (arc.start, arc.end))]
    return [after - before for before, after in zip(edges[::2], edges[1::2], strict=False)]


def _gentle(before: Sequence[Setting], after: Sequence[Setting], rest: Sequence[int], piece: PieceToCorrect) -> bool:
    return all(
        abs(after[i].angle - before[i].angle) <= MOST_REPLANNED
        and abs(after[i].roll - before[i].roll) <= MOST_TURNED
        and abs(after[i].mark - before[i].mark) <= (MOST_SWEPT if piece.is_shot(i) else MOST_MOVED) + piece.misplaced
        and after[i].angle > 0
        for i in rest
    )
