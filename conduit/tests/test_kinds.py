"""Every kind of step has every part: a model, words, a line in the field note, vertices, the card's answer."""

from unittest import TestCase

from conduit.catalogue import has_message
from conduit.clauses import KINDS as TABLE
from conduit.document import StepLeftOut
from conduit.layout.step_geometry import place_step
from conduit.marking.card import on_card
from conduit.marking.working import exact_way
from conduit.notes import read_note, write_note
from conduit.plan import ways_of
from conduit.plan.candidates import candidates
from conduit.tests.support import document, laid_out
from conduit.units import INCH_TAPE

KINDS = {kind.name: kind.model for kind in TABLE}
# One good step of each kind, the least that must be written.
LEAST = {
    "bend": {"turn": "up", "at": "40"},
    "offset": {"toward": "up", "rise": "3", "angle": "30", "at": "40"},
    "slope": {"toward": "up", "rise": "6", "angle": "30", "second_angle": "15", "at": "40"},
    "rolled": {"toward": "up", "rise": "3", "roll_toward": "out", "roll": "4", "angle": "30", "at": "40"},
    "box_offset": {"surface": "in", "knockout": "1 1/2"},
    "saddle3": {"over": {"height": "2"}, "at": "40"},
    "saddle4": {"over": {"height": "2"}, "angle": "30", "near": "40", "width": "6"},
    "kick90": {"turn": "up", "at": "60", "toward": "out", "rise": "4", "kick_back": "14"},
    "sweep": {"turn": "up", "at": "60", "radius": "24", "shots": 9},
    "coupling": {"at": "40"},
    "pull_point": {"at": "40"},
}
BENDLESS = {"coupling", "pull_point"}
ONE_WAY = {"bend", "slope", *BENDLESS}


class EveryKind(TestCase):
    def each(self):
        for kind, model in KINDS.items():
            with self.subTest(kind):
                yield kind, model, document([{"kind": kind, **LEAST[kind]}], 100)

    def test_has_words_and_a_good_step_here(self):
        self.assertEqual(set(KINDS), set(LEAST))
        self.assertEqual([kind for kind in KINDS if not has_message(f"kind.{kind}.within")], [])

    def test_is_written_as_a_line_and_read_again(self):
        for kind, _, raw in self.each():
            again = read_note(write_note(raw))
            self.assertEqual((again.errors, again.document["steps"][0]["kind"]), ((), kind))
            self.assertEqual(write_note(again.document), write_note(raw))

    def test_has_vertices_and_a_card_of_its_own(self):
        for _, model, _ in self.each():
            for part in (place_step, on_card):
                self.assertIsNot(part.dispatch(model), part.dispatch(object), part)
        self.assertIsNot(place_step.dispatch(StepLeftOut), place_step.dispatch(object))

    def test_is_laid_out_with_the_exact_ways_sums(self):
        for kind, _, raw in self.each():
            layout, shoe = laid_out(raw)
            self.assertEqual((layout.complete, layout.findings), (True, ()))
            told = exact_way(layout, layout.steps, shoe)
            self.assertEqual([one.step for one in told], [] if kind in BENDLESS else [0])
            self.assertTrue(all(one.lines for one in told))

    def test_says_in_which_other_ways_it_can_be_done(self):
        for kind, _, raw in self.each():
            layout, _ = laid_out(raw)
            step, ways = layout.steps[0], ways_of(raw, 0)
            self.assertEqual(bool(list(candidates(step, raw["steps"][0], INCH_TAPE))), kind not in ONE_WAY)
            self.assertEqual(bool(ways), kind not in ONE_WAY)
