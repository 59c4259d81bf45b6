"""A write that is sent again, as after a reply that was lost, is done once."""

from concurrent.futures import ThreadPoolExecutor
from unittest.mock import patch
from uuid import uuid4

from django.db import OperationalError, connections
from django.test import TransactionTestCase

from server.accounts.models import Crew, Reply
from server.jobs.actions import add_job
from server.jobs.models import Job, Revision, Run
from server.stock.models import Scrap
from server.tests.support import RUN, Api, CrewTestCase, person

SCRAP = {"material": "EMT", "trade_size": "3/4", "length": "40", "count": 2}


class Once(CrewTestCase):
    def twice(self, method, path, body=None):
        key = uuid4()
        first, second = (self.api.send(method, path, body, key=key) for _ in range(2))
        self.assertEqual((first.status_code, first.content), (second.status_code, second.content))
        self.assertEqual(first["Content-Type"], second["Content-Type"])
        return first

    def test_what_is_added_is_added_once(self):
        self.twice("POST", "/rack", SCRAP)
        self.twice("POST", "/rack/list", {"text": "1/2 EMT 30"})
        self.twice("POST", "/jobs", {"name": "Barn"})
        self.twice("POST", f"/jobs/{self.job.pk}/runs", {"document": RUN})
        self.assertEqual((Scrap.objects.count(), Job.objects.count(), Run.objects.count()), (3, 2, 2))

    def test_a_save_is_no_conflict_with_itself(self):
        answer = self.twice("PUT", f"/runs/{self.feed.pk}", {"version": 1, "document": {**RUN, "name": "Renamed"}})
        self.assertEqual((answer.status_code, answer.json()["version"]), (200, 2))
        self.assertEqual(Revision.objects.filter(run=self.feed).count(), 2)

    def test_what_is_taken_or_deleted_is_so_once(self):
        scrap = self.api.send("POST", "/rack", SCRAP).json()[0]
        self.assertEqual(self.twice("POST", f"/rack/{scrap['id']}/take").status_code, 200)
        self.assertEqual(self.twice("DELETE", f"/jobs/{self.job.pk}").status_code, 204)

    def test_what_was_refused_may_be_tried_again_with_its_key(self):
        key, wrong = uuid4(), {**SCRAP, "length": "2"}
        self.assertEqual(self.api.send("POST", "/rack", wrong, key=key).status_code, 422)
        self.assertEqual(self.api.send("POST", "/rack", SCRAP, key=key).status_code, 201)

    def test_a_key_is_one_writes_and_one_persons(self):
        key = uuid4()
        self.api.send("POST", "/rack", SCRAP, key=key)
        self.assertEqual(self.api.send("POST", "/rack", {**SCRAP, "length": "50"}, key=key).status_code, 422)
        self.assertEqual(Api(self.bender).send("POST", "/rack", SCRAP, key=key).status_code, 201)
        self.assertEqual(Scrap.objects.count(), 4)

    def test_a_write_without_a_key_is_refused_in_words(self):
        for sent in ({}, {"Idempotency-Key": "again"}):
            answer = self.api.post("/api/rack", SCRAP, "application/json", headers=sent)
            self.assertEqual(answer.status_code, 400)
            self.assertIn("Idempotency-Key", answer.json()["detail"])
        self.assertFalse(Reply.objects.exists())

    def test_what_the_database_undid_for_anothers_sake_is_done_again_unasked(self):
        for fails, status in ((2, 201), (3, 409)):
            undone = [OperationalError(1213, "Deadlock found")] * fails

            def add(*given, left=undone):
                if left:
                    raise left.pop()
                return add_job(*given)

            with patch("server.jobs.api.actions.add_job", add):
                answer = self.api.send("POST", "/jobs", {"name": f"Barn {fails}"})
            self.assertEqual((answer.status_code, undone), (status, []))
        self.assertEqual(Job.objects.filter(name__startswith="Barn").count(), 1)


class OnceTogether(TransactionTestCase):
    def setUp(self):
        self.lead = person(Crew.objects.create(name="Ours"), "lena")

    def together(self, write):
        """What four of the lead's clients are answered, each of which writes in its own thread."""

        def send(client):
            try:
                return write(client)
            finally:
                connections.close_all()

        with ThreadPoolExecutor(4) as pool:
            return list(pool.map(send, [Api(self.lead) for _ in range(4)]))

    def test_four_who_add_to_one_crew_at_the_same_moment_are_in_nobodys_way(self):
        job = Api(self.lead).send("POST", "/jobs", {"name": "Shed"}).json()["id"]

        def write(client):
            adds = [("/jobs", {"name": "Barn"}), ("/rack", SCRAP), (f"/jobs/{job}/runs", {"document": RUN})] * 4
            return [client.send("POST", path, body).status_code for path, body in adds]

        self.assertEqual({status for answers in self.together(write) for status in answers}, {201})

    def test_sent_by_four_at_the_same_moment_it_is_done_once(self):
        key = uuid4()
        answers = self.together(lambda client: client.send("POST", "/rack", SCRAP, key=key))
        self.assertEqual({(answer.status_code, answer.content) for answer in answers}, {(201, answers[0].content)})
        self.assertEqual(Scrap.objects.count(), 2)
