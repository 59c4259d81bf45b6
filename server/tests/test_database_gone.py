"""The database goes away under a running server."""

from unittest import mock

from django.db import OperationalError
from django.test import TransactionTestCase

from server.accounts.models import Crew
from server.guard import PROBLEM
from server.stalls import silence
from server.tests.support import Api, person


class DatabaseGone(TransactionTestCase):
    def setUp(self):
        self.addCleanup(silence.end)
        self.api = Api(person(Crew.objects.create(name="Ours"), "lena"))

    def test_a_database_that_is_gone_is_told_and_comes_back(self):
        with mock.patch("server.jobs.actions.all_of", side_effect=OperationalError(2013, "gone")):
            answer = self.api.send("GET", "/jobs")
        self.assertEqual((answer.status_code, answer["Content-Type"], answer["Retry-After"]), (503, PROBLEM, "2"))
        self.assertEqual(self.api.send("GET", "/jobs").status_code, 503, "not asked again at once")
        self.assertEqual(self.api.get("/jobs/3/stock").status_code, 200, "pages come all the same")
        silence.end()
        self.assertEqual(self.api.send("GET", "/jobs").status_code, 200)
