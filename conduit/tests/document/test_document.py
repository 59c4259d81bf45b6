from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from conduit.document import RunDocument, apply_edits, read_document, step_name
from conduit.tests.support import document, ninety, offset, runs
from conduit.units import LONGEST

# What is wrong with one part of a document, where that must be told, and in which words.
FAULTS = [
    ({"trade_size": "7/8"}, "trade_size", "must be one of 1/2, 3/4"),
    ({"material": "PVC"}, "material", "must be one of EMT, IMC or rigid"),
    ({"tape": "1/64"}, "tape", "must be one of"),
    ({"feet": "perhaps"}, "feet", "boolean"),
    ({"name": "x" * 81}, "name", "longer than 80 letters"),
    ({"stand_off": "-1"}, "stand_off", "cannot be negative"),
    ({"shoe": {"deduct": "6", "gain": "thick"}}, "shoe.gain", "“thick” is not a length"),
    ({"shoe": 5}, "shoe", "must be an object"),
    ({"start": {}}, "start.heading", "is missing"),
    ({"start": {"heading": "north"}}, "start.heading", "must be one of right, left"),
    ({"start": None}, "start", "must be an object"),
    ({"end": {}}, "end.at", "Still to measure: where the pipe ends"),
    ({"end": {"at": "7 1/0"}}, "end.at", "nothing can be divided by 0"),
    ({"end": {"at": "30", "measured": {"up": "x"}}}, "end.measured.up", "is not a length"),
    ({"steps": [{"kind": "bend", "turn": "up"}]}, "steps.0.at", "how far along it stands"),
    ({"steps": [{"turn": "up"}]}, "steps.0", "needs a “kind”"),
    ({"steps": [ninety(20, "up", colour="red")]}, "steps.0.colour", "does not belong here"),
    ({"steps": [offset(20, 3, "steep")]}, "steps.0.angle", "write degrees, such as 30"),
    ({"steps": [offset(20, 3, 90)]}, "steps.0.angle", "must be less than 90"),
    ({"steps": [{**offset(20, None), "over": {"clear": "1/2"}}]}, "steps.0.over.height", "the thing’s height"),
    ({"owner": "me"}, "owner", "has no “owner”"),
]


class ReadingDocuments(TestCase):
    def test_of_what_can_be_meant_in_two_ways_either_is_taken_with_one_touch(self):
        raw = document([ninety("72 - 1/2", "up"), offset("1 2 1/2", 3, 30)])
        minus, spaced = read_document(raw).findings
        self.assertEqual([str(fix.says) for fix in minus.fixes], ["It is 72 1/2", "It is 71 1/2"])
        for first in minus.fixes:
            self.assertEqual(read_document(apply_edits(raw, first.edits + spaced.fixes[0].edits)).findings, ())

    def test_each_fault_is_told_once_at_its_place_in_plain_words(self):
        for change, place, words in FAULTS:
            with self.subTest(place + " " + words):
                findings = read_document({**document([]), **change}).findings
                self.assertEqual([finding.place for finding in findings], [place])
                self.assertIn(words, findings[0].says)
                self.assertNotIn("_", findings[0].says.split("“")[0])
                to_measure = findings[0].says.startswith("Still to measure: ")
                code = "not_measured" if to_measure else "unreadable"
                self.assertEqual((findings[0].code, findings[0].severity), (code, "stop"))

    def test_one_fault_spoils_nothing_else(self):
        for change, place, _ in FAULTS:
            reading = read_document({**document([ninety(20, "up")], name="Feed"), **change})
            if not place.startswith("name"):
                self.assertEqual(reading.head.name, "Feed")
            if not place.startswith("end"):
                self.assertEqual(reading.end.at, 40)
            if not place.startswith("steps"):
                self.assertEqual(reading.steps[0].at, 20)

    @given(runs())
    def test_what_the_model_takes_reads_without_a_fault(self, raw):
        self.assertEqual(read_document(raw).findings, ())
        model = RunDocument.model_validate(raw)
        again = RunDocument.model_validate_json(model.model_dump_json())
        self.assertEqual(model, again)

    @given(st.floats(0, LONGEST), st.floats(-LONGEST, LONGEST))
    def test_figures_come_through_as_they_are(self, at, right):
        raw = {**document([ninety(at, "up")]), "end": {"at": at, "measured": {"right": right}}}
        reading = read_document(raw)
        self.assertEqual((reading.steps[0].at, reading.end.at, reading.end.measured.right), (at, at, right))

    def test_text_and_numbers_are_the_same_run(self):
        written = document([ninety("1' 8\"", "up"), offset("25.4mm", "5 1/2", "22 1/2")], "40")
        self.assertEqual(
            read_document(written).steps, read_document(document([ninety(20, "up"), offset(1, 5.5, 22.5)], 40)).steps
        )

    def test_a_turn_within_a_window_takes_the_figure_that_is_read_best(self):
        """By hand: the middle of 44 1/2 and 50 is 47 1/4, the whole inch beside it 47."""
        for window, taken, says in (
            ({"at_least": "44 1/2", "at_most": 50}, 47, "between 44 1/2 and 50: a whole inch, nearest to the middle"),
            ({"at_least": "12 1/8", "at_most": "12 7/8"}, 12.5, "a half inch"),
            ({"at_least": "12 1/16", "at_most": "12 1/8"}, 12.125, "an eighth"),
            ({"at_least": "12 1/16", "at_most": "12 1/16"}, 12.0625, "its middle"),
            ({"at_least": "14 1/4"}, 15, "at least 14 1/4: a whole inch"),
            ({"at_most": "14 1/4", "at_least": ""}, 14, "at most 14 1/4: a whole inch"),
        ):
            reading = read_document(document([ninety("", "up", **window)]))
            self.assertEqual(reading.steps[0].at, taken)
            (finding,) = reading.findings
            self.assertEqual((finding.code, finding.severity, finding.place), ("in_window", "note", "steps.0.at"))
            self.assertIn(says, finding.says)
            written = read_document(apply_edits(document([ninety("", "up", **window)]), finding.fixes[0].edits))
            self.assertEqual((written.steps[0].at, written.findings), (taken, ()))

    def test_a_figure_outside_its_window_and_a_window_of_nothing_are_told(self):
        for step, code, place in (
            (ninety(16, "up", at_most=15), "outside_window", "steps.0.at"),
            (ninety(16, "up", at_least="20 1/4"), "outside_window", "steps.0.at"),
            (ninety(16, "up", at_least=18, at_most=15), "unreadable", "steps.0.at_most"),
            (ninety("", "up", at_least="low"), "unreadable", "steps.0.at_least"),
            (ninety("", "up", at_least="", at_most=" "), "not_measured", "steps.0.at"),
        ):
            findings = read_document(document([step])).findings
            self.assertIn((code, place), [(one.code, one.place) for one in findings])

    def test_how_steps_are_called(self):
        self.assertEqual(step_name(0, ninety(1, "up")), "Step 1 (90)")
        self.assertEqual(step_name(2, {"kind": "saddle4"}), "Step 3 (four-bend saddle)")
        for odd in (None, 5, {}, {"kind": "loop"}, {"kind": ["bend"]}):
            self.assertEqual(step_name(1, odd), "Step 2")
