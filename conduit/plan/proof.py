"""A layout proved: bent in simulation from several kinds of marks, and what hands would do to it."""

import math
from collections.abc import Sequence
from functools import cached_property
from typing import Literal

from conduit.bender import Shoe
from conduit.catalogue import NOTHING, Message, message
from conduit.document import AnyStep, MeasuredRun
from conduit.geometry import square_to
from conduit.layout import Hindrance, Layout, PathBend, point_at
from conduit.marking import CardRun, CardStep, CardWay, card_way, mark_of_arc, recommend
from conduit.plan.judgement import Judgement, judge
from conduit.plan.schema import (
    ByHand,
    CardAnswer,
    CardCut,
    CardMarkPlanned,
    CardWayPlanned,
    Measure,
    Passed,
    Simulated,
    SpreadAt,
)
from conduit.plan.tolerance import USUAL_HANDS, Hands, spread_at, spread_at_end
from conduit.simulation import Bent, Pose, Setting, Swings, bend_pipe
from conduit.units import FINE_TAPE, MM_PER_INCH, Tape


def proposed_settings(bends: Sequence[PathBend], shoe: Shoe, length: float) -> list[Setting]:
    """The exact proposed setting of each bend, on a pipe of `length`."""
    settings = []
    for bend in bends:
        mark = recommend(bend.start, bend.end, shoe, length).mark
        settings.append(Setting(mark.at, mark.reference, mark.hook, bend.roll, bend.angle))
    return settings


class Prover:
    """Bends a complete layout in simulation on its shoe."""

    def __init__(self, measured: MeasuredRun, layout: Layout, shoe: Shoe) -> None:
        self.measured, self.layout, self.shoe = measured, layout, shoe
        self.head, self.path = measured.head, layout.path
        self._swings: Swings = {}

    @cached_property
    def by_card(self) -> CardRun:
        """The card's way."""
        steps: list[AnyStep] = [step for step in self.measured.steps if step is not None]
        start, end = self.measured.start, self.measured.end
        takes = [one.connector or 0.0 if one else 0.0 for one in (start, end)]
        return card_way(
            steps, self.shoe, self.head.stand_off, self.head.tape, end.at if end else None, (takes[0], takes[1])
        )

    def measure(self, inches: float) -> Measure:
        """A length, exact and as the tape reads it."""
        return Measure.of(inches, self.head.tape)

    @cached_property
    def exact_settings(self) -> tuple[Setting, ...]:
        """The proposed marks of every bend, unrounded."""
        return tuple(proposed_settings(self.path.bends, self.shoe, self.path.length))

    @cached_property
    def exact_bent(self) -> Bent:
        """The pipe that these make."""
        return self.bent(self.exact_settings)

    @cached_property
    def exact(self) -> Judgement:
        """How that pipe lies against the layout."""
        return self.judgement_of(self.exact_bent)

    def rounded_settings(self) -> list[Setting]:
        """The same as rounded for the tape."""
        return [
            Setting(self.head.tape.rounded(one.mark), one.reference, one.hook, one.roll, one.angle)
            for one in self.exact_settings
        ]

    def card_settings(self) -> list[Setting] | None:
        """The card's marks, bent to the rolls of the layout; None where the card does not know every bend."""
        marks = [mark for step in self.by_card.steps for mark in step.marks]
        if len(marks) != len(self.path.bends):
            return None
        return [
            Setting(mark.at, mark.reference, mark.hook, bend.roll, math.radians(mark.angle))
            for mark, bend in zip(marks, self.path.bends, strict=True)
        ]

    def bent(self, settings: Sequence[Setting], longer: float = 0.0) -> Bent:
        """The pipe that these settings make, held where the run starts; it may be longer than was laid out."""
        bends = self.path.bends
        inward = bends[0].axis.cross(self.path.heading) if bends else square_to(self.path.heading)
        held = Pose(self.path.origin, self.path.heading, inward)
        return bend_pipe(self.path.length + longer, settings, self.shoe, held, self._swings)

    def judged(self, settings: Sequence[Setting], with_self: bool = True) -> Judgement:
        """The pipe that these settings make, against the layout."""
        return self.judgement_of(self.bent(settings), with_self)

    def judgement_of(self, bent: Bent, with_self: bool = True) -> Judgement:
        """A bent pipe against the layout."""
        return judge(bent, self.layout, self.measured, self.shoe.diameter, with_self)

    def simulated(self) -> list[Simulated]:
        """Exact, rounded and (where it knows every bend) card."""
        found = [self._simulated("exact", self.exact)]
        # Rounded and card marks move the pipe too little to change how near it comes to itself.
        found.append(self._simulated("rounded", self.judged(self.rounded_settings(), with_self=False)))
        by_card = self.card_settings()
        if by_card is not None:
            found.append(self._simulated("card", self.judged(by_card, with_self=False)))
        return found

    def _simulated(self, marks: Literal["exact", "rounded", "card"], judgement: Judgement) -> Simulated:
        end = judgement.end
        return Simulated(
            marks=marks,
            miss=end.distance,
            miss_reads=self.measure(end.distance).reads,
            off=(end.right, end.up, end.out),
            angles_off=(end.first_angle, end.second_angle),
            passed=[
                Passed(
                    place=one.place,
                    name=one.name,
                    clearance=self.measure(one.clearance),
                    wanted=self.measure(one.wanted),
                )
                for one in judgement.cleared
            ],
            self_clearance=judgement.nearest.gap if judgement.nearest else None,
            clash=judgement.clash,
        )

    def card(self) -> list[CardAnswer]:
        """The card's answers, step by step."""
        return [self._card_answer(step) for step in self.by_card.steps]

    def _card_answer(self, step: CardStep) -> CardAnswer:
        bends = self.layout.bends_of(step.step)
        ways = [self._card_way(way, bends) for way in step.ways]
        usual = ways[0] if ways else CardWayPlanned(name=NOTHING, marks=[], lines=[], costs=None)
        return CardAnswer(
            step=step.step,
            name=usual.name,
            marks=usual.marks,
            spacing=None if step.spacing is None else self.measure(step.spacing),
            shrink=None if step.shrink is None else self.measure(step.shrink),
            lines=[*step.lines, *usual.lines, *step.after],
            costs=usual.costs,
            others=ways[1:],
        )

    def _card_way(self, way: CardWay, bends: Sequence[PathBend]) -> CardWayPlanned:
        exact = [
            mark_of_arc(bend.start, bend.end, self.shoe, mark.reference, mark.hook).at
            for mark, bend in zip(way.marks, bends, strict=False)
        ]
        known = len(bends) == len(way.marks)
        marks = [
            CardMarkPlanned(
                reference=mark.reference,
                hook=mark.hook,
                at=self.measure(mark.at),
                angle=mark.angle,
                exact=self.measure(exact[number]) if known else None,
            )
            for number, mark in enumerate(way.marks)
        ]
        worst = max((abs(mark.at - at) for mark, at in zip(way.marks, exact, strict=False)), default=0.0)
        return CardWayPlanned(
            name=way.name, marks=marks, lines=list(way.lines), costs=self.measure(worst) if known else None
        )

    def card_cut(self) -> CardCut | None:
        """The length that the card says to cut."""
        run = self.by_card
        if run.cut is None:
            return None
        return CardCut(length=self.measure(run.cut), exact=self.measure(self.path.length), lines=list(run.cut_lines))

    def by_hand(self, hands: Hands = USUAL_HANDS) -> ByHand:
        """What hands do to it: how far end B spreads, which bend matters most, how likely it fits.

        By docs/trade.md, Hands. `hands`: standard deviations of marks (inches), angles and rolls (degrees).
        """
        spread = spread_at_end(self.path, hands)
        most_sensitive = spread.most_sensitive
        return ByHand(
            along=self.measure(spread.along),
            across=self.measure(spread.across),
            most_sensitive_bend=most_sensitive.bend if most_sensitive else None,
            most_sensitive_what=most_sensitive.what if most_sensitive else "",
            per_degree=[self.measure(moved) for moved in spread.per_degree],
            chance_to_fit=spread.fits,
            precut=spread.precut,
            allowance=self.measure(spread.spare),
            hands=hands.called,
            sigmas=_sigmas(hands, self.head.tape),
            at_things=[self._spread_at(thing, hands) for thing in self.layout.hindrances],
        )

    def _spread_at(self, thing: Hindrance, hands: Hands) -> SpreadAt:
        """Where the pipe is highest over a thing, or past its near face."""
        own = self.layout.indices_of(thing.step)
        bends = self.path.bends
        first, last = bends[own[0]], bends[own[-1]]
        s = (first.start + last.end) / 2 if len(own) > 2 else last.end
        point, heading = point_at(self.path, s)
        beyond = sum(1 for bend in bends if bend.end <= s + 1e-9)
        along, across, _ = spread_at(self.path, point, heading, beyond, hands)
        return SpreadAt(place=thing.place, along=self.measure(along), across=self.measure(across))


def _sigmas(hands: Hands, tape: Tape) -> Message:
    """What hands do, as finely as it is reckoned with: a pencil's 1/32 is no 1/16, whatever the tape's divisions."""
    mark = f"{hands.mark * MM_PER_INCH:.1f} mm" if tape.is_metric else FINE_TAPE.shows(hands.mark)
    return message("hands.sigmas", mark=mark, angle=f"{hands.angle:g}", roll=f"{hands.roll:g}")
