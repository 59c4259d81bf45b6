"""The plan endpoint: what the browser is given for every kind of document."""

import json

from django.conf import settings

from conduit.document import RunDocument
from conduit.plan import make_plan
from conduit.tests.support import WORKED_CASES, document, ninety, worked_case
from server.tests.support import CrewTestCase

OVER = {"kind": "saddle4", "over": {"height": 3, "name": "duct"}, "angle": 30, "near": 40, "width": 6}


class PlanEndpoint(CrewTestCase):
    def plan(self, raw):
        answer = self.api.send("POST", "/plan", {"document": raw})
        self.assertEqual(answer.status_code, 200)
        return answer.json()

    def test_every_worked_case_comes_through_unchanged(self):
        for name in WORKED_CASES:
            raw, case = worked_case(name)
            self.assertAlmostEqual(self.plan(raw)["developed_length"]["inches"], case["developed_length"], delta=1e-5)

    def test_a_full_answer_has_card_simulation_hands_and_supports(self):
        plan = self.plan(document([ninety(30, "up"), OVER], 110))
        self.assertEqual([pipe["marks"] for pipe in plan["simulated"]], ["exact", "rounded", "card"])
        self.assertEqual(plan["simulated"][0]["passed"][0]["name"], "duct")
        self.assertTrue(plan["card"][1]["lines"])
        self.assertEqual(len(plan["by_hand"]["per_degree"]), 5)
        self.assertTrue(plan["supports"])
        self.assertTrue(all(bend["use_because"] for piece in plan["pieces"] for bend in piece["bends"]))

    def test_an_unfinished_run_has_nulls_where_nothing_is_known(self):
        plan = self.plan(document([ninety("", "up")]))
        for field in ("developed_length", "end_point", "by_hand", "closure"):
            self.assertIsNone(plan[field])
        self.assertEqual((plan["pieces"], plan["simulated"], plan["makeable"]), ([], [], False))
        self.assertIsNotNone(plan["picture"])

    def test_what_cannot_begin_is_told_too(self):
        for raw in ({}, {"trade_size": "nine"}, {"trade_size": "2", "start": {"heading": "up"}, "steps": []}):
            plan = self.plan(raw)
            self.assertFalse(plan["makeable"])
            self.assertTrue(plan["findings"])
            self.assertTrue(all(finding["says"].endswith(".") for finding in plan["findings"]))

    def test_a_plan_is_small_enough_to_send_on_each_key(self):
        raw = document([ninety(60, "up" if i % 2 == 0 else "right") for i in range(12)], 40)
        self.assertLess(len(json.dumps(self.plan(raw))), 120_000)

    def test_answers_are_compressed_and_guarded(self):
        answer = self.api.post(
            "/api/plan",
            json.dumps({"document": document([ninety(30, "up")])}),
            content_type="application/json",
            headers={"accept-encoding": "gzip"},
        )
        self.assertEqual(answer["Content-Encoding"], "gzip")
        self.assertEqual(answer["X-Content-Type-Options"], "nosniff")
        self.assertEqual(answer["Referrer-Policy"], "same-origin")

    def test_lengths_of_every_step_are_read_for_nudging(self):
        kick = {"kind": "kick90", "toward": "out", "rise": "4", "turn": "up", "at": "40", "kick_back": "14"}
        places = {field["place"]: field["reads"] for field in self.plan(document([kick, OVER], "110"))["fields"]}
        self.assertEqual(places["steps.0.kick_back"], "14")
        self.assertEqual(places["steps.1.over.height"], "3")
        self.assertEqual(places["end.at"], "110")

    def test_the_published_schema_is_the_documents(self):
        schema = json.loads((settings.ROOT / "web" / "openapi.json").read_text())
        kinds = schema["components"]["schemas"]["PreviewIn"]["properties"]["document"]
        published = set(kinds["properties"]["steps"]["items"]["discriminator"]["mapping"])
        ours = RunDocument.model_json_schema()["properties"]["steps"]["items"]["discriminator"]["mapping"]
        self.assertEqual(published, set(ours))
        self.assertTrue(make_plan(document([ninety(30, "up")])).makeable)
