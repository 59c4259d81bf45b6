"""The one call that puts it together: a run document in, its plan out."""

import math
from collections.abc import Iterator, Mapping
from functools import lru_cache
from typing import Any

from conduit.bender import Shoe
from conduit.catalogue import Message, message
from conduit.document import End, Head, MeasuredRun, PullPointStep, Start, is_of_shoe, lengths_in, read_length, spelled
from conduit.findings import Finding, stops
from conduit.layout import (
    Layout,
    PathBend,
    blocked,
    closure_of,
    closure_words,
    degrees_of,
    no_couplings,
    point_at,
    room_to_move,
)
from conduit.marking import Mark, StepArithmetic, exact_way, mark_lines, recommend, shoe_lines, stub_habits
from conduit.plan.checked_run import CheckedRun, check_run
from conduit.plan.drawing import picture_of
from conduit.plan.fixes import untried
from conduit.plan.proof import Prover
from conduit.plan.schema import (
    BenchBend,
    Closure,
    ExactAnswer,
    FieldReading,
    Measure,
    Plan,
    PlannedBend,
    PlannedCoupling,
    PlannedMark,
    PlannedPiece,
    ShoeUsed,
    Stub,
)
from conduit.simulation import Arc
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import TOLERANCE, Tape, format_angle


def make_plan(raw: object, limits: Limits = DEFAULT_LIMITS) -> Plan:
    """Plan a run document given as plain data (as read from JSON).

    Every fault is a finding in the plan, at its place; the rest is planned as far as it goes.
    Raises UnreadableDocument where `raw` is not a run document at all.
    """
    return plan_of(raw, check_run(raw, limits))


def plan_of(raw: object, checked: CheckedRun) -> Plan:
    """The plan of a document that is laid out already."""
    if not checked.shoe or not checked.layout:
        return _bare(checked.measured, checked.findings, raw, checked.limits)
    bare = _bare(checked.measured, untried(checked.findings), raw, checked.limits)
    return _Planner(checked, checked.layout, checked.shoe).fill(bare)


def _bare(measured: MeasuredRun, findings: list[Finding], raw: object, limits: Limits) -> Plan:
    """The plan of a run that cannot be begun: what was read, and the findings."""
    head = measured.head
    return Plan(
        makeable=False,
        complete=False,
        name=head.name,
        material=head.material,
        trade_size=head.trade_size,
        shoe=None,
        developed_length=None,
        degrees=0.0,
        limits=limits,
        end_point=None,
        bends=[],
        pieces=[],
        couplings=[],
        coupling_gap=Measure.of(head.gap_by(limits), head.tape),
        joints=head.joined_by,
        no_couplings=[],
        simulated=[],
        card=[],
        card_cut=None,
        exact=[],
        by_hand=None,
        supports=[],
        closure=None,
        picture=None,
        fields=list(_fields(raw, head)),
        findings=findings,
    )


def _fields(raw: object, head: Head) -> Iterator[FieldReading]:
    """Every length in the document that can be read, with what the tape shows for it."""
    for place, written in lengths_in(raw) if isinstance(raw, Mapping) else ():
        inches = read_length(place, written, head.tape.step)
        if inches is not None:
            yield FieldReading(
                place=place,
                written=str(written),
                inches=inches,
                reads=head.tape.shows(inches),
                rounded=not is_of_shoe(place) and abs(head.tape.rounded(inches) - inches) > TOLERANCE,
                spelled=spelled(place, written, head.tape.step),
            )


@lru_cache(maxsize=256)
def _shoe_used(shoe: Shoe, tape: Tape) -> ShoeUsed:
    """A crew has few shoes, and a run is planned over and over on the same."""
    return ShoeUsed.of(shoe, tape, shoe_lines(shoe))


def _proved(prover: Prover) -> dict[str, Any]:
    """What simulation, card and tolerance say of a run that can be bent."""
    return {
        "simulated": prover.simulated(),
        "card": prover.card(),
        "card_cut": prover.card_cut(),
        "by_hand": prover.by_hand(),
    }


class _Planner:
    """Turns a layout into the plan's form: rounds and words what is shown, carries the rest as it is."""

    def __init__(self, checked: CheckedRun, layout: Layout, shoe: Shoe) -> None:
        self.checked, self.layout, self.shoe = checked, layout, shoe
        self.measured, self.couplings, self.limits = checked.measured, list(checked.couplings), checked.limits
        self.head, self.path = self.measured.head, layout.path

    def fill(self, bare: Plan) -> Plan:
        """The bare plan with all that the layout gives: bends, marks, pieces, couplings, straps, picture, proof.

        Also where something stands against the run: what bending it shows is then told as well, but it is not
        makeable.
        """
        complete = self.layout.complete and not stops(bare.findings)
        # What bending it has against a run is shown, so it is proved all the same.
        prover = self.checked.prover
        proved = _proved(prover) if prover else {}
        straps = self.checked.straps
        passed = [one.clearance.inches for one in proved["simulated"][0].passed] if prover else []
        return bare.model_copy(
            update={
                "makeable": complete,
                "complete": self.layout.complete,
                "shoe": _shoe_used(self.shoe, self.head.tape),
                "developed_length": self.measure(self.path.length) if self.layout.complete else None,
                "degrees": degrees_of(self.layout),
                "end_point": tuple(self.layout.ends_at) if self.layout.complete else None,
                "bends": [self._bend(i, bend) for i, bend in enumerate(self.path.bends)],
                "pieces": self._pieces() if complete else [],
                "couplings": self._planned_couplings(),
                "no_couplings": no_couplings(self.layout),
                "exact": [self._exact(one) for one in exact_way(self.layout, self.measured.steps, self.shoe)],
                "closure": self._closure(),
                "supports": [self.measure(place) for place in straps],
                **proved,
                "picture": picture_of(self.layout, self.measured, self.shoe, self.couplings, straps, passed),
            }
        )

    def measure(self, inches: float) -> Measure:
        return Measure.of(inches, self.head.tape)

    def _bend(self, index: int, bend: PathBend) -> PlannedBend:
        return PlannedBend(
            number=index + 1,
            step=self.layout.owners[index],
            angle=math.degrees(bend.angle),
            angle_reads=format_angle(math.degrees(bend.angle)),
            roll=math.degrees(bend.roll),
            start=self.measure(bend.start),
            end=self.measure(bend.end),
            straight_before=self.measure(bend.straight_before),
        )

    def _mark(self, mark: Mark, length: float) -> PlannedMark:
        on_pipe = 0 <= mark.at <= length
        return PlannedMark(reference=mark.reference, hook=mark.hook, at=self.measure(mark.at), on_pipe=on_pipe)

    def _pieces(self) -> list[PlannedPiece]:
        last, names = len(self.couplings), self._names()
        return [
            PlannedPiece(
                number=i + 1,
                start=start,
                length=self.measure(end - start),
                end_a=self._end("start", self.measured.start) if i == 0 else names[i - 1],
                end_b=self._end("end", self.measured.end) if i == last else names[i],
                bends=self._bench_bends(start, end),
            )
            for i, (start, end) in enumerate(self.checked.pieces)
        ]

    @staticmethod
    def _end(which: str, box: Start | End | None) -> Message:
        return Message(box.name) if box and box.name else message(f"end.{which}")

    def _names(self) -> list[Message]:
        """What each break in the pipe is called: a pull point by its name, couplings by their number."""
        steps = {
            self.layout.marker_position(marker): self.measured.steps[marker.step] for marker in self.layout.markers
        }
        names = []
        for number, place in enumerate(self.couplings, 1):
            step = steps.get(place)
            if isinstance(step, PullPointStep):
                names.append(Message(step.name) if step.name else message("end.pull_point", number=number))
            else:
                names.append(message("end.coupling", number=number))
        return names

    def _bench_bends(self, start: float, end: float) -> list[BenchBend]:
        numbers = [i for i, bend in enumerate(self.path.bends) if start <= bend.start < end]
        return [self._bench_bend(i, numbers[0], start, end) for i in numbers]

    def _bench_bend(self, index: int, first: int, start: float, end: float) -> BenchBend:
        bend = self.path.bends[index]
        arc = Arc(bend.start - start, bend.end - start, bend.roll, bend.angle)
        use = recommend(arc.start, arc.end, self.shoe, end - start, self.layout.within_saddle(index))
        return BenchBend(
            number=index + 1,
            angle=math.degrees(bend.angle),
            angle_reads=format_angle(math.degrees(bend.angle)),
            arc_start=bend.start - start,
            arc_end=bend.end - start,
            use=self._mark(use.mark, end - start),
            use_because=use.reason,
            why=mark_lines(arc, use.mark, self.shoe, self.measure(use.mark.at).reads),
            stub=self._stub(index, start, first),
        )

    def _stub(self, index: int, start: float, first: int) -> Stub | None:
        """The other habits of a stub, where the piece's first bend is a 90 measured from its end A."""
        if index != first or not self.layout.is_ninety(index):
            return None
        bend = self.path.bends[index]
        height = bend.vertex.minus(point_at(self.path, start)[0]).dot(bend.heading_before) + self.shoe.diameter / 2
        habits = stub_habits(height, self.shoe)
        return Stub(
            burnt_deduct=self.measure(habits.burnt_deduct),
            burnt_mark=self.measure(habits.burnt_mark),
            slide_to=self.measure(habits.slide_to),
            front_edge=None if habits.front_edge is None else self.measure(habits.front_edge),
        )

    def _exact(self, one: StepArithmetic) -> ExactAnswer:
        spacing, shrink = (None if value is None else self.measure(value) for value in (one.spacing, one.shrink))
        return ExactAnswer(step=one.step, spacing=spacing, shrink=shrink, lines=list(one.lines))

    def _planned_couplings(self) -> list[PlannedCoupling]:
        spans, gap = blocked(self.layout), self.head.gap_by(self.limits)
        steps = {self.layout.marker_position(marker): marker.step for marker in self.layout.markers}
        boxes = {self.layout.marker_position(one) for one in self.layout.markers if one.kind == "pull_point"}
        pinned = {place: index for index, place in enumerate(self.head.couplings)}
        fixed = self.checked.fixed
        rooms = room_to_move(self.couplings, self.path.length, spans, self.limits, gap, fixed)
        return [
            PlannedCoupling(
                at=self.measure(place),
                room=room,
                pinned=pinned.get(place),
                step=steps.get(place),
                gap=fixed.get(place, gap),
                box=place in boxes,
            )
            for place, room in zip(self.couplings, rooms, strict=True)
        ]

    def _closure(self) -> Closure | None:
        error = closure_of(self.layout, self.measured)
        if error is None:
            return None
        taped = sum(one.inches for one in self.layout.dimensions if one.place.endswith((".at", ".near")))
        off = error.length()
        return Closure(
            off=error,
            off_reads=closure_words(error, self.head),
            distance=self.measure(off),
            measured=self.measure(taped),
            one_in=round(taped / off) if off > TOLERANCE else None,
            within=off <= self.limits.closure,
        )
