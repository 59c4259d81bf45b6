from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from conduit.bender import typical_shoe
from conduit.bending import Arranged, Bencher, NoSuchStick
from conduit.document import ShoeFigures
from conduit.layout import point_at
from conduit.plan import given_shoe
from conduit.simulation import Setting, bend_pipe
from conduit.tests.support import document, ninety, offset

LONG = [ninety(30, "up"), offset(24, 4, toward="out"), ninety(60, "right"), ninety(50, "up"), ninety(44, "left")]
# Behind a slope the run goes on aslant, so that a corner that moved would move all of it.
SLOPES = [
    [
        {"kind": "slope", "toward": "out", "rise": 6, "angle": 30, "second_angle": 15, "ref": ref, "at": 60},
        {"kind": "bend", "turn": "up", "at": 90},
        {"kind": "bend", "turn": "left", "at": 80},
    ]
    for ref in ("starts_at", "raised_by", "centred_at")
]


def own(deduct, gain, name="The red one"):
    return Arranged(shoe=ShoeFigures(name=name, deduct=deduct, gain=gain))


class SticksOnAShoeOfTheirOwn(TestCase):
    """A stick that is bent on another shoe meets its neighbours where they are, whatever its radius."""

    @settings(max_examples=30)
    @given(st.floats(5.2, 7), st.floats(2.6, 3.6), st.sampled_from([1, 2, 3]), st.sampled_from([LONG, *SLOPES]))
    def test_it_joins_the_others_where_they_are(self, deduct, gain, number, steps):
        bencher, arranged = Bencher(document(steps, 70)), own(deduct, gain)
        try:
            other = bencher.on(number, arranged)
        except NoSuchStick:
            assume(False)
        shoe, path = other.shoe, bencher.layout.path
        piece = bencher.plan.pieces[number - 1]
        sheet = bencher.sheet(number, arranged)
        # Bent from the sheet's own marks, held where the run's own pipe has its end A.
        rolls = {index + 1: bend.roll for index, bend in enumerate(other.layout.path.bends)}
        marks = [
            Setting(
                bend.use.at.inches,
                bend.use.reference,
                bend.use.hook,
                rolls[bend.number],
                bend.angle * 3.141592653589793 / 180,
            )
            for bend in sheet.bends
        ]
        held = bencher.checked.prover.exact_bent.pose_at(piece.start)
        bent = bend_pipe(sheet.length.inches, marks, shoe, held)
        place, heading = point_at(path, piece.start + piece.length.inches)
        self.assertLess(bent.end.point.minus(place).length(), 1e-4)
        self.assertLess(bent.end.heading.angle_to(heading), 1e-6)

    def test_by_hand(self):
        # One 90 whose legs are 20 and 40 to the back: the pipe is both less the gain (docs/trade.md).
        bencher = Bencher(document([ninety(20, "up")], 40, shoe={"deduct": 6, "gain": 3.25}))
        self.assertAlmostEqual(bencher.sheet(1).length.inches, 20 + 40 - 3.25, 9)
        sheet = bencher.sheet(1, own(5.5, 2.75))
        self.assertAlmostEqual(sheet.length.inches, 20 + 40 - 2.75, 9)
        self.assertEqual(sheet.bends[0].use.at.reads, "14 1/2")
        self.assertIn("For The red one, not for the run’s", sheet.cutting[-1])
        self.assertIn("57 1/4 between its ends, not 56 3/4", sheet.cutting[-1])

    def test_the_run_s_own_shoe_changes_nothing(self):
        figures = {"name": "Blue", "deduct": 6, "gain": 3.25}
        bencher = Bencher(document(LONG, 70, shoe=figures))
        self.assertIs(bencher.on(1, Arranged(shoe=ShoeFigures(**figures))), bencher)

    def test_a_shoe_that_cannot_bend_it_is_refused_with_the_reason(self):
        tight = document([offset(20, 4, 30)], 60, shoe={"deduct": 6, "gain": 3.25})
        self.assertTrue(Bencher(tight).plan.makeable)
        with self.assertRaisesRegex(NoSuchStick, "on The red one this run cannot be bent. Step 1"):
            Bencher(tight).sheet(1, own(14, 8))
        with self.assertRaisesRegex(NoSuchStick, "this shoe takes EMT 1"):
            shoe = ShoeFigures(name="Large", deduct=8, gain=4, bends=["EMT 1"])
            Bencher(tight).sheet(1, Arranged(shoe=shoe))

    def test_only_the_stick_itself_must_be_long_enough(self):
        # Its first piece is a whole stick: with less gain it would be longer.
        bencher = Bencher(document([ninety(60, "up"), ninety(50, "right")], 70, shoe={"deduct": 6, "gain": 3.25}))
        self.assertEqual(bencher.sheet(1).length.reads, "120")
        with self.assertRaisesRegex(NoSuchStick, "on The red one piece 1 would be 121, and a stick is 120"):
            bencher.sheet(1, own(5.5, 2.75))
        self.assertEqual(bencher.sheet(2, own(5.5, 2.75)).length.reads, bencher.sheet(2).length.reads)

    def test_the_typical_shoe_and_one_with_its_figures_lay_it_out_the_same(self):
        usual, bencher = typical_shoe("EMT", "3/4"), Bencher(document(LONG, 70))
        same = bencher.on(1, own(usual.deduct, usual.gain))
        self.assertEqual(given_shoe(same.measured.head).radius, usual.radius)
        for one, other in zip(bencher.plan.couplings, same.plan.couplings, strict=True):
            self.assertAlmostEqual(one.at.inches, other.at.inches, 4)
