"""Whether the bends of a run's pieces can be made at all: straight pipe for the shoe, and an order of bending."""

from collections.abc import Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from itertools import pairwise

from conduit.bender import Shoe
from conduit.catalogue import message
from conduit.document import MeasuredRun, step_name
from conduit.findings import Code, Finding, Fix, found, setting, stops
from conduit.geometry import parts_of
from conduit.layout import Layout
from conduit.sequence.habits import units_of
from conduit.sequence.reach import Unit
from conduit.sequence.search import NoOrder, why_no_sequence
from conduit.simulation import Arc
from conduit.units import TOLERANCE


def pieces_of(
    layout: Layout, couplings: Sequence[float], gap: float, fixed: Mapping[float, float]
) -> list[tuple[float, float]]:
    """Where each piece of a run begins and ends on its straight pipe."""
    begins = [0.0, *(place + fixed.get(place, gap) for place in couplings)]
    return list(zip(begins, [*couplings, layout.path.length], strict=True))


def arcs_on(layout: Layout, start: float, end: float) -> dict[int, Arc]:
    """The bends of a piece by their index in the run, where they lie on it."""
    return {
        index: Arc(bend.start - start, bend.end - start, bend.roll, bend.angle)
        for index, bend in enumerate(layout.path.bends)
        if start <= bend.start < end
    }


@dataclass(frozen=True)
class _BentPiece:
    """A piece with bends: its number from 1, its bends as units, each unit's bends in the run, its length."""

    number: int
    units: list[Unit]
    groups: list[list[int]]
    length: float


def sequence_findings(
    measured: MeasuredRun, layout: Layout, shoe: Shoe, pieces: Sequence[tuple[float, float]]
) -> list[Finding]:
    """Pieces whose bends leave too little straight pipe for the shoe, or can be made in no order.

    `pieces`: from where to where each lies along the straight pipe, in inches. Too little room between two bends is
    told with what is there and what is needed; only the other pieces are searched for an order.
    """
    bent = []
    for number, (start, end) in enumerate(pieces, 1):
        arcs = arcs_on(layout, start, end)
        if arcs:
            bent.append(_BentPiece(number, *units_of(arcs, layout), end - start))
    close = [list(_close(piece, measured, layout, shoe)) for piece in bent]
    left = [piece for piece, told in zip(bent, close, strict=True) if not stops(told)]
    why = _known_why([(tuple(piece.units), piece.length) for piece in left], shoe)
    return [
        *(finding for told in close for finding in told),
        *(_no_order(piece, reason, measured, layout, shoe) for piece, reason in zip(left, why, strict=True) if reason),
    ]


# By a piece's bends, its length and the shoe: while a run is typed most of its pieces stay as they are.
_KNOWN: dict[tuple[tuple[Unit, ...], float, Shoe], NoOrder | None] = {}
MOST_KNOWN = 2000


def _known_why(pieces: Sequence[tuple[tuple[Unit, ...], float]], shoe: Shoe) -> list[NoOrder | None]:
    """`why_no_sequence`, from what was found before where a piece is as it was then."""
    keys = [(*piece, shoe) for piece in pieces]
    told = dict[tuple[tuple[Unit, ...], float, Shoe], NoOrder | None]()
    for key in keys:
        # Another thread may have emptied it meanwhile.
        with suppress(KeyError):
            told[key] = _KNOWN[key]
    asked = [key for key in dict.fromkeys(keys) if key not in told]
    found = why_no_sequence([(units, length) for units, length, _ in asked], shoe)
    told.update(zip(asked, found, strict=True))
    if len(_KNOWN) > MOST_KNOWN:
        _KNOWN.clear()
    _KNOWN.update(told)
    return [told[key] for key in keys]


def spare_needed(units: Sequence[Unit], shoe: Shoe, length: float) -> float | None:
    """What end B must have to spare for the bends to be made; 0 where nothing, None where no spare helps."""
    spare = parts_of(max(shoe.straight_ahead, shoe.straight_behind), 0.5) / 2
    why, longer = why_no_sequence([(list(units), length), (list(units), length + spare)], shoe)
    return 0.0 if not why else None if longer else spare


def _close(piece: _BentPiece, measured: MeasuredRun, layout: Layout, shoe: Shoe) -> Iterator[Finding]:
    """Bends without the straight before them that heel or hook need, or on the oval wall of another.

    A slight bend may lie there, or hang over.
    """
    first = piece.units[0]
    if not first.slight and first.start < shoe.straight_behind - TOLERANCE:
        owner = layout.owners[piece.groups[0][0]]
        yield _little_straight(
            Code.SHORT_STRAIGHT, owner, first.start, shoe.straight_behind, measured, case="before", bend=first.called
        )
    for (one, before), (other, group) in pairwise(zip(piece.units, piece.groups, strict=True)):
        straight, owner = other.start - one.end, layout.owners[group[0]]
        if straight < shoe.round_between - TOLERANCE and not (one.slight or other.slight):
            within = layout.owners[group[0] - 1] == owner
            back = _as_a_hook(shoe, measured) if _turns_back(layout, before[-1], group[0]) else ""
            case = "hook" if back else "within" if within else "between"
            bends: dict[str, str] = {"before": one.called, "bend": other.called}
            if straight < shoe.least_between - TOLERANCE:
                code, least, told = Code.SHORT_STRAIGHT, shoe.least_between, {"case": case, "back": back, **bends}
            else:
                code, least, told = Code.OVAL_STRAIGHT, shoe.round_between, bends
            yield _little_straight(code, owner, straight, least, measured, within, **told)


def _turns_back(layout: Layout, first: int, second: int) -> bool:
    """Whether two bends are 90s that turn the pipe back on itself: a shepherd's hook."""
    bends = layout.path.bends
    turned = bends[first].heading_before.dot(bends[second].heading_after)
    return layout.is_ninety(first) and layout.is_ninety(second) and turned < -1 + TOLERANCE


def _as_a_hook(shoe: Shoe, measured: MeasuredRun) -> str:
    """How far apart the backs of a shepherd's hook must stand: both radii, the straight between, the pipe itself."""
    return measured.head.tape.at_least(2 * shoe.radius + shoe.diameter + shoe.least_between)


def _little_straight(
    code: Code, owner: int, straight: float, least: float, measured: MeasuredRun, within: bool = False, **told: str
) -> Finding:
    place, fixes = _more_room(owner, least - straight, measured, within)
    room = {"straight": measured.head.tape.shows(straight), "needs": measured.head.tape.at_least(least)}
    return found(code, place, *fixes, step=step_name(owner, measured.steps[owner]), **room, **told)


def _more_room(owner: int, more: float, measured: MeasuredRun, within: bool) -> tuple[str, tuple[Fix, ...]]:
    """Where so much more straight would come from, in inches, and the measure with it where there is one."""
    step = measured.steps[owner]
    field = "angle" if within else step.placed_by if step else "at"
    measure = getattr(step, field, None)
    if measure is None:
        return f"steps.{owner}", ()
    place = f"steps.{owner}.{field}"
    if within:
        return place, ()
    value = measured.head.tape.at_least(measure + more)
    return place, (setting(message("fix.make_it", value=value), place, value),)


def _no_order(piece: _BentPiece, none: NoOrder, measured: MeasuredRun, layout: Layout, shoe: Shoe) -> Finding:
    if not none.proven:
        owner = layout.owners[piece.groups[0][0]]
        return found(Code.ORDER_NOT_FOUND, f"steps.{owner}", piece=piece.number, bends=len(piece.units))
    spare = spare_needed(piece.units, shoe, piece.length)
    if spare is None:
        owner = layout.owners[piece.groups[0][0]]
        return found(Code.NO_ORDER, f"steps.{owner}", piece=piece.number, why=none.why)
    owner = layout.owners[piece.groups[-1][-1]]
    called, shows = step_name(owner, measured.steps[owner]), measured.head.tape.shows(spare)
    return found(Code.BEND_LONG, f"steps.{owner}", step=called, piece=piece.number, spare=shows)
