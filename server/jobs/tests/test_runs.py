import json
from datetime import timedelta

from django.utils.timezone import now
from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.extra.django import TestCase as PropertyTestCase

from conduit.document import mirrored
from conduit.plan import closing_of, make_plan, ways_of
from conduit.tests.support import document, ninety
from server.accounts.models import Crew
from server.jobs.models import Revision, Run
from server.tests.support import RUN, Api, CrewTestCase, person

SADDLE = document([{"kind": "saddle3", "toward": "out", "rise": "3", "angle": "45", "at": "40"}], "90")


class Runs(CrewTestCase):
    def save(self, version, changed, user=None):
        body = {"version": version, "document": changed}
        return Api(user or self.lead).send("PUT", f"/runs/{self.feed.pk}", body)

    def test_saved_as_typed(self):
        typed = document([ninety("7 1/0", "up"), ninety("5'13\"", "right")], "", name="½ done “run”")
        self.assertEqual(self.save(1, typed).json()["version"], 2)
        self.assertEqual(self.api.send("GET", f"/runs/{self.feed.pk}").json()["document"], typed)

    def test_a_stale_save_is_told_not_overwritten(self):
        mine, theirs = dict(RUN, name="mine"), dict(RUN, name="theirs")
        self.assertEqual(self.save(1, theirs, self.bender).status_code, 200)
        refused = self.save(1, mine)
        self.assertEqual(refused.status_code, 409)
        self.assertEqual(refused["Content-Type"], "application/problem+json")
        self.assertEqual(refused.json()["theirs"]["document"], theirs)
        self.assertEqual(refused.json()["theirs"]["saved_by"], "ben")
        self.assertEqual(Run.objects.get(pk=self.feed.pk).document, theirs)
        self.assertEqual(self.save(2, mine).status_code, 200)

    def test_every_save_is_a_revision(self):
        for version in (1, 2):
            self.save(version, dict(RUN, name=f"v{version}"))
        self.save(3, dict(RUN, name="v2"))
        names = [r.document["name"] for r in Revision.objects.filter(run=self.feed).order_by("version")]
        self.assertEqual(names, ["Feed", "v1", "v2"], "a save of the same is not a revision")

    def test_history_tells_who_when_and_what(self):
        for version in (1, 2, 3):
            self.save(version, dict(RUN, name=f"v{version}"), self.bender if version == 2 else self.lead)
        told = self.api.send("GET", f"/runs/{self.feed.pk}/revisions").json()
        self.assertEqual([(line["version"], line["saved_by"]) for line in told], [(4, "lena"), (3, "ben"), (2, "lena")])
        old = self.api.send("GET", f"/runs/{self.feed.pk}/revisions/3").json()
        self.assertEqual((old["document"]["name"], old["saved_by"]), ("v2", "ben"))
        self.assertEqual(self.api.send("GET", f"/runs/{self.feed.pk}/revisions/9").status_code, 404)
        newest = self.api.send("GET", f"/runs/{self.feed.pk}/saved").json()
        self.assertEqual((newest["version"], newest["saved_by"]), (4, "lena"))

    def test_a_pause_begins_a_new_stretch_of_history(self):
        for version in (1, 2):
            self.save(version, dict(RUN, name=f"v{version}"))
        self.feed.revisions.filter(version__lte=2).update(saved_at=now() - timedelta(hours=1))
        told = self.api.send("GET", f"/runs/{self.feed.pk}/revisions").json()
        self.assertEqual([line["version"] for line in told], [3, 2])

    def test_what_is_no_run_is_refused(self):
        for bad in ({"steps": 5}, dict(RUN, steps=[{}] * 61), dict(RUN, name="x" * 140_000)):
            answer = self.save(1, bad)
            self.assertEqual(answer.status_code, 422)
        self.assertEqual(Run.objects.get(pk=self.feed.pk).version, 1)

    def test_jobs_and_runs_come_and_go(self):
        job = self.api.send("POST", "/jobs", {"name": "Barn", "place": ""}).json()
        run = self.api.send("POST", f"/jobs/{job['id']}/runs", {"document": RUN}).json()
        self.assertEqual([r["name"] for r in self.api.send("GET", f"/jobs/{job['id']}").json()["runs"]], ["Feed"])
        self.assertEqual(self.api.send("DELETE", f"/runs/{run['id']}").status_code, 204)
        self.assertEqual(self.api.send("DELETE", f"/jobs/{job['id']}").status_code, 204)
        self.assertEqual(len(self.api.send("GET", "/jobs").json()), 1)
        self.assertEqual(self.api.send("POST", "/jobs", {"name": ""}).status_code, 422)

    def test_a_run_is_copied_mirrored_and_into_another_job(self):
        address = f"/runs/{self.feed.pk}/copy"
        other = self.api.send("POST", "/jobs", {"name": "Other"}).json()
        copy = self.api.send("POST", address, {}).json()
        self.assertEqual((copy["job_id"], copy["document"]), (self.job.pk, RUN | {"name": "Feed copy"}))
        twin = self.api.send("POST", address, {"mirrored": True, "job_id": other["id"]}).json()
        self.assertEqual((twin["job_id"], twin["document"]), (other["id"], mirrored(RUN) | {"name": "Feed mirrored"}))
        self.assertEqual(self.api.send("POST", address, {"job_id": 0}).status_code, 404)

    def test_a_series_has_the_next_free_numbers(self):
        address = f"/runs/{self.feed.pk}/series"
        self.assertEqual([run["document"]["name"] for run in self.api.send("POST", address, {"count": 3}).json()], [
            "Feed 2", "Feed 3"
        ])  # fmt: skip
        boxes = self.api.send(
            "PUT", f"/runs/{self.feed.pk}", {"version": 1, "document": RUN | {"start": RUN["start"] | {"name": "KP"}}}
        )
        self.assertEqual(boxes.status_code, 200)
        fours = [self.api.send("POST", address, {"count": 2, "own_boxes": own}).json()[0] for own in (True, False)]
        self.assertEqual([one["document"]["start"]["name"] for one in fours], ["KP 4", "KP"])
        third = self.api.send("GET", f"/jobs/{self.job.pk}").json()["runs"][2]["id"]
        [more] = self.api.send("POST", f"/runs/{third}/series", {"count": 2}).json()
        self.assertEqual(more["document"], RUN | {"name": "Feed 6"})
        self.assertEqual(self.api.send("POST", address, {"count": 1}).status_code, 422)

    def test_a_job_is_called_otherwise(self):
        renamed = self.api.send("PUT", f"/jobs/{self.job.pk}", {"name": "Kilns", "place": "Shed 2"}).json()
        self.assertEqual((renamed["name"], renamed["place"]), ("Kilns", "Shed 2"))
        self.assertEqual(self.api.send("PUT", f"/jobs/{self.job.pk}", {"name": ""}).status_code, 422)

    def test_listing_takes_few_queries(self):
        for _ in range(5):
            self.api.send("POST", f"/jobs/{self.job.pk}/runs", {"document": RUN})
        with self.assertNumQueries(5):
            self.api.send("GET", "/jobs")


class Planning(CrewTestCase):
    def test_preview_is_the_core_plan(self):
        answer = self.api.send("POST", "/plan", {"document": RUN})
        self.assertEqual(answer.json(), json.loads(make_plan(RUN).model_dump_json()))

    def test_ways_marks_and_notes_are_the_cores(self):
        ways = self.api.send("POST", "/ways", {"document": SADDLE, "step": 0}).json()
        self.assertEqual(ways, [json.loads(way.model_dump_json()) for way in ways_of(SADDLE, 0)])
        laid = [{"at": bend.use.at.reads} for bend in make_plan(SADDLE).pieces[0].bends]
        self.assertTrue(self.api.send("POST", "/check-marks", {"document": SADDLE, "marks": laid}).json()["right"])
        laid[1]["at"] = "30"
        judged = self.api.send("POST", "/check-marks", {"document": SADDLE, "marks": laid}).json()
        self.assertEqual((judged["right"], judged["mistake"]), (False, "arithmetic"))
        self.assertIn("too near A", judged["marks"][1]["off_reads"])
        for wrong in (laid[:2], [{"at": "x"}] * 3, [{"at": "3", "reference": "nose"}] * 3):
            answer = self.api.send("POST", "/check-marks", {"document": SADDLE, "marks": wrong})
            self.assertEqual(answer.status_code, 422)
        measured = {**RUN, "end": {**RUN["end"], "measured": {"right": 1, "up": 2}}}
        closing = self.api.send("POST", "/closing", {"document": measured, "legs": ["end.at"]}).json()
        self.assertEqual(closing, json.loads(closing_of(measured, ["end.at"]).model_dump_json()))
        self.assertEqual(self.api.send("POST", "/closing", {"document": RUN, "legs": []}).status_code, 422)
        note = self.api.send("POST", "/note/write", {"document": SADDLE}).json()
        read = self.api.send("POST", "/note/read", {"text": note["text"] + "wibble", "before": SADDLE}).json()
        self.assertEqual(
            (read["faults"][0]["line"], read["faults"][0]["words"]), (len(note["text"].splitlines()) + 1, "wibble")
        )
        self.assertEqual(make_plan(read["document"]).pieces, make_plan(SADDLE).pieces)
        rows = self.api.send("POST", "/compare", {"mine": SADDLE, "theirs": dict(SADDLE, name="Other")}).json()
        self.assertEqual(sum(not row["same"] for row in rows), 1)

    def test_bodies_that_are_not_json(self):
        bodies = [
            "",
            "{",
            '{"document": NaN}',
            '{"document": {"end": {"at": Infinity}}}',
            '{"document": {"name": "\\ud800"}}',
        ]
        for body in [*bodies, "[" * 50_000, '{"document": ' + "[" * 40 + "]" * 40 + "}"]:
            answer = self.api.post("/api/plan", body, content_type="application/json")
            self.assertIn(answer.status_code, (400, 422), body[:40])
        self.assertEqual(self.api.post("/api/plan", b"\xff", content_type="application/json").status_code, 400)


anything = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False, allow_infinity=False) | st.text(max_size=12),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=8), inner, max_size=4),
    max_leaves=10,
)
SHAPES = ["trade_size", "material", "shoe", "start", "end", "tape", "feet", "name"]
FIELDS = ["kind", "at", "turn", "to", "rise", "angle", "toward", "ref", "stand_off"]


class NeverAServerError(PropertyTestCase):
    @settings(max_examples=50)
    @given(
        st.dictionaries(st.sampled_from(SHAPES), anything),
        st.lists(anything | st.dictionaries(st.sampled_from(FIELDS), anything | st.sampled_from(["bend", "offset"]))),
    )
    def test_any_document_is_answered(self, shape, steps):
        client = Api(person(Crew.objects.create(name="c"), "fuzz"))
        given = dict(RUN, **shape, steps=steps)
        asked = {
            "/plan": {"document": given},
            "/ways": {"document": given, "step": 0},
            "/check-marks": {"document": given, "marks": [{"at": "20"}]},
            "/note/write": {"document": given},
            "/compare": {"mine": given, "theirs": RUN},
            "/note/read": {"text": str(shape), "before": given},
        }
        for path, body in asked.items():
            self.assertIn(client.send("POST", path, body).status_code, (200, 422), path)
