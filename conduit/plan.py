"""The one call that puts it together: a run document in, its plan out."""

import math
from collections.abc import Iterator, Mapping
from typing import Any

from conduit.arithmetic import StepArithmetic, exact_way, mark_lines, shoe_lines
from conduit.bench import Bench, is_ninety, within_saddle
from conduit.checks import closure_of, closure_words, degrees_of, fixed_couplings, supports
from conduit.cutting.couplings import room_to_move, split
from conduit.document import Head, Reading
from conduit.geometry.path import PathBend, point_at
from conduit.laying import laid_out
from conduit.layout import Layout
from conduit.marks import Mark, marks_for, recommend, stub_habits
from conduit.picture import picture_of
from conduit.problems import Problem, setting, stops
from conduit.prove import Prover
from conduit.remedies import with_fixes
from conduit.results import (
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
from conduit.shoe import Shoe
from conduit.simulate import Arc
from conduit.tables import DEFAULT_RULES, Rules
from conduit.units import TOLERANCE, format_angle, format_length, parse_length
from conduit.verdicts import BY_BENDING


def make_plan(raw: object, rules: Rules = DEFAULT_RULES) -> Plan:
    """Plan a run document given as plain data (as read from JSON).

    Every fault is a problem in the plan, at its place; the rest is planned as far as it goes.
    Raises UnreadableDocument where `raw` is not a run document at all.
    """
    reading, layout, shoe, problems = laid_out(raw, rules)
    rules = with_own_stick(rules, reading.head)
    if not shoe or not layout:
        return _bare(reading, problems, raw, rules)
    couplings = _couplings(layout, reading.head, rules, problems)
    problems = with_fixes(raw, reading, layout, shoe, rules, problems)
    planner = _Planner(reading, layout, shoe, couplings, rules)
    return planner.fill(_bare(reading, problems, raw, rules))


def with_own_stick(rules: Rules, head: Head) -> Rules:
    """The rules with the longest piece that the run says for itself."""
    longest = head.longest_piece
    return rules if longest is None else rules.model_copy(update={"stick": min(480.0, max(12.0, longest))})


def _couplings(layout: Layout, head: Head, rules: Rules, problems: list[Problem]) -> list[float]:
    if not layout.complete:
        return []
    arcs = [(bend.start, bend.end) for bend in layout.path.bends]
    fixed = [*fixed_couplings(layout), *head.couplings]
    places = split(layout.path.length, arcs, rules, fixed, head.coupling_gap)
    if places is None:
        says = f"The run is longer than a stick of {rules.stick:g} and no straight leaves room for its couplings."
        freed = split(layout.path.length, arcs, rules, fixed_couplings(layout), head.coupling_gap) is not None
        problems.append(
            Problem(
                code="no_coupling_place",
                severity="stop",
                place="couplings" if head.couplings else "steps",
                says=says,
                remedy="Spread the bends, or put a box between.",
                fixes=(setting("Let couplings find their places", "couplings", []),) if freed else (),
            )
        )
    return places or []


def _bare(reading: Reading, problems: list[Problem], raw: object, rules: Rules) -> Plan:
    """The plan of a run that cannot be begun: what was read, and the problems."""
    head = reading.head
    return Plan(
        makeable=False,
        complete=False,
        name=head.name,
        material=head.material,
        trade_size=head.trade_size,
        shoe=None,
        developed_length=None,
        degrees=0.0,
        degrees_allowed=rules.most_degrees,
        end_point=None,
        bends=[],
        pieces=[],
        couplings=[],
        coupling_gap=head.coupling_gap,
        simulated=[],
        card=[],
        exact=[],
        by_hand=None,
        supports=[],
        closure=None,
        picture=None,
        fields=list(_fields(raw, head)),
        problems=problems,
    )


def _fields(raw: object, head: Head) -> Iterator[FieldReading]:
    """Every length in the document that can be read, with what the tape shows for it."""
    for place, written in _lengths(raw, ""):
        try:
            inches = parse_length(written)
        except ValueError:
            continue
        yield FieldReading(place=place, inches=inches, reads=format_length(inches, head.tape, head.feet))


_LENGTHS = {
    "at",
    "rise",
    "roll",
    "near",
    "width",
    "margin",
    "kick_back",
    "radius",
    "knockout",
    "straight",
    "stand_off",
    "height",
    "clear",
    "deduct",
    "gain",
    "front",
    "at_least",
    "at_most",
    "coupling_gap",
    "longest_piece",
}


def _lengths(raw: object, place: str) -> Iterator[tuple[str, object]]:
    if isinstance(raw, Mapping):
        for key, value in raw.items():
            if key in _LENGTHS:
                yield f"{place}{key}", value
            elif key in ("steps", "end", "shoe", "over"):
                yield from _lengths(value, f"{place}{key}.")
    elif isinstance(raw, list):
        for index, value in enumerate(raw):
            yield from _lengths(value, f"{place}{index}.")


class _Planner:
    """Turns a layout into the plan's form: rounds and words what is shown, carries the rest as it is."""

    def __init__(self, reading: Reading, layout: Layout, shoe: Shoe, couplings: list[float], rules: Rules) -> None:
        self.reading, self.layout, self.shoe, self.couplings, self.rules = reading, layout, shoe, couplings, rules
        self.head, self.path = reading.head, layout.path
        self.bench = Bench(layout.path, layout.owners, reading.steps, shoe.diameter, self.head.tape, self.head.feet)

    def fill(self, bare: Plan) -> Plan:
        """The bare plan with all that the layout gives."""
        complete = self.layout.complete and not stops(bare.problems)
        # What bending it has against a run is shown, so it is bent all the same.
        bent = self.layout.complete and not stops([one for one in bare.problems if one.code not in BY_BENDING])
        proved = self._proved() if bent else {}
        straps = supports(self.layout, self.rules) or [] if bent else []
        passed = [one.clearance.inches for one in proved["simulated"][0].passed] if bent else []
        return bare.model_copy(
            update={
                "makeable": complete,
                "complete": self.layout.complete,
                "shoe": ShoeUsed.of(self.shoe, self.head.tape, self.head.feet, shoe_lines(self.shoe)),
                "developed_length": self.measure(self.path.length) if self.layout.complete else None,
                "degrees": degrees_of(self.layout),
                "end_point": tuple(self.path.end_point) if self.layout.complete else None,
                "bends": [self._bend(i, bend) for i, bend in enumerate(self.path.bends)],
                "pieces": self._pieces() if complete else [],
                "couplings": self._planned_couplings(),
                "exact": [self._exact(one) for one in exact_way(self.layout, self.reading.steps, self.shoe)],
                "closure": self._closure(),
                "supports": [self.measure(place) for place in straps],
                **proved,
                "picture": picture_of(self.layout, self.reading, self.shoe, self.couplings, straps, passed),
            }
        )

    def measure(self, inches: float) -> Measure:
        return Measure.of(inches, self.head.tape, self.head.feet)

    def _bend(self, index: int, bend: PathBend) -> PlannedBend:
        length = self.path.length if self.layout.complete else math.inf
        return PlannedBend(
            number=index + 1,
            step=self.layout.owners[index],
            angle=math.degrees(bend.angle),
            angle_reads=format_angle(math.degrees(bend.angle)),
            roll=math.degrees(bend.roll),
            start=self.measure(bend.start),
            end=self.measure(bend.end),
            straight_before=self.measure(bend.straight_before),
            marks=[self._mark(mark, length) for mark in marks_for(bend, self.shoe)],
        )

    def _mark(self, mark: Mark, length: float) -> PlannedMark:
        on_pipe = 0 <= mark.at <= length
        return PlannedMark(reference=mark.reference, hook=mark.hook, at=self.measure(mark.at), on_pipe=on_pipe)

    def _pieces(self) -> list[PlannedPiece]:
        begins = [0.0, *(place + self.head.coupling_gap for place in self.couplings)]
        last = len(self.couplings)
        return [
            PlannedPiece(
                number=i + 1,
                start=start,
                length=self.measure(end - start),
                end_a=((self.reading.start and self.reading.start.name) or "start box") if i == 0 else f"coupling {i}",
                end_b=((self.reading.end and self.reading.end.name) or "end box") if i == last else f"coupling {i + 1}",
                bends=self._bench_bends(start, end),
            )
            for i, (start, end) in enumerate(zip(begins, [*self.couplings, self.path.length], strict=True))
        ]

    def _bench_bends(self, start: float, end: float) -> list[BenchBend]:
        numbers = [i for i, bend in enumerate(self.path.bends) if start <= bend.start < end]
        return [self._bench_bend(i, numbers[0], start, end) for i in numbers]

    def _bench_bend(self, index: int, first: int, start: float, end: float) -> BenchBend:
        bend = self.path.bends[index]
        arc = Arc(bend.start - start, bend.end - start, bend.roll, bend.angle)
        marks = marks_for(bend, self.shoe, start)
        use = recommend(marks, end - start, within_saddle(self.bench, index))
        return BenchBend(
            number=index + 1,
            angle=math.degrees(bend.angle),
            angle_reads=format_angle(math.degrees(bend.angle)),
            arc_start=bend.start - start,
            arc_end=bend.end - start,
            marks=[self._mark(mark, end - start) for mark in marks],
            use=self._mark(use.mark, end - start),
            use_because=use.reason,
            why=mark_lines(arc, use.mark, self.shoe, self.measure(use.mark.at).reads),
            stub=self._stub(index, start, first),
        )

    def _stub(self, index: int, start: float, first: int) -> Stub | None:
        """The other habits of a stub, where the piece's first bend is a 90 measured from its end A."""
        if index != first or not is_ninety(self.bench, index):
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

    def _proved(self) -> dict[str, Any]:
        """What simulation, card and tolerance say of a run that can be made."""
        prover = Prover(self.reading, self.layout, self.shoe)
        return {"simulated": prover.simulated(), "card": prover.card(), "by_hand": prover.by_hand()}

    def _exact(self, one: StepArithmetic) -> ExactAnswer:
        spacing, shrink = (None if value is None else self.measure(value) for value in (one.spacing, one.shrink))
        return ExactAnswer(step=one.step, spacing=spacing, shrink=shrink, lines=list(one.lines))

    def _planned_couplings(self) -> list[PlannedCoupling]:
        arcs = [(bend.start, bend.end) for bend in self.path.bends]
        fixed = {self.layout.marker_position(marker): marker.step for marker in self.layout.markers}
        pinned = {place: index for index, place in enumerate(self.head.couplings)}
        rooms = room_to_move(self.couplings, self.path.length, arcs, self.rules, self.head.coupling_gap)
        return [
            PlannedCoupling(at=self.measure(place), room=room, pinned=pinned.get(place), step=fixed.get(place))
            for place, room in zip(self.couplings, rooms, strict=True)
        ]

    def _closure(self) -> Closure | None:
        error = closure_of(self.layout, self.reading)
        if error is None:
            return None
        measured = sum(one.inches for one in self.layout.dimensions if one.place.endswith((".at", ".near")))
        off = error.length()
        return Closure(
            off=tuple(error),
            off_reads=closure_words(error, self.head),
            distance=self.measure(off),
            measured=self.measure(measured),
            one_in=round(measured / off) if off > TOLERANCE else None,
            within=off <= self.rules.closure,
        )
