"""Requests that nobody's page sends: too large, not JSON, odd. Refused in words, and in no time."""

import json
from contextlib import suppress
from unittest import mock
from uuid import uuid4

from django.test import override_settings

from conduit.document import LARGEST_DOCUMENT
from conduit.tests.support import assert_linear
from server.api import api
from server.body_size import LEAST, Unbounded, largest_body, largest_json
from server.guard import PROBLEM
from server.parsing import StrictParser
from server.tests.support import RUN, Api, CrewTestCase


class Guard(CrewTestCase):
    def raw(self, path, body, content_type="application/json", client=None, **more):
        return (client or self.api).post(f"/api{path}", body, content_type, **more)

    def assert_told(self, answer, status):
        self.assertEqual((answer.status_code, answer["Content-Type"]), (status, PROBLEM), answer.content[:200])
        told = answer.json()
        self.assertEqual(told["status"], status)
        self.assertTrue(told["detail"].endswith("."), told)
        self.assertEqual(answer["Cache-Control"], "no-store")

    def test_a_body_is_no_larger_than_its_address_needs(self):
        self.assertEqual(largest_body("api/session"), LEAST)
        for path, client in (("/session", Api()), ("/plan", self.api), ("/jobs", self.api), ("/nowhere", self.api)):
            with self.subTest(path):
                self.assert_told(self.raw(path, " " * (largest_body(f"api{path}") + 1), client=client), 413)

    def test_every_document_that_is_kept_can_be_sent(self):
        """Letters of other scripts are written as escapes, which take more room."""
        document = {**RUN, "name": "Ж" * 80, "steps": [{"kind": "coupling", "at": "é" * 300}] * 60}
        self.assertEqual(self.api.send("POST", "/plan", {"document": document}).status_code, 200)
        text = "3/4 EMT 41 3/8 at bay 2\n" * 16_000
        self.assertNotEqual(self.api.send("POST", "/rack/list", {"text": text}).status_code, 413)

    def test_each_operation_bounds_what_it_takes_and_takes_what_it_allows(self):
        """By the API's own description, so that no address can be forgotten."""
        described = api.get_openapi_schema(path_prefix="/api/")
        for path, operations in described["paths"].items():
            for body in (one["requestBody"]["content"] for one in operations.values() if "requestBody" in one):
                most = largest_json(body["application/json"]["schema"], described["components"]["schemas"], path)
                self.assertGreaterEqual(largest_body(path[1:]), most, path)
        for path in ("/plan", "/pipe-rack", "/runs/{run_id}", "/jobs/{job_id}/runs"):
            self.assertGreaterEqual(largest_body(f"api{path}"), LARGEST_DOCUMENT, path)

    def test_a_schema_without_a_bound_is_found(self):
        for schema in (
            {"type": "string"},
            {"type": "array", "items": {"type": "integer"}},
            {"type": "object", "properties": {"a": {"anyOf": [{"type": "null"}, {"type": "object"}]}}},
            {"type": "object", "additionalProperties": {"type": "integer"}},
            {},
        ):
            with self.subTest(schema), self.assertRaises(Unbounded):
                largest_json(schema, {}, "here")

    def test_what_is_no_json_is_refused(self):
        for body in ("{", '{"a": NaN}', "[" * 5000, '"\\ud800"', b"\xff", "[" * 13 + "1" + "]" * 13, "9" * 5000):
            with self.subTest(body[:12]):
                self.assert_told(self.raw("/plan", body), 400)

    def test_forms_are_refused_everywhere(self):
        for kind in ("multipart/form-data; boundary=x", "application/x-www-form-urlencoded", "text/plain"):
            with self.subTest(kind):
                self.assert_told(self.raw("/session", "--x\r\n", kind, Api(enforce_csrf_checks=True)), 415)

    def test_reading_takes_time_by_length_alone(self):
        """Strings that end in escapes, quotes that never close, brackets: none of them is read more than once."""

        def read(body):
            request = mock.Mock(body=body.encode())
            with suppress(ValueError):
                StrictParser().parse_body(request)

        for part in ('\\"', '"', "[", "{", '"a":', '["', "\\u"):
            with self.subTest(part):
                assert_linear(self, read, lambda count, part=part: '"' + part * count)

    def test_errors_are_told_in_one_form(self):
        self.assert_told(self.api.get("/api/nowhere"), 404)
        self.assert_told(self.api.patch("/api/session"), 405)
        self.assert_told(self.raw("/jobs", "{}"), 400)
        self.assert_told(self.api.get("/api/jobs", headers={"host": "evil.example"}), 400)
        guarded = Api(self.lead, enforce_csrf_checks=True)
        self.assert_told(self.raw("/plan", "{}", client=guarded), 403)

    def test_a_fault_of_ours_is_told_too(self):
        api = Api(self.lead, raise_request_exception=False)
        with mock.patch("server.jobs.actions.all_of", side_effect=ZeroDivisionError):
            self.assert_told(api.send("GET", "/jobs"), 500)

    def test_odd_values_are_refused_not_tripped_over(self):
        act = {"key": str(uuid4()), "piece": 1, "kind": "cut"}
        for at in ("2026-05-04T07:30:00", "0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-14:00"):
            with self.subTest(at):
                acts = {"acts": [{**act, "at": at}]}
                self.assert_told(self.api.send("POST", f"/runs/{self.feed.pk}/bench", acts), 422)
                scrap = {"material": "EMT", "trade_size": "3/4", "length": "30", "since": at}
                self.assert_told(self.api.send("POST", "/rack", scrap), 422)
        listed = {"text": "size,length,since\n3/4,30,0001-01-01T00:00:00+14:00"}
        self.assert_told(self.api.send("POST", "/rack/list", listed), 422)
        for heading in (5, ["up"], {"up": 1}, True, None):
            document = {**RUN, "start": {"heading": heading}}
            for path in ("/plan", "/note/write", "/ways"):
                answer = self.api.send("POST", path, {"document": document, "step": 0})
                self.assertEqual(answer.status_code, 200, (path, heading))

    def test_so_much_and_no_more(self):
        marks = {"document": RUN, "marks": [{"at": "14"}] * 151}
        act = {"key": str(uuid4()), "piece": 1, "kind": "cut", "at": "2026-05-04T07:30:00Z"}
        acts = {"acts": [act] * 31}
        for path, body in (
            ("/check-marks", marks),
            (f"/runs/{self.feed.pk}/bench", acts),
            ("/plan", {"document": {**RUN, "steps": RUN["steps"] * 61}}),
            (f"/jobs/{self.job.pk}/cutting/plan", {"terms": {}, "seconds": 30}),
            ("/note/read", {"text": "#" * 20_001}),
        ):
            with self.subTest(path):
                self.assert_told(self.api.send("POST", path, body), 422)

    @override_settings(SECURE_SSL_REDIRECT=True)
    def test_with_https_on_all_else_is_sent_there(self):
        self.assertEqual(Api().get("/jobs/3/stock").status_code, 301)

    def test_the_description_says_which_writes_need_a_key(self):
        schema = json.loads(self.api.get("/api/openapi.json").content)
        names = [one["name"] for one in schema["paths"]["/api/jobs"]["post"]["parameters"]]
        self.assertIn("Idempotency-Key", names)
