"""The bench sheet of a stick: marks to lay, bends in order, what must read, what was read, and what to do about it."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from conduit import sheet_results as told
from conduit.arithmetic import mark_lines
from conduit.bench import Reading as ToolReading
from conduit.bench import Where, is_ninety, readings_on, roll_before
from conduit.correct import HANDS_ANGLE, HANDS_MARK, LEAST_CUT, AsBent, Correction, Piece, as_read, correct
from conduit.in_the_shoe import LONG_SWING, Stand
from conduit.laying import laid_out
from conduit.marks import Mark, marks_of_arc
from conduit.order import FREE_HOOKS, KEEP_HOOKS, Order, best_order, check_order
from conduit.ordering import habits_of, units_of
from conduit.plan import make_plan
from conduit.results import Measure, PlannedMark, PlannedPiece
from conduit.sheet_results import Arranged, Made, Sheet, SheetBend
from conduit.shoe import Hook
from conduit.simulate import Arc, Setting, arc_of
from conduit.stick import Arcs, Stick, arcs_of, setting_of
from conduit.tables import DEFAULT_RULES, Rules
from conduit.tolerance import WITH_FINDER_AND_LEVEL, spread_at_end
from conduit.units import format_angle, format_length

AS_PROPOSED = Arranged()
BURNT, BURNT_METRIC = 1.0, 100 / 25.4
NEAR_END = 3.0
MOST_OFF = math.radians(6)
HALVINGS = 8


class NoSuchStick(ValueError):
    """The run has no such piece, or cannot be made; the message says which."""


class Bencher:
    """Makes the bench sheets of one run document. Raises UnreadableDocument."""

    def __init__(self, raw: object, rules: Rules = DEFAULT_RULES) -> None:
        self.plan = make_plan(raw, rules)
        self.reading, self.layout, self.shoe, _ = laid_out(raw, rules)

    def sheet(self, piece: int, arranged: Arranged = AS_PROPOSED, made: Sequence[Made] = ()) -> Sheet:
        """The sheet of piece number `piece`, arranged so, with these bends made, in the order in which they were.

        Raises NoSuchStick.
        """
        found = next((one for one in self.plan.pieces if one.number == piece), None)
        if not found or not self.layout or not self.shoe:
            raise NoSuchStick(f"this run has no piece {piece} to bend")
        stick = Stick(
            self.reading,
            self.layout,
            self.shoe,
            found.start,
            found.start + found.length.inches,
            arranged.spare or 0.0,
        )
        card = stick.card_settings(self.plan.card)
        return _Sheet(stick, found, len(self.plan.pieces), arranged, card, made).whole()


@dataclass(frozen=True)
class _State:
    """A stick after some of its bends: what each was or is to be, and what was read."""

    targets: dict[int, Setting]
    real: dict[int, Setting]
    readings: tuple[AsBent, ...]
    correction: Correction | None


class _Sheet:
    """Puts one stick's sheet together."""

    def __init__(
        self,
        stick: Stick,
        piece: PlannedPiece,
        of_pieces: int,
        arranged: Arranged,
        card: Mapping[int, Setting],
        made: Sequence[Made],
    ) -> None:
        self.stick, self.piece, self.of_pieces, self.arranged, self.card = stick, piece, of_pieces, arranged, card
        self.made = [one for one in made if one.bend - 1 in stick.arcs]
        self.head, self.shoe = stick.reading.head, stick.shoe

    def measure(self, inches: float) -> Measure:
        return Measure.of(inches, self.head.tape, self.head.feet)

    @cached_property
    def arcs(self) -> Arcs:
        """Where the bends are to lie, by the exact way or by the card."""
        by_card = arcs_of(self.card, self.shoe) if self.arranged.marks == "card" else {}
        return {index: by_card.get(index, arc) for index, arc in self.stick.arcs.items()}

    @cached_property
    def _order(self) -> tuple[Order, list[list[int]]]:
        one_way = self.arranged.hooks == "one_way"
        hooks: dict[int, Hook] = {
            index: "A" if one_way else self.stick.habit(index, arc).mark.hook for index, arc in self.arcs.items()
        }
        steps, owners = self.stick.reading.steps, self.stick.layout.owners
        units, groups = units_of(self.arcs, hooks, owners, steps)
        habits = habits_of(owners, steps, groups)
        length = self.stick.length + self.stick.spare
        best = best_order(units, self.shoe, length, habits, FREE_HOOKS if one_way else KEEP_HOOKS)
        chosen = self._own_order(groups) or [(act.unit, act.hook) for act in best.acts]
        if not self._own_order(groups) and best.acts:
            return best, groups
        # Without an order that can be followed the bends come along the pipe, and it is told where that fails.
        along: list[tuple[int, Hook]] = [(number, unit.hook) for number, unit in enumerate(units)]
        order = check_order(units, self.shoe, length, chosen or along, habits)
        return replace(order, why_not=order.why_not if chosen else best.why_not), groups

    def _own_order(self, groups: Sequence[Sequence[int]]) -> list[tuple[int, Hook]]:
        """The order chosen by a person, if it is one of this stick's bends."""
        units = {group[0] + 1: number for number, group in enumerate(groups)}
        order = self.arranged.order or []
        chosen = [(units[turn.bend], turn.hook) for turn in order if turn.bend in units]
        return chosen if sorted(unit for unit, _ in chosen) == list(range(len(groups))) else []

    @cached_property
    def hooks(self) -> dict[int, Hook]:
        """Which end the hook faces at each bend, as the order has it."""
        order, groups = self._order
        return {index: act.hook for act in order.acts for index in groups[act.unit]}

    @cached_property
    def sequence(self) -> list[int]:
        """The bends in the order of bending."""
        order, groups = self._order
        return [index for act in order.acts for index in groups[act.unit]]

    @cached_property
    def planned(self) -> dict[int, Setting]:
        """Each bend's setting before anything is made, along the pipe."""
        return {
            index: setting_of(self.stick.use(index, arc, self.hooks[index]).mark, arc)
            for index, arc in self.arcs.items()
        }

    @cached_property
    def states(self) -> list[_State]:
        """The stick before any bend, and after each that is made."""
        states = [_State(dict(self.planned), dict(self.planned), (), None)]
        for one in self.made:
            states.append(self._after(states[-1], one))
        return states

    def _after(self, before: _State, one: Made) -> _State:
        index = one.bend - 1
        further = 0.0 if one.tape is None else self._further(before, index, one.angle, one.tape)
        places = {number: place for place, number in enumerate(self.planned)}
        readings = (*before.readings, AsBent(places[index], one.angle, further))
        left = frozenset(places[other.bend - 1] for other in self.made if other.left)
        found = correct(list(before.targets.values()), readings, self.stick.piece, left)
        done = {reading.bend for reading in readings}
        real = dict(zip(self.planned, found.settings, strict=True))
        if found.advice in ("rebend", "scrap"):
            asked = {reading.bend: reading for reading in readings}
            real = {number: as_read(before.targets[number], asked.get(places[number])) for number in self.planned}
        targets = {
            number: before.targets[number] if places[number] in done else real[number] for number in self.planned
        }
        return _State(targets, real, readings, found)

    def _further(self, before: _State, index: int, angle: float, tape: float) -> float:
        """How much further from end A a bend lies than it was to, from what the tape read."""
        setting = replace(before.targets[index], angle=math.radians(angle))
        reading = self._asked(self._readings(before, index, setting))
        if not reading or reading.inches is None:
            return 0.0
        out = tape - reading.inches
        return out / math.sin(setting.angle) if reading.kind == "rise" else out

    def _readings(self, state: _State, index: int, setting: Setting | None = None) -> list[ToolReading]:
        """What tools read right after a bend, in the order of bending, on the pipe as it then is."""
        done = self._made_before(index)
        real = {number: state.real[number] for number in sorted([*done, index])}
        if setting:
            real[index] = setting
        bent, arcs = self.stick.bent(real), {number: arc_of(one, self.shoe) for number, one in real.items()}
        return readings_on(
            self.stick.bench, bent, arcs, index, self.stick.length, all_made=len(real) == len(self.planned)
        )

    @staticmethod
    def _asked(readings: Sequence[ToolReading]) -> ToolReading | None:
        return next((one for one in readings if one.kind in ("back", "rise")), None)

    def _made_before(self, index: int) -> list[int]:
        """What is bent already when a bend is made: as it was, or as the order has it."""
        made = [one.bend - 1 for one in self.made]
        if index in made:
            return made[: made.index(index)]
        return made + [other for other in self.sequence[: self.sequence.index(index)] if other not in made]

    def _state_before(self, index: int) -> _State:
        made = [one.bend - 1 for one in self.made]
        return self.states[made.index(index)] if index in made else self.states[-1]

    def whole(self) -> Sheet:
        """The sheet."""
        order, _ = self._order
        spare = self.arranged.spare or 0.0
        advised = self._advised_spare()
        return Sheet(
            piece=self.piece.number,
            of_pieces=self.of_pieces,
            end_a=self.piece.end_a,
            end_b=self.piece.end_b,
            length=self.piece.length,
            cut=self.measure(self.stick.length + spare),
            cutting=self._cutting(spare),
            spare=self.measure(spare) if spare else None,
            advised_spare=self.measure(advised) if advised else None,
            bends=[bend for number, _ in enumerate(order.acts, 1) for bend in self._act(number)],
            end_for_end=order.flips,
            turns=order.turns,
            proposed=not self.arranged.order,
            why_not=order.why_not,
            correction=self._correction(),
        )

    def _cutting(self, spare: float) -> list[str]:
        length = self.piece.length.reads
        if not spare:
            return [f"Cut {length}, square. Ream both ends."]
        cut = self.measure(self.stick.length + spare).reads
        return [
            f"Cut {cut}: {length} and {self.measure(spare).reads} to spare on end B. Ream end A.",
            f"After bending, dry-fit, cut end B to length ({length} along the pipe), ream it.",
        ]

    def _advised_spare(self) -> float:
        """What expected errors say to leave on end B, to the next half inch; 0: cut first."""
        if self.piece.number != self.of_pieces:
            return 0.0
        spread = spread_at_end(self.stick.layout.path, WITH_FINDER_AND_LEVEL)
        return 0.0 if spread.precut else math.ceil(spread.allowance * 2) / 2

    def _act(self, number: int) -> list[SheetBend]:
        order, groups = self._order
        act = order.acts[number - 1]
        return [self._bend(number, index) for index in groups[act.unit]]

    def _bend(self, number: int, index: int) -> SheetBend:
        order, groups = self._order
        act = order.acts[number - 1]
        begins = index == groups[act.unit][0]
        state = self._state_before(index)
        target, planned = state.targets[index], self.planned[index]
        arc = arc_of(target, self.shoe)
        use = self.stick.use(index, arc, self.hooks[index])
        before = self._made_before(index)
        previous = before[-1] if before else None
        roll = roll_before(self.stick.layout.path.bends, index, previous, act.where, self._where(previous))
        readings = self._readings(state, index, target)
        asked = self._asked(readings)
        least, most = self._band(state, index)
        stand = self._stand(state, index, arc, act.where)
        degrees = math.degrees(target.angle)
        bench_bend = next(one for one in self.piece.bends if one.number == index + 1)
        return SheetBend(
            number=index + 1,
            act=number,
            begins_act=begins,
            angle=degrees,
            angle_reads=format_angle(degrees),
            dial_reads=format_angle(self.shoe.dial.reads(degrees)),
            arc_start=arc.start,
            arc_end=arc.end,
            use=self._mark(use.mark),
            burnt=self.measure(use.mark.at + (BURNT_METRIC if self.head.tape == "1 mm" else BURNT)),
            use_because=use.reason,
            why=mark_lines(arc, use.mark, self.shoe, self.measure(use.mark.at).reads),
            marks=[self._mark(mark) for mark in marks_of_arc(arc.start, arc.end, self.shoe)],
            card=self._card(index),
            planned=self._mark(Mark(planned.reference, planned.hook, planned.mark)),
            planned_angle_reads=format_angle(math.degrees(planned.angle)),
            replanned=_moved(planned, target),
            where=act.where,
            end_for_end=act.end_for_end and begins,
            turn=roll.degrees,
            previous_points=roll.points,
            turn_says=roll.says,
            previous=None if previous is None else previous + 1,
            reasons=list(act.reasons) if begins else [],
            against=list(act.against) if begins else [],
            breaks=act.breaks if begins else "",
            cautions=self._cautions(stand),
            checks=[told.Check(tool=one.tool, says=one.says, reads=one.reads) for one in readings],
            tape=asked and told.TapeAsk(says=asked.says, wanted=self.measure(asked.inches or 0.0)),
            least=least,
            most=most,
            in_the_shoe=stand.drawn(),
            stub=bench_bend.stub if self.hooks[index] == "A" else None,
            made=self._as_bent(index, target, asked),
        )

    def _where(self, index: int | None) -> Where:
        order, groups = self._order
        return next((act.where for act in order.acts if index in groups[act.unit]), "floor")

    def _mark(self, mark: Mark) -> PlannedMark:
        on_pipe = 0 <= mark.at <= self.stick.length + self.stick.spare
        return PlannedMark(reference=mark.reference, hook=mark.hook, at=self.measure(mark.at), on_pipe=on_pipe)

    def _card(self, index: int) -> told.CardMark | None:
        setting = self.card.get(index)
        if not setting:
            return None
        exact = self.stick.arcs[index]
        at = next(
            mark.at
            for mark in marks_of_arc(exact.start, exact.end, self.shoe)
            if (mark.reference, mark.hook) == (setting.reference, setting.hook)
        )
        return told.CardMark(
            reference=setting.reference,
            hook=setting.hook,
            at=self.measure(setting.mark),
            exact=self.measure(at),
            differs=self.measure(at - setting.mark),
        )

    def _stand(self, state: _State, index: int, arc: Arc, where: Where) -> Stand:
        before = {number: state.real[number] for number in sorted(self._made_before(index))}
        after = dict(sorted({**before, index: state.targets[index]}.items()))
        return Stand(
            self.stick.bent(before),
            self.stick.bent(after),
            arc,
            self.hooks[index],
            where,
            self.shoe,
        )

    def _cautions(self, stand: Stand) -> list[str]:
        found = []
        end, swing = stand.swings()
        if stand.where == "air":
            found.append("In the air: handle on the floor and held there; push the pipe down close to the shoe.")
        elif stand.arc.angle > math.radians(40):
            found.append("Keep the foot firm on the heel to the last: a shoe that slips throws the handle.")
        if swing > LONG_SWING:
            moves = "comes down" if stand.where == "air" else "swings up"
            found.append(
                f"End {end} {moves} through {format_length(round(swing), feet=True)}: nobody may stand in its way."
            )
        if stand.arc.start < NEAR_END or self.stick.length - stand.arc.end < NEAR_END:
            found.append("So near the end the pipe eggs easily: bend slowly, and keep the shoe full on the pipe.")
        return found

    def _band(self, state: _State, index: int) -> tuple[float, float]:
        """Between which angles (degrees) the pipe still fits with all else as planned; at least what hands can do."""
        target = state.targets[index]
        settings = list({**state.real, index: target}.values())
        place = list(self.planned).index(index)
        off = [_farthest(self.stick.piece, settings, place, sign) for sign in (-1, 1)]
        return math.degrees(target.angle - off[0]), math.degrees(target.angle + off[1])

    def _as_bent(self, index: int, target: Setting, asked: ToolReading | None) -> told.AsBentTold | None:
        one = next((made for made in self.made if made.bend - 1 == index), None)
        if not one:
            return None
        state = self._state_before(index)
        least, most = self._band(state, index)
        further = 0.0 if one.tape is None else self._further(state, index, one.angle, one.tape)
        wanted = asked.inches if asked else None
        off = one.angle - math.degrees(target.angle)
        taped = one.tape is not None and wanted is not None
        shows, base = self._shows(index) if taped else (None, None)
        figure_off = further - (self._own_further(base) if base is not None else 0.0)
        return told.AsBentTold(
            angle=one.angle,
            angle_reads=f"{one.angle:.1f}°",
            off=off,
            off_reads=f"{off:+.1f}°",
            tape=None if one.tape is None else self.measure(one.tape),
            tape_off=self.measure(one.tape - wanted) if taped else None,  # type: ignore[operator]
            within=self._came_right(index) or (least <= one.angle <= most and abs(further) <= HANDS_MARK + 1e-9),
            shows=shows,
            figure_off=figure_off if shows else 0.0,
        )

    def _shows(self, index: int) -> tuple[Literal["deduct", "gain"] | None, int | None]:
        """Which figure of the shoe a 90's tape reading shows, and the bend that the tape was hooked behind."""
        bench = self.stick.bench
        if not is_ninety(bench, index) or self.hooks[index] != "A":
            return None, None
        before = [other for other in self._made_before(index) if other < index]
        nineties = [other for other in before if is_ninety(bench, other)]
        if not before:
            return "deduct", None
        straight_between = bool(nineties) and max(nineties) == index - 1 and self.hooks[index - 1] == "A"
        return ("gain", index - 1) if straight_between else (None, None)

    def _came_right(self, index: int) -> bool:
        """Whether nothing needed doing once this bend was made."""
        made = [one.bend - 1 for one in self.made]
        after = self.states[made.index(index) + 1].correction
        return after is not None and after.advice == "go_on"

    def _own_further(self, index: int) -> float:
        """How much further a bend came than it was to, by its own tape reading."""
        place = list(self.planned).index(index)
        return next((one.further for one in self.states[-1].readings if one.bend == place), 0.0)

    def _correction(self) -> told.Correction | None:
        found = self.states[-1].correction
        if not found:
            return None
        made = {one.bend - 1 for one in self.made}
        before = self.states[-2].targets
        after = self.states[-1].targets
        return told.Correction(
            advice=found.advice,
            says=found.says,
            misses=self.measure(found.misses),
            after=self.measure(found.after),
            off_degrees=found.off_degrees,
            or_leave=found.or_leave,
            replanned=[
                self._replanned(index, before[index], after[index])
                for index in self.planned
                if index not in made and _moved(before[index], after[index])
            ],
            rebends=[self._rebent(list(self.planned)[one.bend], one.by) for one in found.rebends],
            cut_a=self.measure(found.cuts.a) if abs(found.cuts.a) >= LEAST_CUT else None,
            cut_b=self.measure(found.cuts.b) if abs(found.cuts.b) >= LEAST_CUT else None,
        )

    def _replanned(self, index: int, before: Setting, after: Setting) -> told.Replanned:
        return told.Replanned(
            bend=index + 1,
            mark_before=self.measure(before.mark).reads,
            mark=self.measure(after.mark).reads,
            angle_before=format_angle(math.degrees(before.angle)),
            angle=format_angle(math.degrees(after.angle)),
        )

    def _rebent(self, index: int, by: float) -> told.Rebent:
        until = math.degrees(self.states[-1].targets[index].angle)
        way = f"{abs(by):.1f}°"
        return told.Rebent(
            bend=index + 1, way="close" if by > 0 else "open", by_reads=way, until_reads=format_angle(until)
        )


def _moved(before: Setting, after: Setting) -> bool:
    return abs(before.mark - after.mark) > LEAST_CUT or abs(before.angle - after.angle) > math.radians(0.125)


def _farthest(piece: Piece, settings: Sequence[Setting], place: int, sign: int) -> float:
    """How far (radians) a bend may be off to one side while the pipe still fits, by halving; at least as hands are."""

    def fits(off: float) -> bool:
        changed = list(settings)
        changed[place] = replace(settings[place], angle=settings[place].angle + sign * off)
        return piece.fits(piece.bent(changed))

    if not fits(HANDS_ANGLE):
        return HANDS_ANGLE
    low, high = HANDS_ANGLE, MOST_OFF
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        low, high = (middle, high) if fits(middle) else (low, middle)
    return low
