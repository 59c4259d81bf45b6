"""One stick of a laid-out run at the bench: where its bends lie on it, how they are set, where its end must come."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property

from conduit.bender import Hook, Shoe
from conduit.bending.piece_to_correct import Aim, PieceToCorrect
from conduit.bending.readings import Bench
from conduit.document import MeasuredRun
from conduit.geometry import DIRECTIONS, ORIGIN
from conduit.layout import Hindrance, Layout, point_at
from conduit.marking import Mark, Recommended, recommend
from conduit.plan import SLACK_ACROSS, CardAnswer, Cleared, Prover, judge_things
from conduit.sequence import arcs_on, units_of
from conduit.simulation import Arc, Bent, Pose, Setting, Swings, arc_of, bend_pipe
from conduit.units import TOLERANCE, Radians

Arcs = dict[int, Arc]
LYING = Pose(ORIGIN, DIRECTIONS["right"], DIRECTIONS["up"])
# Of the clearance that was wanted, so much must be left after a correction.
LEFT_OF_CLEARANCE = 0.5
# Of what was asked for a re-plan gives up no more than this, in inches, where there is another way.
MOST_GIVEN_UP = 1 / 8


@dataclass(frozen=True)
class Stick:
    """A piece from `start` to `end` on a run's straight pipe, cut with something to spare on either end.

    Places on it are from its end A as it is cut, `spare_a` before where that end seats. Bends are named by their index
    in the run.
    """

    prover: Prover
    start: float
    end: float
    spare: float = 0.0
    spare_a: float = 0.0

    @property
    def measured(self) -> MeasuredRun:
        """What was read of the run."""
        return self.prover.measured

    @property
    def layout(self) -> Layout:
        """The run's layout."""
        return self.prover.layout

    @property
    def shoe(self) -> Shoe:
        """The shoe that it is bent on."""
        return self.prover.shoe

    @property
    def length(self) -> float:
        """The piece's length once it is trimmed, in inches."""
        return self.end - self.start

    @property
    def end_b(self) -> float:
        """Where its end B is trimmed to."""
        return self.spare_a + self.length

    @property
    def cut(self) -> float:
        """How long it is cut: with what is spared on both ends."""
        return self.end_b + self.spare

    @cached_property
    def bench(self) -> Bench:
        """What readings are worked out from."""
        head = self.measured.head
        return Bench(self.layout, self.shoe.diameter, head.tape)

    @cached_property
    def arcs(self) -> Arcs:
        """Where the bends lie on the piece by the exact way."""
        arcs, on = arcs_on(self.layout, self.start, self.end), self.spare_a
        return {index: replace(arc, start=arc.start + on, end=arc.end + on) for index, arc in arcs.items()}

    def card_settings(self, card: list[CardAnswer]) -> dict[int, Setting]:
        """The bends as the card sets them, where it knows every bend of a step."""
        found: dict[int, Setting] = {}
        mine = {self.layout.owners[index] for index in self.arcs}
        for answer in card:
            own = self.layout.indices_of(answer.step) if answer.step in mine else []
            if len(own) != len(answer.marks):
                continue
            for index, mark in zip(own, answer.marks, strict=True):
                if index in self.arcs:
                    at, roll = mark.at.inches - self.start + self.spare_a, self.arcs[index].roll
                    found[index] = Setting(at, mark.reference, mark.hook, roll, math.radians(mark.angle))
        return found

    def habit(self, index: int, arc: Arc) -> Recommended:
        """Which mark to use for a bend, in the trade's habit."""
        return recommend(arc.start, arc.end, self.shoe, self.end_b, self.layout.within_saddle(index))

    def use(self, index: int, arc: Arc, hook: Hook) -> Recommended:
        """Which mark to use for a bend with the hook facing one end."""
        return recommend(arc.start, arc.end, self.shoe, self.end_b, self.layout.within_saddle(index), hook)

    def held(self) -> Pose:
        """Where the piece's end A lies before it is trimmed, with the frame that rolls are against."""
        return self.prover.exact_bent.pose_at(self.start).forward(-self.spare_a)

    @cached_property
    def piece(self) -> PieceToCorrect:
        """The piece as corrections see it: held where the run has it, its end B's place and direction the aim.

        It clears the things it passes while it keeps `LEFT_OF_CLEARANCE` of what it was planned to leave, or of what
        was asked for, whichever is less.
        """
        place, heading = point_at(self.layout.path, self.end)
        material = self.measured.head.material
        aim = Aim(place, heading)
        whole = PieceToCorrect(
            self.shoe, self.held(), self.end_b, aim, material, self.spare, self.spare_a, swept=self._swept()
        )
        if not self._things:
            return whole
        planned = [setting_of(self.habit(index, arc).mark, arc) for index, arc in self.arcs.items()]
        wanted = [min(one.clearance, one.wanted) for one in self._passed(whole.bent(planned))]

        def used(bent: Bent, least: Callable[[float], float]) -> float:
            left = [one.clearance for one in self._passed(bent)]
            short = max(least(was) - now for now, was in zip(left, wanted, strict=True))
            return 1 + (short - TOLERANCE) / SLACK_ACROSS

        return replace(
            whole,
            passing=lambda bent: used(bent, lambda was: LEFT_OF_CLEARANCE * was),
            keeping=lambda bent: used(bent, lambda was: was - MOST_GIVEN_UP),
        )

    def _swept(self) -> dict[tuple[int, ...], Radians]:
        """The shots of each sweep, by their place on the piece, and what they are to sum up to."""
        bends = list(self.arcs)
        _, groups = units_of(self.arcs, self.layout)
        sweeps = [tuple(bends.index(index) for index in group) for group in groups if len(group) > 1]
        return {sweep: sum(self.arcs[bends[place]].angle for place in sweep) for sweep in sweeps}

    @cached_property
    def _things(self) -> list[Hindrance]:
        own = {self.layout.owners[index] for index in self.arcs}
        return [thing for thing in self.layout.hindrances if thing.step in own]

    def _passed(self, bent: Bent) -> tuple[Cleared, ...]:
        begins = self.start - self.spare_a
        return judge_things(bent, self._things, self.layout, self.measured, self.shoe.diameter, begins)

    def bent(self, settings: Mapping[int, Setting]) -> Bent:
        """The piece with only these bends made, lying along x as bought: with its spare.

        A sheet asks for the same again and again: as one bend leaves the pipe, the next begins.
        """
        key = tuple(settings.values())
        if key not in self._known:
            self._known[key] = bend_pipe(self.cut, key, self.shoe, LYING, self._swings)
        return self._known[key]

    @cached_property
    def _known(self) -> dict[tuple[Setting, ...], Bent]:
        return {}

    @cached_property
    def _swings(self) -> Swings:
        return {}


def setting_of(mark: Mark, arc: Arc) -> Setting:
    """The setting that makes an arc with one of its marks."""
    return Setting(mark.at, mark.reference, mark.hook, arc.roll, arc.angle)


def arcs_of(settings: Mapping[int, Setting], shoe: Shoe) -> Arcs:
    """Where bends lie that are set so."""
    return {index: arc_of(one, shoe) for index, one in settings.items()}
