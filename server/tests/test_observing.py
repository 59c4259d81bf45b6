import json
import logging
from tempfile import TemporaryDirectory
from unittest.mock import patch

from django.core.exceptions import ImproperlyConfigured
from django.db import OperationalError
from django.test import Client, SimpleTestCase, TestCase, override_settings

from server.accounts.members import invite
from server.accounts.models import Role
from server.demo.load import load
from server.observing.logs import Formatter
from server.room import disks
from server.tests.support import PASSWORD, RUN, Api, CrewTestCase
from server.upkeep.safety import refuse_unsafe

SECRET = "what-somebody-typed"


class Health(TestCase):
    def test_ready_says_whether_the_database_answers_and_healthy_does_not_ask(self):
        anywhere = {"headers": {"host": "10.0.0.7"}}
        self.assertEqual([Client().get(path, **anywhere).status_code for path in ("/healthz", "/readyz")], [200, 200])
        with patch("django.db.backends.utils.CursorWrapper.execute", side_effect=OperationalError(2006, SECRET)):
            answers = [Client().get(path) for path in ("/healthz", "/readyz")]
        self.assertEqual([answer.status_code for answer in answers], [200, 503])
        self.assertNotContains(answers[1], SECRET, status_code=503)

    def test_a_database_without_todays_tables_is_not_ready(self):
        with patch("django.db.migrations.executor.MigrationExecutor.migration_plan", return_value=["one"]):
            self.assertContains(Client().get("/readyz"), "migrations are missing", status_code=503)


class FullDisk(CrewTestCase):
    def look(self):
        disks.looked = 0.0

    def test_all_is_read_and_worked_out_nothing_is_written_and_it_comes_back_by_itself(self):
        self.addCleanup(self.look)
        job = {"name": "Kiln room", "place": ""}
        with TemporaryDirectory() as folder, override_settings(DATA_FOLDERS=[folder, ""], KEEP_FREE_MB=10**9):
            self.look()
            refused = self.api.send("POST", "/jobs", job)
            self.assertEqual(refused.status_code, 507)
            self.assertIn("disk is full", refused.json()["detail"])
            acts = self.api.send("POST", f"/runs/{self.feed.pk}/bench", {"acts": []})
            self.assertEqual(acts.status_code, 507)
            for answer in (
                self.api.send("GET", "/jobs"),
                self.api.send("POST", "/plan", {"document": RUN}),
                Api().send("POST", "/session", {"username": "ben", "password": PASSWORD}),
            ):
                self.assertEqual((answer.status_code, answer["X-Crelda-Disk"]), (200, "full"))
            self.assertContains(Client().get("/healthz"), "the disk is full")
        self.look()
        self.assertEqual(self.api.send("POST", "/jobs", job).status_code, 201)
        self.assertNotIn("X-Crelda-Disk", self.api.send("GET", "/jobs"))


class Log(CrewTestCase):
    def lines(self, act):
        """What is written in the log while something is done."""
        with self.assertLogs("crelda.request", "INFO") as kept:
            act()
        return [json.loads(Formatter().format(record)) for record in kept.records]

    def test_a_request_has_one_number_in_its_answer_and_in_the_log(self):
        answers = []
        (line,) = self.lines(lambda: answers.append(self.api.send("GET", f"/jobs/{self.job.pk}")))
        self.assertEqual(line["route"], "api/jobs/<int:job_id>")
        self.assertEqual((line["status"], line["person"]), (200, self.lead.pk))
        self.assertGreater(line["queries"], 1)
        self.assertRegex(answers[0].headers["X-Request-ID"], "^[0-9a-f]{32}$")

    def test_the_number_of_a_proxy_is_kept_only_where_it_is_trusted(self):
        given = {"headers": {"X-Request-ID": "from-the-proxy-1"}}
        self.assertNotEqual(self.api.get("/api/jobs", **given).headers["X-Request-ID"], "from-the-proxy-1")
        with patch("server.observing.middleware.through_a_proxy", return_value=True):
            self.assertEqual(self.api.get("/api/jobs", **given).headers["X-Request-ID"], "from-the-proxy-1")
            odd = {"headers": {"X-Request-ID": 'x"\n{}'}}
            self.assertRegex(self.api.get("/api/jobs", **odd).headers["X-Request-ID"], "^[0-9a-f]{32}$")

    def test_neither_links_nor_what_was_typed_is_in_it(self):
        token = invite(self.lead, Role.BENDER, "").token
        lines = self.lines(lambda: Api().send("GET", f"/invitations/{token}"))
        self.assertNotIn(token, json.dumps(lines))
        api = Api(self.lead, raise_request_exception=False)
        answers = []
        with (
            patch("server.jobs.actions.add_job", side_effect=RuntimeError(SECRET)),
            self.assertLogs("django.request", "ERROR") as kept,
        ):
            answers.append(api.send("POST", "/jobs", {"name": SECRET, "place": ""}))
        written = "".join(Formatter().format(record) for record in kept.records)
        self.assertNotIn(SECRET, written)
        self.assertIn("RuntimeError", written)
        self.assertIn("server/jobs/api.py:", written)
        self.assertIn(answers[0].headers["X-Request-ID"][:8], answers[0].json()["detail"])

    def test_other_loggers_lines_are_json_too(self):
        record = logging.LogRecord("django.request", logging.ERROR, "", 0, "%s: %s", ("Oh", f"/x/{SECRET}"), None)
        self.assertNotIn(SECRET, Formatter().format(record))


class Metrics(CrewTestCase):
    def test_they_are_for_whoever_has_the_token(self):
        self.assertEqual(Client().get("/metrics").status_code, 404)
        with override_settings(METRICS_TOKEN="t0ken"):
            self.assertEqual(Client().get("/metrics").status_code, 404)
            wrong = {"headers": {"Authorization": "Bearer other"}}
            self.assertEqual(Client().get("/metrics", **wrong).status_code, 404)
            self.api.send("GET", f"/jobs/{self.job.pk}")
            told = Client().get("/metrics", headers={"Authorization": "Bearer t0ken"}).content.decode()
        counted = 'crelda_request_seconds_count{method="GET",route="api/jobs/<int:job_id>",status="200"}'
        self.assertIn(counted, told)
        for wanted in ("crelda_database_queries_total", "crelda_queue_plans", "crelda_queue_longest_wait_seconds 0.0"):
            self.assertIn(wanted, told)


class Safety(TestCase):
    def refused(self, **more):
        with self.assertRaises(ImproperlyConfigured) as refused:
            refuse_unsafe(**more)
        return str(refused.exception)

    def test_alone_on_its_machine_all_is_allowed(self):
        with override_settings(ALLOWED_HOSTS=["127.0.0.1", "localhost", "::1"]):
            refuse_unsafe(with_demo=True)

    def test_others_reach_it_only_by_tls_with_a_long_key_and_without_the_demo(self):
        with override_settings(ALLOWED_HOSTS=["pipes.example"], HTTPS=False):
            self.assertIn("CRELDA_HTTPS=1", self.refused())
        with override_settings(ALLOWED_HOSTS=["pipes.example"], HTTPS=True, SECRET_KEY="x" * 40):
            refuse_unsafe()
            self.assertIn("CRELDA_DEMO=0", self.refused(with_demo=True))
            load(fresh=True, whole=False)
            self.assertIn("dana", self.refused())
            with override_settings(SECRET_KEY="short"):
                self.assertIn("CRELDA_SECRET_KEY", self.refused())


class NoDatabaseInTheHealthOfAProcess(SimpleTestCase):
    databases = ()

    def test_it_is_not_asked(self):
        self.assertEqual(Client().get("/healthz").content, b"ok\n")
