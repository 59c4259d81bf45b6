import math
from unittest import TestCase

from conduit.correct import Aim, AsBent, correct
from conduit.document import read_document
from conduit.prove import Prover
from conduit.simulate import Pose, bend_pipe
from conduit.tests.support import document, laid_out, ninety, offset

LONG_STUB = document([ninety(30, "up"), ninety(60, "right")], 40)
OFFSET = document([offset(20, 6, 30), ninety(70, "up")], 40)


def after(raw, *readings, material="EMT"):
    """The correction after bends came out at so many degrees, and what bending to it gives."""
    layout, shoe = laid_out(raw)
    path = layout.path
    planned = Prover(read_document(raw), layout, shoe).exact_settings()
    start = Pose(path.origin, path.heading, path.bends[0].axis.cross(path.heading))
    aim = Aim(path.end_point, path.bends[-1].heading_after)
    found = correct(planned, [AsBent(*one) for one in readings], shoe, start, path.length, aim, material)
    real = list(found.settings)
    if found.advice == "rebend":
        real = planned
    bent = bend_pipe(path.length, real, shoe, start)
    return found, bent.miss(path.end_point), math.degrees(bent.end.heading.angle_to(aim.heading)), planned


class Correcting(TestCase):
    def test_what_still_fits_goes_on(self):
        found, miss, _, planned = after(OFFSET, (0, 30.05))
        self.assertEqual(found.advice, "go_on")
        self.assertLess(miss, 1 / 8)
        self.assertEqual([one.mark for one in found.settings], [one.mark for one in planned])

    def test_the_rest_is_replanned_and_that_brings_the_end_back(self):
        found, miss, off, planned = after(OFFSET, (0, 31.5))
        self.assertEqual(found.advice, "replan")
        self.assertGreater(found.misses, 0.5)
        self.assertLess(miss, 1 / 8)
        self.assertLess(off, 1)
        self.assertAlmostEqual(found.after, miss, 9)
        self.assertAlmostEqual(math.degrees(found.settings[0].angle), 31.5, 9)
        self.assertNotEqual(found.settings[1].mark, planned[1].mark)

    def test_a_bend_that_is_under_goes_back_into_the_shoe(self):
        found, miss, _, _ = after(LONG_STUB, (0, 87))
        self.assertEqual(found.advice, "rebend")
        self.assertAlmostEqual(found.rebends[0].by, 3, 6)
        self.assertIn("close bend 1 by 3.0°", found.says)
        self.assertLess(miss, 1e-9)

    def test_a_bend_that_is_over_is_opened_in_emt_and_scrap_in_heavy_wall(self):
        self.assertAlmostEqual(after(LONG_STUB, (0, 92))[0].rebends[0].by, -2, 6)
        self.assertEqual(after(LONG_STUB, (0, 92), material="rigid")[0].advice, "scrap")
        far = after(LONG_STUB, (0, 99))[0]
        self.assertEqual(far.advice, "scrap")
        self.assertIn("9.0° over", far.says)

    def test_nothing_left_to_replan(self):
        found, _, _, _ = after(LONG_STUB, (0, 90), (1, 88))
        self.assertEqual((found.advice, len(found.rebends)), ("rebend", 1))

    def test_a_bend_in_the_wrong_place_is_made_up_for_by_the_rest(self):
        found, miss, _, planned = after(OFFSET, (0, 30, 0.4))
        self.assertEqual(found.advice, "replan")
        self.assertLess(miss, 1 / 8)
        self.assertAlmostEqual(found.settings[0].mark - planned[0].mark, 0.4, 9)
        self.assertEqual(after(LONG_STUB, (0, 90, 0.4), (1, 90))[0].advice, "scrap")
