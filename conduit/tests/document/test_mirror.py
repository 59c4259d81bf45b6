from unittest import TestCase

from hypothesis import given

from conduit.document import mirrored
from conduit.plan import make_plan
from conduit.tests.support import document, ninety, runs


class Mirrored(TestCase):
    @given(runs())
    def test_it_is_the_same_pipe_seen_in_a_mirror(self, raw):
        one, other = make_plan(raw), make_plan(mirrored(raw))
        self.assertEqual(one.makeable, other.makeable)
        self.assertEqual(mirrored(mirrored(raw)), raw)
        if one.complete:
            self.assertAlmostEqual(one.developed_length.inches, other.developed_length.inches, 9)
            x, y, z = other.end_point
            for mine, theirs in zip(one.end_point, (-x, y, z), strict=True):
                self.assertAlmostEqual(mine, theirs, 9)

    def test_what_was_typed_stays_and_names_are_no_directions(self):
        rack = {"side": "right", "gap": "1 1/2", "pipes": [{"name": "left", "steps": [ninety("3o", "left")]}]}
        raw = {**document([ninety("71 1/2", "right")], rack=rack), "name": "right"}
        raw["end"] = {"at": "40", "measured": {"right": "-87 1/2", "up": "3"}}
        other = mirrored(raw)
        self.assertEqual((other["name"], other["rack"]["pipes"][0]["name"]), ("right", "left"))
        self.assertEqual((other["rack"]["side"], other["steps"][0]["turn"]), ("left", "left"))
        self.assertEqual(other["rack"]["pipes"][0]["steps"][0], ninety("3o", "right"))
        self.assertEqual(other["end"]["measured"], {"right": "87 1/2", "up": "3"})
