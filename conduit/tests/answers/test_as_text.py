"""Questions and answers as text: each answered, or refused with what and where."""

import json
from unittest import TestCase

from conduit.answers import QUESTIONS, answer_text
from conduit.tables import DEFAULT_LIMITS
from conduit.tests.support import document, ninety

LIMITS = DEFAULT_LIMITS.model_dump_json()
RUN = document([ninety(40, "up")], 40)


def asked(question, language="en", **given):
    found, text = answer_text(question, json.dumps(given), LIMITS, language)
    return found, json.loads(text)


class AsText(TestCase):
    def test_a_plan_is_answered(self):
        found, plan = asked("plan", document=RUN)
        self.assertTrue(found)
        self.assertTrue(plan["makeable"])
        self.assertEqual(len(plan["bends"]), 1)

    def test_a_note_that_is_written_reads_back(self):
        _, note = asked("note/write", document=RUN)
        _, read = asked("note/read", text=note["text"])
        _, lines = asked("compare", mine=RUN, theirs=read["document"])
        self.assertTrue(lines and all(line["same"] for line in lines), lines)

    def test_what_is_no_run_is_refused_in_words_and_in_the_language_asked_for(self):
        for question in ("plan", "remedies", "note/write"):
            found, refusal = asked(question, document={"steps": "none"})
            self.assertEqual((found, refusal["places"]), (False, {}))
            self.assertIn("This is not a run: ", refusal["detail"])
        self.assertIn("Esto no es una corrida: ", asked("plan", "es", document={"steps": "none"})[1]["detail"])

    def test_what_cannot_be_answered_says_where(self):
        for question, given, place in (
            ("pipe-rack", {}, "rack"),
            ("closing", {"legs": []}, "end.measured"),
            ("check-marks", {"marks": [{"at": "abc"}]}, "marks.0.at"),
        ):
            found, refusal = asked(question, document=RUN, **given)
            self.assertEqual((found, list(refusal["places"])), (False, [place]), question)
        found, refusal = asked("check-marks", document=RUN, marks=[])
        self.assertEqual((found, refusal["places"]), (False, {}))

    def test_what_was_asked_wrongly_says_where(self):
        found, refusal = asked("ways", document=RUN, step=-1)
        self.assertEqual((found, list(refusal["places"])), (False, ["step"]))
        self.assertEqual(len(QUESTIONS), 12)
