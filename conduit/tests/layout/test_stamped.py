import math
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.bending import Bencher
from conduit.geometry import DIRECTIONS, ORIGIN
from conduit.layout import point_at
from conduit.notes import read_note, write_note
from conduit.plan import check_run, make_plan
from conduit.simulation import Pose
from conduit.tests.support import document, ninety, offset

# 3/4 EMT is 0.922 across: on its strap its axis lies 0.461 high, and a knockout of 0.961 stands 1/2 above it.
KNOCKOUT = 0.461 + 0.5


def stamped(end="start", rise=0.5, length=3.0, knockout=KNOCKOUT, straight=2, **more):
    step = {"kind": "box_offset", "surface": "in", "knockout": knockout, "straight": straight, "end": end}
    return {**step, "stamped": rise, "stamped_length": length, **more}


def stamped_pipe(stamp, seat, heading, outward):
    """The end as the tool leaves it, from its seat on: where it is straight again, and how much pipe that took."""
    pose = Pose(seat, heading, outward).forward(stamp.straight)
    # Two arcs, toward the strap and back; what is inside of the first is outside of the second.
    roll = math.atan2(stamp.toward.dot(heading.cross(outward)), stamp.toward.dot(outward))
    pose = pose.around(roll, stamp.angle, stamp.radius).around(roll + math.pi, stamp.angle, stamp.radius)
    return pose, stamp.straight + 2 * stamp.radius * stamp.angle


class StampedByALeverTool(TestCase):
    @settings(max_examples=40)
    @given(st.floats(0.4, 1.5), st.floats(2, 6), st.sampled_from(["start", "end"]), st.booleans())
    def test_stamped_at_last_it_lies_as_laid_out_and_its_end_is_in_the_knockout(self, rise, length, end, above):
        rise = rise if above else rise / 4
        knockout = 0.461 + rise if above else 0.461 - rise
        steps = [offset(20, 4, toward="out"), ninety(80, "up")]
        step = stamped(end, rise, length, knockout)
        raw = document([step, *steps] if end == "start" else [*steps, step], 60)
        layout = check_run(raw).layout
        [stamp], path = layout.stamps, layout.path
        if end == "start":
            seat, heading = layout.starts_at, path.heading
            place, line = point_at(path, stamp.reach)
        else:
            seat, heading = layout.ends_at, path.bends[-1].heading_after.times(-1)
            place, line = point_at(path, path.length - stamp.reach)
            line = line.times(-1)
        made, pipe = stamped_pipe(stamp, seat, heading, DIRECTIONS["out"])
        self.assertAlmostEqual(pipe, stamp.reach, 9)
        self.assertLess(made.point.minus(place).length(), 1e-9)
        self.assertLess(made.heading.angle_to(line), 1e-9)
        if end == "start":
            self.assertLess(seat.minus(ORIGIN).length(), 1e-9)

    def test_by_hand(self):
        # H 1/2 over L 3: R = (9 + 1/4) / 2 = 4.625, θ = 2 atan(1/6) = 18.925°, pipe 2Rθ = 3.0552 (docs/trade.md).
        raw = document([stamped(), ninety(30, "up")], 40, shoe={"deduct": 6, "gain": 3.25})
        plan = make_plan(raw)
        self.assertTrue(plan.makeable)
        self.assertAlmostEqual(plan.developed_length.inches, 30 + 40 - 3.25 + 0.0552, 3)
        self.assertEqual(plan.degrees, 90)
        sheet = Bencher(raw).sheet(1)
        self.assertIn("End A keeps 5 1/16 straight until the lever tool stamps it", sheet.cutting[-1])
        first, second = sheet.stamps
        self.assertIn("with 2 beyond the offset. With the pipe beyond bend 1 at 12 o’clock, seen from end A", first)
        # The run goes right and then up, seen from its beginning out of the wall lies to the right: 3 o'clock.
        self.assertIn("the end moves to 3 o’clock. One pull.", first)
        self.assertIn("end A is 1/2 away", second)

    def test_seen_from_end_b_it_is_the_other_side(self):
        sheet = Bencher(document([ninety(30, "up"), stamped("end")], 40)).sheet(1)
        # From above, looking down, with the run coming from the left at 12 o'clock: out of the wall lies at 9.
        self.assertIn("seen from end B, the end moves to 9 o’clock", sheet.stamps[0])

    def codes(self, *steps, **more):
        return {finding.code: finding for finding in make_plan(document(list(steps), 40, **more)).findings}

    def test_what_stands_against_it_is_told(self):
        self.assertEqual(self.codes(stamped(), ninety(30, "up")), {})
        low = self.codes(stamped(knockout=KNOCKOUT + 0.25), ninety(30, "up"))["stamp_misses"]
        self.assertIn("the knockout stands 3/4 off the pipe; the lever tool stamps 1/2", low.says)
        self.assertIn("straps that stand off 1/4 more", low.remedy)
        near = self.codes(stamped(), ninety(9, "up"))["short_straight"]
        self.assertIn("takes 5 1/16; only", near.says)
        self.assertIn("straight_at_connector", self.codes(stamped(straight="1/2"), ninety(30, "up")))
        self.assertIn("stamp_misses", self.codes(ninety(30, "up"), stamped()))

    def test_drawn_it_comes_out_of_the_knockouts(self):
        lines = make_plan(document([stamped(), ninety(30, "up"), stamped("end")], 40)).picture.lines
        self.assertEqual(lines[0][:2], [(0, 0, 0), (2, 0, 0)])
        self.assertAlmostEqual(lines[0][2][0], 5, 9)
        self.assertAlmostEqual(lines[0][2][2], -0.5, 9)
        self.assertEqual([round(point[2], 9) for point in lines[-1]], [-0.5, -0.5, 0, 0])

    def test_straps_and_couplings_keep_off_it(self):
        plan = make_plan(document([stamped(), ninety(200, "up")], 40))
        self.assertGreaterEqual(min(one.inches for one in plan.supports), 5.05)
        self.assertEqual([round(end, 2) for _, end in plan.no_couplings][:1], [5.06])

    def test_a_box_measured_on_its_own_is_met_at_the_knockout(self):
        box = {"right": 30 - 0.461, "up": 40 - 0.461, "out": 0.5}
        raw = document([ninety(30, "up"), stamped("end")], 40)
        raw["end"]["measured"] = box
        self.assertLess(make_plan(raw).closure.distance.inches, 1e-6)

    def test_its_note_reads_back(self):
        raw = document([stamped(length="3", rise="1/2", knockout="1"), ninety("30", "up")], "40")
        note = write_note(raw)
        self.assertIn("stamped 1/2 in 3", note)
        self.assertEqual(make_plan(read_note(note).document).developed_length, make_plan(raw).developed_length)
