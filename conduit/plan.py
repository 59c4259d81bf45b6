"""The one call that puts it together: a run document in, its plan out."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import replace
from itertools import pairwise

from conduit.bench import Bench, is_ninety, left_over, readings_after, roll_before
from conduit.checks import check, closure_of, degrees_of, supports
from conduit.cutting.couplings import split
from conduit.document import Head, Reading, read_document
from conduit.geometry.path import PathBend, point_at, points_along
from conduit.layout import Layout, lay_out
from conduit.marks import Mark, marks_for, recommend, stub_habits
from conduit.order import best_order
from conduit.ordering import habits_of, readings_now, units_of
from conduit.problems import Problem, stops
from conduit.prove import Prover
from conduit.results import (
    BenchBend,
    Check,
    FieldReading,
    Measure,
    Picture,
    PictureBend,
    PictureDimension,
    PictureEnd,
    Plan,
    PlannedAct,
    PlannedBend,
    PlannedMark,
    PlannedOrder,
    PlannedPiece,
    ShoeUsed,
    Stub,
)
from conduit.shoe import Dial, NoSuchShoe, Shoe, must_bend, typical_shoe
from conduit.steps import Saddle3Step
from conduit.tables import DEFAULT_RULES, OUTSIDE_DIAMETER, Rules
from conduit.units import format_angle, format_length, parse_length


def make_plan(raw: object, rules: Rules = DEFAULT_RULES, with_order: bool = False) -> Plan:
    """Plan a run document given as plain data (as read from JSON); `with_order` also searches the order of bending.

    Every fault is a problem in the plan, at its place; the rest is planned as far as it goes.
    Raises UnreadableDocument where `raw` is not a run document at all.
    """
    reading, layout, shoe, problems = laid_out(raw, rules)
    if not shoe or not layout:
        return _bare(reading, problems, raw, rules)
    couplings = _couplings(layout, rules, problems)
    planner = _Planner(reading, layout, shoe, couplings, with_order)
    return planner.fill(_bare(reading, problems, raw, rules), rules)


def laid_out(raw: object, rules: Rules = DEFAULT_RULES) -> tuple[Reading, Layout | None, Shoe | None, list[Problem]]:
    """Read and lay out a run document, with everything found on the way; no layout where there is no shoe for it.

    Raises UnreadableDocument where `raw` is not a run document at all.
    """
    reading = read_document(raw)
    problems = list(reading.problems)
    shoe = _shoe(reading.head, problems)
    if not shoe:
        return reading, None, None, problems
    layout = lay_out(reading, shoe, rules)
    problems += layout.problems
    problems += check(layout, reading, shoe, rules)
    return reading, layout, shoe, problems


def _shoe(head: Head, problems: list[Problem]) -> Shoe | None:
    """The shoe the run asks for, else the typical one; with a problem where there is none."""
    if any(problem.place.split(".")[0] in ("shoe", "trade_size", "material") for problem in problems):
        return None
    try:
        given = head.shoe and given_shoe(head)
    except NoSuchShoe as error:
        problems.append(_stop("no_such_shoe", "shoe.gain", f"The shoe: {error}."))
        return None
    shoe = given or typical_shoe(head.material, head.trade_size)
    if not shoe:
        says = f"The shoe: there is no usual hand shoe for {head.trade_size} {head.material}."
        problems.append(_stop("no_typical_shoe", "shoe", says, "Enter the deduct and gain of your machine's shoe."))
    return shoe


def given_shoe(head: Head) -> Shoe:
    """The shoe whose figures the run brings. Raises NoSuchShoe where they cannot be, or are for other pipe."""
    figures = head.shoe
    if figures is None:
        raise NoSuchShoe("no figures are given")
    must_bend(figures.bends, head.material, head.trade_size)
    if figures.deduct is None or figures.gain is None:
        typical = typical_shoe(head.material, head.trade_size)
        if not typical or figures.deduct is not figures.gain:
            raise NoSuchShoe("deduct and gain are both needed; bend a 90 in scrap and measure both legs")
        return replace(typical, name=figures.name or typical.name)
    return Shoe(
        figures.name,
        OUTSIDE_DIAMETER[head.material][head.trade_size],
        figures.deduct,
        figures.gain,
        figures.front,
        tuple(figures.references.items()),
        None if figures.machine else figures.handle_up,
        Dial(figures.dial_factor, figures.dial_constant),
    )


def _stop(code: str, place: str, says: str, remedy: str = "") -> Problem:
    return Problem(code=code, severity="stop", place=place, says=says, remedy=remedy)


def _couplings(layout: Layout, rules: Rules, problems: list[Problem]) -> list[float]:
    if not layout.complete:
        return []
    fixed = [layout.marker_position(marker) for marker in layout.markers]
    places = split(layout.path.length, [(bend.start, bend.end) for bend in layout.path.bends], rules, fixed)
    if places is None:
        says = f"The run is longer than a stick of {rules.stick:g} and no straight leaves room for its couplings."
        problems.append(_stop("no_coupling_place", "steps", says, "Spread the bends, or put a box between."))
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
        simulated=[],
        card=[],
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

    def __init__(self, reading: Reading, layout: Layout, shoe: Shoe, couplings: list[float], with_order: bool) -> None:
        self.with_order = with_order
        self.reading, self.layout, self.shoe, self.couplings = reading, layout, shoe, couplings
        self.head, self.path = reading.head, layout.path
        self.bench = Bench(layout.path, layout.owners, reading.steps, shoe.diameter, self.head.tape, self.head.feet)

    def fill(self, bare: Plan, rules: Rules) -> Plan:
        """The bare plan with all that the layout gives."""
        complete = self.layout.complete and not stops(bare.problems)
        return bare.model_copy(
            update={
                "makeable": complete,
                "complete": self.layout.complete,
                "shoe": self._shoe_used(),
                "developed_length": self.measure(self.path.length) if self.layout.complete else None,
                "degrees": degrees_of(self.layout),
                "end_point": tuple(self.path.end_point) if self.layout.complete else None,
                "bends": [self._bend(i, bend) for i, bend in enumerate(self.path.bends)],
                "pieces": self._pieces() if complete else [],
                "couplings": self.couplings,
                **(self._proved(rules) if complete else {}),
                "picture": self._picture(),
            }
        )

    def measure(self, inches: float) -> Measure:
        return Measure.of(inches, self.head.tape, self.head.feet)

    def _shoe_used(self) -> ShoeUsed:
        shoe = self.shoe
        return ShoeUsed(
            name=shoe.name,
            deduct=self.measure(shoe.deduct),
            gain=self.measure(shoe.gain),
            radius=shoe.radius,
            arc_offset=shoe.arc_offset,
            references=shoe.references(),
            diameter=shoe.diameter,
        )

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
        bounds = [0.0, *self.couplings, self.path.length]
        last = len(bounds) - 2
        return [
            PlannedPiece(
                number=i + 1,
                start=start,
                length=self.measure(end - start),
                end_a=((self.reading.start and self.reading.start.name) or "start box") if i == 0 else f"coupling {i}",
                end_b=((self.reading.end and self.reading.end.name) or "end box") if i == last else f"coupling {i + 1}",
                bends=self._bench_bends(start, end),
                order=self._order(start, end) if self.with_order else None,
            )
            for i, (start, end) in enumerate(pairwise(bounds))
        ]

    def _order(self, start: float, end: float) -> PlannedOrder:
        units, groups = units_of(self.layout, self.reading.steps, self.shoe, start, end)
        order = best_order(units, self.shoe, end - start, habits_of(self.layout, self.reading.steps, groups))
        done: list[int] = []
        acts: list[PlannedAct] = []
        for act in order.acts:
            bends = groups[act.unit]
            readings = readings_now(self.bench, done, bends[-1], self.shoe, start, end - start)
            done += bends
            acts.append(
                PlannedAct(
                    bends=[index + 1 for index in bends],
                    hook=act.hook,
                    where=act.where,
                    end_for_end=act.end_for_end,
                    turn=None if act.turn is None else math.degrees(act.turn),
                    reasons=list(act.reasons),
                    checks=[Check(tool=one.tool, says=one.says, reads=one.reads) for one in readings],
                )
            )
        return PlannedOrder(acts=acts, end_for_end=order.flips, turns=order.turns, why_not=order.why_not)

    def _bench_bends(self, start: float, end: float) -> list[BenchBend]:
        numbers = [i for i, bend in enumerate(self.path.bends) if start <= bend.start < end]
        return [self._bench_bend(i, numbers, start, end) for i in numbers]

    def _bench_bend(self, index: int, numbers: list[int], start: float, end: float) -> BenchBend:
        bend, first = self.path.bends[index], numbers[0]
        marks = marks_for(bend, self.shoe, start)
        use = recommend(marks, end - start, self._within_saddle(index))
        roll = roll_before(self.path.bends, index, first)
        readings = readings_after(self.bench, index, start, first)
        if index == numbers[-1]:
            readings.append(left_over(self.bench, index, start, end, first))
        return BenchBend(
            number=index + 1,
            angle=math.degrees(bend.angle),
            angle_reads=format_angle(math.degrees(bend.angle)),
            arc_start=bend.start - start,
            arc_end=bend.end - start,
            marks=[self._mark(mark, end - start) for mark in marks],
            use=self._mark(use.mark, end - start),
            use_because=use.reason,
            dial_reads=format_angle(self.shoe.dial.reads(math.degrees(bend.angle))),
            roll_from_previous=roll.degrees,
            previous_points_to=roll.clock,
            turn=roll.says,
            stub=self._stub(index, start, first),
            checks=[Check(tool=reading.tool, says=reading.says, reads=reading.reads) for reading in readings],
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

    def _proved(self, rules: Rules) -> dict[str, object]:
        """What simulation, card and tolerance say of a run that can be made."""
        prover = Prover(self.reading, self.layout, self.shoe)
        closure = closure_of(self.layout, self.reading)
        return {
            "simulated": prover.simulated(),
            "card": prover.card(),
            "by_hand": prover.by_hand(),
            "supports": [self.measure(place) for place in supports(self.layout, rules) or []],
            "closure": tuple(closure) if closure else None,
        }

    def _within_saddle(self, index: int) -> tuple[int, float] | None:
        """The bend's number within its three-bend saddle and the centre's angle, or None outside of one."""
        owners = self.layout.owners
        step = self.reading.steps[owners[index]]
        return (index - owners.index(owners[index]), step.angle) if isinstance(step, Saddle3Step) else None

    def _picture(self) -> Picture:
        start, end = self.reading.start, self.reading.end
        last = self.path.bends[-1].heading_after if self.path.bends else self.path.heading
        return Picture(
            lines=[[tuple(point) for point in line] for line in points_along(self.path)],
            start=PictureEnd(name=start.name if start else "", point=self.path.origin, heading=self.path.heading),
            end=PictureEnd(name=end.name, point=self.path.end_point, heading=last)
            if end and self.layout.complete
            else None,
            bends=[self._picture_bend(i, bend) for i, bend in enumerate(self.path.bends)],
            couplings=[point_at(self.path, s)[0] for s in self.couplings],
            dimensions=[
                PictureDimension(place=d.place, start=d.start, end=d.end, reads=self.measure(d.inches).reads)
                for d in self.layout.dimensions
            ],
        )

    def _picture_bend(self, index: int, bend: PathBend) -> PictureBend:
        outward = bend.heading_before.minus(bend.heading_after).unit()
        return PictureBend(number=index + 1, point=bend.point(bend.angle / 2, self.path.radius), outward=outward)
