"""The bench sheet of a stick: marks to lay, bends in order, what must read, what was read, and what to do about it."""

import math
from collections.abc import Callable, Iterator, Mapping, Sequence

from conduit.bender import Hook, Way, found_by
from conduit.bending import schema as told
from conduit.bending.arrangement import arrange
from conduit.bending.cautions import at_the_shoe, of_offsets
from conduit.bending.correction import HANDS_ANGLE, LEAST_CUT, Rebend, is_sawn
from conduit.bending.fitting import FitCheck, FittedEnd, Meets, trimming
from conduit.bending.forcing import HANDS_TURN
from conduit.bending.progress import AskedReading, AsMade, State, States
from conduit.bending.readings import ToolReading, roll_before
from conduit.bending.schema import Arranged, BendAsMade, Sheet, SheetBend
from conduit.bending.side_view import Stand
from conduit.bending.stamping import counted, stamping
from conduit.bending.stick import Stick, arcs_of, setting_of
from conduit.bending.tape_lies import TapeLies
from conduit.catalogue import NOTHING, Message, joined, message
from conduit.document import SweepStep
from conduit.layout import StampedEnd
from conduit.marking import Mark, mark_lines, mark_of_arc, marks_of_arc
from conduit.plan import Measure, PlannedMark, PlannedPiece, spread_at_end
from conduit.sequence import SequenceStep
from conduit.simulation import Arc, Setting, arc_of
from conduit.units import TOLERANCE, Degrees, format_angle, shows_off

BURNT, BURNT_METRIC = 1.0, 100 / 25.4


class NoSuchStick(ValueError):
    """The run has no such piece, or cannot be made; the message says which."""


class SheetMaker:
    """Puts one stick's sheet together. Bends are named by their index in the run."""

    def __init__(
        self,
        stick: Stick,
        piece: PlannedPiece,
        of_pieces: int,
        arranged: Arranged,
        card: Mapping[int, Setting],
        made: Sequence[BendAsMade],
        known: States,
        longest: float,
        needed: float,
    ) -> None:
        self.longest, self.needed = longest, needed
        self.stick, self.piece, self.of_pieces, self.arranged, self.card = stick, piece, of_pieces, arranged, card
        self.head, self.shoe = stick.measured.head, stick.shoe
        by_card = arcs_of(card, self.shoe) if arranged.marks == "card" else {}
        arcs = {index: by_card.get(index, arc) for index, arc in stick.arcs.items()}
        self.arrangement = arrange(stick, arcs, arranged)
        self.hooks = self.arrangement.hooks
        # Each bend's setting before anything is made, along the pipe.
        self.planned = {
            index: setting_of(stick.use(index, arc, self.hooks[index]).mark, arc) for index, arc in arcs.items()
        }
        self.as_made = AsMade(stick, self.planned, self.arrangement, made, known)

    def measure(self, inches: float) -> Measure:
        """A length, exact and as the tape reads it."""
        return Measure.of(inches, self.head.tape)

    def whole(self, fit: list[FitCheck], ends: tuple[FittedEnd, FittedEnd]) -> Sheet:
        """The bench sheet of one piece: its cut, its bends in the order of bending, what to correct.

        Lengths are told as the run's tape shows them, with their inches beside.
        """
        order, spare, spare_a = self.arrangement.order, self.stick.spare, self.stick.spare_a
        advised = self._advised_spare()
        return Sheet(
            piece=self.piece.number,
            of_pieces=self.of_pieces,
            end_a=self.piece.end_a,
            end_b=self.piece.end_b,
            length=self.piece.length,
            cut=self.measure(self.stick.cut),
            cutting=self._cutting(ends),
            spare=self.measure(spare) if spare else None,
            spare_a=self.measure(spare_a) if spare_a else None,
            advised_spare=self.measure(advised) if advised else None,
            bends=[self._bend(number, act, index) for number, act, index in self._in_order()],
            end_for_end=order.flips,
            turns=order.turns,
            proposed=self.arrangement.proposed,
            why_not=order.why_not,
            correction=self._correction(),
            stamps=[line for one in self._stamps() for line in stamping(one, self.stick)],
            fit=fit,
        )

    def _stamps(self) -> Iterator[StampedEnd]:
        """What a lever tool stamps on this piece."""
        ends = (("start", self.piece.number == 1), ("end", self.piece.number == self.of_pieces))
        yield from (one for end, mine in ends for one in self.stick.layout.stamps if mine and one.end == end)

    def bend(self, number: int) -> SheetBend:
        """One bend, by its number in the run. Raises NoSuchStick."""
        for act_number, act, index in self._in_order():
            if index + 1 == number:
                return self._bend(act_number, act, index)
        raise NoSuchStick(message("stick.no_bend", piece=self.piece.number, bend=number))

    def _in_order(self) -> Iterator[tuple[int, SequenceStep, int]]:
        """Each act by its number from 1, with each of its bends."""
        for number, act in enumerate(self.as_made.arranged.order.acts, 1):
            for index in self.arrangement.bends(act):
                yield number, act, index

    def _cutting(self, ends: tuple[FittedEnd, FittedEnd]) -> list[Message]:
        stick, length = self.stick, self.piece.length.reads
        after = [message("cut.threads")] if self.head.joined_by == "threaded" else []
        after += [counted(one, self.head.tape) for one in self._stamps()]
        both: dict[Hook, float] = {"A": stick.spare_a, "B": stick.spare}
        spares = {end: spare for end, spare in both.items() if spare}
        if not spares:
            return [message("cut.square", length=length), *after]
        left = joined(
            (message("cut.to_spare", spare=self.measure(spare).reads, end=end) for end, spare in spares.items()), ""
        )
        by_plan: dict[Hook, Message] = {"A": message("cut.comes_off", length=self.measure(stick.spare_a).reads)}
        by_plan["B"] = message("cut.along", length=length)
        meets: dict[Hook, Meets] = {"A": ends[0].meets, "B": ends[1].meets}
        told = {"cut": self.measure(stick.cut).reads, "length": length, "spares": left}
        both_spare = len(spares) == 2
        lines = [
            message("cut.spare_both", **told)
            if both_spare
            else message("cut.spare", end="B" if "A" in spares else "A", **told),
            *(trimming(end, meets[end], by_plan[end], self.head.tape) for end in spares),
            *after,
        ]
        if stick.cut > self.longest + TOLERANCE:
            lines.append(message("cut.too_long", longest=self.measure(self.longest).reads))
        return lines

    def _advised_spare(self) -> float:
        """What expected errors say to leave on end B, to the next half inch; 0: cut first."""
        last = self.piece.number == self.of_pieces
        return max(self.needed, spread_at_end(self.stick.layout.path).spare if last else 0.0)

    def _bend(self, number: int, act: SequenceStep, index: int) -> SheetBend:
        begins = index == self.arrangement.bends(act)[0]
        state = self.as_made.state_before(index)
        target, planned = state.targets[index], self.planned[index]
        arc = arc_of(target, self.shoe)
        use = self.stick.use(index, arc, self.hooks[index])
        before = self.as_made.made_before(index)
        previous = self.as_made.neighbour(before, index)
        stood = "floor" if previous is None else self.arrangement.act_of(previous).where
        rolls = {number: one.roll for number, one in state.real.items()} | {index: target.roll}
        follows = previous is None or previous == before[-1]
        roll = roll_before(rolls, index, previous, act.where, stood if follows else None)
        readings = list(self.as_made.readings(state, index, target))
        ask, is_last = self.as_made.asked(state, index, target, readings), len(before) + 1 == len(self.planned)
        window = self.as_made.window(state, index)
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
            found_by=found_by(self.shoe.dial.reads(degrees), self.shoe),
            arc_start=arc.start,
            arc_end=arc.end,
            use=self._mark(use.mark),
            burnt=self.measure(use.mark.at + (BURNT_METRIC if self.head.tape.is_metric else BURNT)),
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
            reasons=[*act.reasons, *_begun_in_air(stand)] if begins else [],
            against=list(act.against) if begins else [],
            breaks=act.breaks if begins else NOTHING,
            cautions=[*at_the_shoe(stand, self.stick.cut, act.tight), *of_offsets(self.stick, stand, index, before)],
            checks=[_check(one) for one in readings if _is_worth(one, ask, is_last)],
            tape=_asked(ask, self.measure(ask.inches)) if ask else None,
            least=_rounded(window.least, math.ceil),
            most=_rounded(window.most, math.floor),
            by_hand=math.degrees(HANDS_ANGLE),
            is_close=window.is_close,
            mark_within=self.measure(math.floor(window.mark * 64 + TOLERANCE) / 64),
            most_turned=HANDS_TURN,
            in_the_shoe=stand.drawn(),
            stub=bench_bend.stub if self.hooks[index] == "A" and not self.stick.spare_a else None,
            sweep=self._shot(index, state),
            made=self._as_bent(index, target, ask) if index in self.as_made.made else None,
        )

    def _shot(self, index: int, state: State) -> told.SweepShot | None:
        """What the finder shows over a sweep, before this shot of it and after."""
        layout = self.stick.layout
        shots = [one for one in layout.indices_of(layout.owners[index]) if one in self.planned]
        if not isinstance(layout.step_of(index), SweepStep) or len(shots) < 2:
            return None
        made, earlier = self.as_made.made, self.as_made.made_before(index)
        angles = {one: math.degrees(state.targets[one].angle) for one in shots}
        angles |= {one: made[one].angle for one in shots if one in made and one in earlier}
        before = sum(angles[one] for one in shots if one in earlier)
        then = before + angles[index]
        return told.SweepShot(
            shot=shots.index(index) + 1,
            of=len(shots),
            first=shots[0] + 1,
            last=shots[-1] + 1,
            before=before,
            then=then,
            then_reads=format_angle(then),
            whole_reads=format_angle(sum(angles.values())),
        )

    def _mark(self, mark: Mark) -> PlannedMark:
        on_pipe = 0 <= mark.at <= self.stick.cut
        return PlannedMark(reference=mark.reference, hook=mark.hook, at=self.measure(mark.at), on_pipe=on_pipe)

    def _card(self, index: int) -> told.SheetCardMark | None:
        setting = self.card.get(index)
        if not setting:
            return None
        exact = self.stick.arcs[index]
        at = mark_of_arc(exact.start, exact.end, self.shoe, setting.reference, setting.hook).at
        return told.SheetCardMark(
            reference=setting.reference,
            hook=setting.hook,
            at=self.measure(setting.mark),
            exact=self.measure(at),
            off=self.measure(abs(at - setting.mark)),
            agrees=not self.head.tape.tells(at - setting.mark),
        )

    def _stand(self, state: State, index: int, arc: Arc, where: Way) -> Stand:
        before = {number: state.real[number] for number in sorted(self.as_made.made_before(index))}
        after = dict(sorted({**before, index: state.targets[index]}.items()))
        return Stand(
            self.stick.bent(before),
            self.stick.bent(after),
            arc,
            self.hooks[index],
            where,
            self.shoe,
        )

    def _as_bent(self, index: int, target: Setting, ask: AskedReading | None) -> told.AsBentTold:
        one, wanted = self.as_made.made[index], ask.inches if ask else None
        off = one.angle - math.degrees(target.angle)
        shows, figure_off = self.as_made.shown(index)
        return told.AsBentTold(
            angle=one.angle,
            angle_reads=f"{one.angle:.1f}°",
            off=off,
            off_reads=shows_off(off),
            turned_reads=_clockwise(one.turned) if one.turned else NOTHING,
            tape=None if one.tape is None else self.measure(one.tape),
            tape_off=None if one.tape is None or wanted is None else self.measure(one.tape - wanted),
            within=self.as_made.within(index),
            out_by=self.as_made.out_by(index),
            advice=self.as_made.advice_after(index),
            shows=shows,
            figure_off=figure_off,
        )

    def _correction(self) -> told.SheetCorrection | None:
        states = self.as_made.states
        found = states[-1].correction
        if not found:
            return None
        before, after = states[-2].targets, states[-1].targets
        return told.SheetCorrection(
            advice=found.advice,
            says=joined((found.says, *self._cannot_come())),
            misses=self.measure(found.misses),
            after=self.measure(found.after),
            off_degrees=found.off_degrees,
            or_leave=found.or_leave,
            replanned=[
                self._replanned(index, before[index], after[index])
                for index in self.planned
                if index not in self.as_made.made and _moved(before[index], after[index])
            ],
            rebends=[self._rebent(list(self.planned)[one.bend], one) for one in found.rebends],
            cut_a=self.measure(found.cuts.a) if is_sawn(found.cuts.a) else None,
            cut_b=self.measure(found.cuts.b) if is_sawn(found.cuts.b) else None,
        )

    def _cannot_come(self) -> Iterator[Message]:
        """The bends that the correction leaves without room where they come in the order."""
        arranged = self.as_made.arranged
        for act in arranged.order.acts:
            if act.unit in arranged.broken - self.arrangement.broken:
                yield message("correct.cannot_come", bend=arranged.bends(act)[0] + 1, why=act.breaks)

    def _replanned(self, index: int, before: Setting, after: Setting) -> told.Replanned:
        return told.Replanned(
            bend=index + 1,
            mark_before=self.measure(before.mark).reads,
            mark=self.measure(after.mark).reads,
            angle_before=format_angle(math.degrees(before.angle)),
            angle=format_angle(math.degrees(after.angle)),
            turned=_turned(before, after),
        )

    def _rebent(self, index: int, one: Rebend) -> told.Rebent:
        until = math.degrees(self.as_made.states[-1].targets[index].angle)
        by = f"{abs(one.by):.1f}°"
        return told.Rebent(bend=index + 1, way=one.way, by_reads=by, until_reads=format_angle(until))


def _is_worth(one: ToolReading, ask: AskedReading | None, is_last: bool) -> bool:
    """Whether a reading is told: a corner only where it is asked for, or once all is bent, from end B."""
    is_asked = ask is not None and one.lies == ask.reading.lies
    is_corner = one.lies is not None and one.lies.kind == "corner"
    return is_asked or not is_corner or (is_last and one.lies is not None and one.lies.hook == "end_b")


def _check(one: ToolReading) -> told.Check:
    return told.Check(tool=one.tool, says=one.says, reads=one.reads, lies=_lying(one.lies) if one.lies else None)


def _asked(ask: AskedReading, wanted: Measure) -> told.TapeAsk | None:
    lies = ask.reading.lies
    return told.TapeAsk(says=ask.reading.says, wanted=wanted, lies=_lying(lies)) if lies else None


def _lying(lies: TapeLies) -> told.TapeLying:
    back = lies.hook + 1 if isinstance(lies.hook, int) else None
    hook = "back" if isinstance(lies.hook, int) else lies.hook
    return told.TapeLying(kind=lies.kind, hook=hook, back=back, bends=[bend + 1 for bend in lies.bends])


def _rounded(degrees: Degrees, to: Callable[[float], int]) -> Degrees:
    """To the tenth, as a finder that shows tenths is read."""
    return to(round(degrees * 10, 6)) / 10


def _clockwise(degrees: Degrees) -> Message:
    key = "turned.clockwise" if degrees > 0 else "turned.anticlockwise"
    return message(key, angle=f"{abs(degrees):.1f}°")


def _turned(before: Setting, after: Setting) -> Message:
    by = math.degrees(math.remainder(after.roll - before.roll, 2 * math.pi))
    return _clockwise(by) if abs(by) > 0.5 else NOTHING


def _begun_in_air(stand: Stand) -> list[Message]:
    """The way that spares most of the push from above, where the pipe comes clear of the floor under way."""
    degrees = stand.finishes_on_floor()
    return [] if degrees is None else [message("caution.begin_in_air", degrees=f"{degrees}")]


def _moved(before: Setting, after: Setting) -> bool:
    turned = bool(_turned(before, after))
    return turned or abs(before.mark - after.mark) > LEAST_CUT or abs(before.angle - after.angle) > math.radians(0.125)
