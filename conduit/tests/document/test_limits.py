from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from conduit.notes import read_note, write_note
from conduit.notes.grammar import LIMITS
from conduit.plan import make_plan
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.tests.support import document, ninety

SPELLED = {"most_degrees": st.integers(1, 3600).map(str), "closure": st.just("1/8"), "clear_of_bend": st.just("5 1/2")}
ONE = st.integers(1, 11).map(str)
RUN = document([ninety(40, "up")], 40)


class RunLimits(TestCase):
    @given(st.fixed_dictionaries({}, optional={name: SPELLED.get(name, ONE) for name in LIMITS}))
    def test_any_of_them_are_written_down_and_read_again_and_hold(self, limits):
        raw = {**RUN, "limits": limits}
        self.assertEqual(read_note(write_note(raw)).document.get("limits", {}), limits)
        held_to = make_plan(raw, Limits(kerf=1 / 8)).limits
        self.assertEqual(held_to.kerf, 1 / 8)
        for name in LIMITS:
            if name not in limits:
                self.assertEqual(getattr(held_to, name), getattr(DEFAULT_LIMITS, name))
        if "clear_of_bend" in limits:
            self.assertEqual(held_to.clear_of_bend, 5.5)

    def test_one_that_cannot_be_read_is_told_at_its_place(self):
        for name, value in {"most_degrees": "many", "support_spacing": "4000", "closure": "30 deg"}.items():
            plan = make_plan({**RUN, "limits": {name: value}})
            self.assertEqual([(one.code, one.place) for one in plan.findings], [("unreadable", f"limits.{name}")])

    def test_in_millimetres_on_a_metric_tape(self):
        raw = {**RUN, "tape": "1 mm", "limits": {"support_spacing": "1000"}}
        self.assertAlmostEqual(make_plan(raw).limits.support_spacing, 1000 / 25.4)
        self.assertIn("limits straps every 1000\n", write_note(raw))
