"""What tape and level are asked to read, against a second bencher that measures the bent pipe's surface."""

import math
from dataclasses import replace
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from conduit.bender import typical_shoe
from conduit.bending import Arranged, Bencher, BendAsMade
from conduit.bending.stick import LYING
from conduit.tests.bending.second_bencher import BentStick
from conduit.tests.support import runs
from conduit.units import parse_length

SPARES = st.sampled_from([None, 0, 1.5, 3])


@st.composite
def sticks(draw):
    """A stick of a random run that can be made, with something to spare on either end, on any tape and shoe."""
    raw = {**draw(runs()), "tape": draw(st.sampled_from(["1/16", "1/8", "1 mm"]))}
    worn = draw(st.sampled_from([None, (0.125, -0.0625), (-0.125, 0.125)]))
    if worn:
        usual = typical_shoe("EMT", raw["trade_size"])
        figures = {"deduct": usual.deduct + worn[0], "gain": usual.gain + worn[1]}
        raw["shoe"] = {"name": "The red one", **figures}
    bencher = Bencher(raw)
    assume(bencher.plan.pieces)
    piece = draw(st.sampled_from(bencher.plan.pieces))
    assume(piece.bends)
    hooks = draw(st.sampled_from(["habit", "one_way"]))
    return bencher, piece.number, Arranged(spare=draw(SPARES), spare_a=draw(SPARES), hooks=hooks)


class Bending:
    """Bends a stick by its sheet, each bend as it says but for what a hand does wrong, and enters what tools read."""

    def __init__(self, bencher, piece, arranged):
        self.bencher, self.piece, self.arranged = bencher, piece, arranged
        self.real, self.made = {}, []

    def maker(self):
        return self.bencher._of(self.piece, self.arranged, self.made)

    def sheet(self):
        return self.bencher.sheet(self.piece, self.arranged, self.made)

    def stick(self, **other):
        maker = self.maker()
        made = {number: other.get(str(number), one) for number, one in self.real.items()}
        return BentStick(made, maker.stick.cut, maker.shoe, LYING)

    def bend(self, number, moved=0.0, over=0.0, rolled=0.0):
        """Make a bend; gives its place on the sheet before it was entered."""
        maker = self.maker()
        bend = next(one for one in self.sheet().bends if one.number == number)
        target = maker.as_made.states[-1].targets[number - 1]
        angle, roll = target.angle + math.radians(over), target.roll + math.radians(rolled)
        # Nothing is under by more than it is to be bent.
        assume(angle > math.radians(0.1))
        self.real[number] = replace(target, mark=target.mark + moved, angle=angle, roll=roll)
        taped = maker.stick.measured.head.tape.rounded(self.stick().measured(bend.tape.lies)) if bend.tape else None
        reads = round(math.degrees(angle), 1)
        self.made.append(BendAsMade(bend=number, angle=reads, tape=taped, turned=rolled))
        return bend

    @property
    def correction(self):
        return self.maker().as_made.states[-1].correction

    def misses(self):
        """What is used of what end B is forgiven, with the cuts that were told last."""
        maker, piece = self.maker(), self.maker().stick.piece
        end = piece.bent([self.real[index + 1] for index in maker.planned], self.correction.cuts).end
        return piece.at_end(end.point, end.heading)


class Readings(TestCase):
    @settings(max_examples=60)
    @given(sticks())
    def test_what_is_asked_is_what_is_measured_on_the_pipe_and_shows_where_the_bend_is(self, stick):
        bending = Bending(*stick)
        for index in bending.maker().arrangement.sequence:
            bend = bending.bend(index + 1)
            here = bending.stick()
            for check in bend.checks:
                if check.lies:
                    tape = bending.maker().stick.measured.head.tape
                    self.assertLess(abs(here.measured(check.lies) - parse_length(check.reads)), tape.half_step + 1 / 64)
            if bend.tape:
                self.assertLess(abs(here.measured(bend.tape.lies) - bend.tape.wanted.inches), 1 / 64)
                off = replace(bending.real[index + 1], mark=bending.real[index + 1].mark + 1 / 8)
                moved = bending.stick(**{str(index + 1): off}).measured(bend.tape.lies) - here.measured(bend.tape.lies)
                self.assertGreater(abs(moved), 1 / 33)

    @settings(max_examples=30)
    @given(sticks())
    def test_who_bends_as_the_sheet_says_is_told_that_all_is_within(self, stick):
        bending = Bending(*stick)
        for index in bending.maker().arrangement.sequence:
            bending.bend(index + 1)
            self.assertEqual(bending.correction.advice, "go_on", bending.made)
            self.assertTrue(next(one for one in bending.sheet().bends if one.number == index + 1).made.within)

    @settings(max_examples=40)
    @given(sticks(), st.data())
    def test_within_its_window_nothing_is_demanded(self, stick, data):
        """At either edge of the angle, with the mark off by as much as goes with it."""
        bending = Bending(*stick)
        sequence = bending.maker().arrangement.sequence
        at = data.draw(st.integers(0, len(sequence) - 1))
        for index in sequence[:at]:
            bending.bend(index + 1)
        maker, index = bending.maker(), sequence[at]
        window = maker.as_made.window(maker.as_made.states[-1], index)
        target = maker.as_made.states[-1].targets[index]
        for angle in (window.least, window.most):
            for moved in (-window.mark, window.mark):
                off = replace(target, angle=math.radians(angle), mark=target.mark + moved)
                piece = maker.stick.piece
                bent = piece.bent([*({**maker.as_made.states[-1].real, index: off}).values()])
                self.assertTrue(piece.fits(bent), (angle, moved))

    @settings(max_examples=50)
    @given(sticks(), st.data())
    def test_whoever_follows_the_advice_comes_to_the_place(self, stick, data):
        """Whatever one bend is off in mark, angle or roll; or it is told to be sprung, or to be scrap."""
        bending = Bending(*stick)
        sequence = bending.maker().arrangement.sequence
        wrong = data.draw(st.sampled_from(sequence))
        what = data.draw(st.sampled_from(["moved", "over", "rolled"]))
        by = {"moved": [-0.25, -0.125, 0.125, 0.25], "over": [-4, -2, -1, 1, 2, 4], "rolled": [-5, -2, 2, 5]}[what]
        for index in sequence:
            bending.bend(index + 1, **({what: float(data.draw(st.sampled_from(by)))} if index == wrong else {}))
            advice = bending.correction.advice
            if advice in ("scrap", "spring", "rebend"):
                # Brought back, a bend is read anew: as it was to be.
                return
        self.assertLess(bending.misses(), 1.5)
