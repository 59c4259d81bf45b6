"""Checking marks that somebody laid: the pipe they make, whether they are right, and if not what was done wrong."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

from conduit.bender import CENTRE, Shoe
from conduit.catalogue import NOTHING, Message, joined, message
from conduit.document import KickStep, MeasuredRun
from conduit.layout import Layout
from conduit.mark_check.mistakes import Case, Explanation, MarksDoNotMatch, PencilMark, best_mistake, within_a_sixteenth
from conduit.marking import CardRun, CardStep, recommend
from conduit.plan import Judgement, Prover
from conduit.simulation import Arc, Bent, Setting, arc_of
from conduit.tables import Limits
from conduit.units import format_angle

# Degrees: what a finder tells, and what an eye tells of a roll. Inches: where the pipe may end.
ANGLE_RIGHT, TURN_RIGHT, END_RIGHT = 0.5, 2.0, 1 / 4
# A connector takes so much between its shoulder and the box.
LEAST_CONNECTOR, MOST_CONNECTOR = 0.4, 2.0
KICK_IN_RADIUS = "kick_in_radius"


@dataclass(frozen=True)
class CutPiece:
    """A piece as it was cut, or as it is planned: its end A on the run's pipe, planned and cut length."""

    start: float
    planned: float
    length: float

    @property
    def off(self) -> float:
        """How much too long it is cut."""
        return self.length - self.planned


@dataclass(frozen=True)
class Verdict:
    """What was found: each mark's difference from what it should be, the pipe they make, and what was done."""

    right: bool
    should_be: tuple[float, ...]
    off: tuple[float, ...]
    angle_off: tuple[float, ...]
    judgement: Judgement
    bent: Bent
    explanations: tuple[Explanation, ...]

    @property
    def explanation(self) -> Explanation | None:
        """What explains most."""
        return self.explanations[0] if self.explanations else None


def check_marks(
    measured: MeasuredRun,
    layout: Layout,
    shoe: Shoe,
    limits: Limits,
    laid: Sequence[PencilMark],
    pieces: Sequence[CutPiece] = (),
) -> Verdict:
    """Judge marks laid for a complete layout, on pieces that may be cut otherwise than planned.

    Raises MarksDoNotMatch unless there is one mark for each bend.
    """
    bends = layout.path.bends
    if len(laid) != len(bends):
        raise MarksDoNotMatch(message("marks.count", bends=len(bends), marks=len(laid)))
    prover = Prover(measured, layout, shoe)
    case = Case(measured, layout, shoe, limits, tuple(_filled(mark, i, layout, shoe) for i, mark in enumerate(laid)))
    should = case.exact()
    off = [mark.at - right for mark, right in zip(case.laid, should, strict=True)]
    angle_off = [(mark.angle or 0.0) - math.degrees(bend.angle) for mark, bend in zip(case.laid, bends, strict=True)]
    bent = _bent(prover, case, pieces)
    judgement = prover.judgement_of(bent)
    checker = _Checker(case, should, off, angle_off, pieces, judgement, prover.by_card)
    found = tuple(checker.explanations())
    right = not found and checker.all_within and judgement.end.distance <= END_RIGHT
    return Verdict(right, tuple(should), tuple(off), tuple(angle_off), judgement, bent, found)


def _bent(prover: Prover, case: Case, pieces: Sequence[CutPiece]) -> Bent:
    """The pipe as it comes out: a piece that is cut too long moves all that follows."""
    settings = [
        Setting(
            mark.at + sum(piece.off for piece in pieces if piece.start + piece.planned <= bend.start),
            mark.reference,
            mark.hook or "A",
            bend.roll + math.radians(mark.turned),
            math.radians(mark.angle or 0.0),
        )
        for mark, bend in zip(case.laid, case.layout.path.bends, strict=True)
    ]
    return prover.bent(settings, sum(piece.off for piece in pieces))


def _filled(mark: PencilMark, index: int, layout: Layout, shoe: Shoe) -> PencilMark:
    """What was not said is taken as proposed."""
    bend = layout.path.bends[index]
    usual = recommend(bend.start, bend.end, shoe, layout.path.length).mark
    if mark.reference and mark.reference not in (CENTRE, *shoe.references()):
        raise MarksDoNotMatch(message("marks.no_reference", mark=index + 1, reference=mark.reference))
    angle = mark.angle if mark.angle is not None else math.degrees(bend.angle)
    return PencilMark(mark.at, mark.reference or usual.reference, mark.hook or usual.hook, angle, mark.turned)


@dataclass(frozen=True)
class _Checker:
    case: Case
    should: list[float]
    off: list[float]
    angle_off: list[float]
    pieces: Sequence[CutPiece]
    judgement: Judgement
    card: CardRun

    @cached_property
    def arcs(self) -> list[Arc]:
        """Where these marks put the bends."""
        return [arc_of(_setting(mark), self.case.shoe) for mark in self.case.laid]

    @property
    def all_within(self) -> bool:
        """Whether each mark is right, whatever is meant with it."""
        return all(map(within_a_sixteenth, self.off))

    def explanations(self) -> Iterator[Explanation]:
        """What was done, what explains most first.

        Kicks inside the radius, then the card's own way or the one mistake that explains the marks best, other
        overlaps, then wrong angles, rolls and cuts; where every mark is right and the end is not, that they add up.
        """
        overlaps = list(self._overlaps())
        yield from (one for one in overlaps if one.code == KICK_IN_RADIUS)
        if not self.all_within:
            found = self._by_card() or best_mistake(self.case, self.should)
            if found:
                yield found
        yield from (one for one in overlaps if one.code != KICK_IN_RADIUS)
        yield from self._angles()
        yield from self._turns()
        yield from self._cuts()
        if self.all_within and self.judgement.end.distance > END_RIGHT and not any(self._others()):
            yield Explanation("adds_up", message("mistake.adds_up", off=self._end), None, 1.0)

    def _others(self) -> Iterator[bool]:
        yield any(abs(one) > ANGLE_RIGHT for one in self.angle_off)
        yield any(abs(mark.turned) > TURN_RIGHT for mark in self.case.laid)
        yield any(not within_a_sixteenth(piece.off) for piece in self.pieces)

    @property
    def _end(self) -> str:
        return self._shows(self.judgement.end.distance)

    def _shows(self, inches: float) -> str:
        head = self.case.measured.head
        return head.tape.shows(inches)

    def _owner(self, bend: int) -> int:
        return self.case.layout.owners[bend]

    def _overlaps(self) -> Iterator[Explanation]:
        """Bends that would run into each other, where these marks put them."""
        arcs = self.arcs
        order = sorted(range(len(arcs)), key=lambda bend: arcs[bend].start)
        for one, other in pairwise(order):
            over = arcs[one].end - arcs[other].start
            if over <= 1e-6:
                continue
            step, by = self._owner(other), self._shows(over)
            if self._owner(one) == step and isinstance(self.case.measured.steps[step], KickStep):
                yield Explanation(KICK_IN_RADIUS, message("mistake.kick_in_radius", by=by), step, 1.0)
            else:
                says = message("mistake.bends_overlap", one=one + 1, other=other + 1, by=by)
                yield Explanation("bends_overlap", says, step, 1.0)

    def _by_card(self) -> Explanation | None:
        """Marks that are the card's, in any of its ways, where they are not this shoe's."""
        ways = [way for step in self.card.steps if (way := self._way_of(step)) is not None]
        if len(ways) < len(self.card.steps):
            return None
        named = joined(dict.fromkeys(ways), ", ")
        says = message("mistake.card", ways=named, off=self._end)
        return Explanation("card", says, None, 1.0)

    def _way_of(self, step: CardStep) -> Message | None:
        """How the card has a step's marks: a way's name, nothing where they are exact, None where neither."""
        own = self.case.layout.indices_of(step.step)
        if all(within_a_sixteenth(self.off[bend]) for bend in own):
            return NOTHING
        laid = [self.case.laid[bend] for bend in own]
        for way in step.ways:
            pairs = list(zip(way.marks, laid, strict=False))
            if len(way.marks) == len(laid) and all(
                within_a_sixteenth(card.at - mark.at) and (card.reference, card.hook) == (mark.reference, mark.hook)
                for card, mark in pairs
            ):
                return way.name
        return None

    def _angles(self) -> Iterator[Explanation]:
        for bend, off in enumerate(self.angle_off):
            if abs(off) > ANGLE_RIGHT:
                wanted = math.degrees(self.case.layout.path.bends[bend].angle)
                angles = {"angle": format_angle(wanted + off), "wanted": format_angle(wanted)}
                yield Explanation(
                    "wrong_angle", message("mistake.angle", bend=bend + 1, **angles), self._owner(bend), 1.0
                )

    def _turns(self) -> Iterator[Explanation]:
        for bend, mark in enumerate(self.case.laid):
            turned = abs(mark.turned)
            if turned > TURN_RIGHT:
                key = "mistake.faces" if turned > 135 else "mistake.rolled"
                says = message(key, bend=bend + 1, off=format_angle(turned))
                yield Explanation("turned", says, self._owner(bend), 1.0)

    def _cuts(self) -> Iterator[Explanation]:
        for number, piece in enumerate(self.pieces, 1):
            if within_a_sixteenth(piece.off):
                continue
            by, last = self._shows(abs(piece.off)), number == len(self.pieces)
            if self._ends_in_bend(piece):
                says = message("mistake.coupling_in_bend", piece=number)
                yield Explanation("coupling_in_bend", says, None, 1.0)
            elif last and LEAST_CONNECTOR <= piece.off <= MOST_CONNECTOR:
                says = message("mistake.measured_to_box", piece=number, by=by)
                yield Explanation("measured_to_box", says, None, 1.0)
            else:
                key = "mistake.too_long" if piece.off > 0 else "mistake.too_short"
                yield Explanation("cut_length", message(key, piece=number, by=by), None, 1.0)

    def _ends_in_bend(self, piece: CutPiece) -> bool:
        ends = piece.start + piece.length
        return any(
            arc.start < ends < arc.end
            for arc, bend in zip(self.arcs, self.case.layout.path.bends, strict=True)
            if piece.start <= bend.start < piece.start + piece.planned
        )


def _setting(mark: PencilMark) -> Setting:
    return Setting(mark.at, mark.reference, mark.hook or "A", 0.0, math.radians(mark.angle or 0.0))
