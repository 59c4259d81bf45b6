"""Two people at the same moment, on the real database."""

from concurrent.futures import ThreadPoolExecutor
from uuid import uuid4

from django.db import connections
from django.test import TransactionTestCase

from server.accounts.models import Crew
from server.cutting.models import Cut
from server.jobs.actions import add_job, add_run
from server.jobs.models import Revision, Run
from server.stock.actions import add_scrap
from server.stock.models import Entry, Reservation, Scrap
from server.stock.schemas import ScrapIn
from server.tests.support import RUN, Api, person, planned, taken_plan

PEOPLE = 4
SCRAP = ScrapIn(material="EMT", trade_size="3/4", length="80")


class Together(TransactionTestCase):
    def setUp(self):
        crew = Crew.objects.create(name="Ours")
        self.people = [person(crew, f"p{number}") for number in range(PEOPLE)]
        self.run_ = add_run(self.people[0], add_job(self.people[0], "Shed", "").pk, RUN)

    def all_at_once(self, act):
        """What `act(person, number)` answers for each person, asked at the same moment."""

        def one(numbered):
            try:
                return act(Api(numbered[1]), numbered[0])
            finally:
                connections.close_all()

        with ThreadPoolExecutor(PEOPLE) as pool:
            return list(pool.map(one, enumerate(self.people)))

    def test_one_scrap_is_taken_once(self):
        scrap = add_scrap(self.people[0], SCRAP)[0]
        answers = self.all_at_once(lambda api, number: api.send("POST", f"/rack/{scrap.pk}/take").status_code)
        self.assertEqual(sorted(answers), [200] + [409] * (PEOPLE - 1))
        self.assertEqual(Entry.objects.filter(scrap=scrap, what="taken").count(), 1)

    def test_one_scrap_is_reserved_for_one_job(self):
        scrap = add_scrap(self.people[0], SCRAP)[0]
        jobs = [add_job(one, f"Job {one}", "") for one in self.people]
        for one, job in zip(self.people, jobs, strict=True):
            add_run(one, job.pk, RUN)
        digests = [planned(one, job) for one, job in zip(self.people, jobs, strict=True)]

        def take(api, number):
            body = {"digest": digests[number]}
            return api.send("POST", f"/jobs/{jobs[number].pk}/cutting/take", body).status_code

        answers = self.all_at_once(take)
        self.assertEqual(sorted(answers), [200] + [409] * (PEOPLE - 1))
        self.assertEqual(Reservation.objects.filter(scrap=scrap).count(), 1)
        self.assertEqual(Cut.objects.filter(live=True).count(), 1)

    def test_one_piece_is_cut_once(self):
        add_scrap(self.people[0], SCRAP)
        cut = taken_plan(self.people[0], self.run_.job)

        def confirm(api, number):
            return api.send("POST", f"/cuts/{cut.pk}", {"kind": "cut", "key": str(uuid4())}).status_code

        self.assertEqual(sorted(self.all_at_once(confirm)), [200] + [409] * (PEOPLE - 1))
        self.assertEqual(Entry.objects.filter(what="cut").count(), 1)
        self.assertEqual(Scrap.objects.filter(taken_at=None).count(), 1, "its offcut lies on the rack, once")

    def test_tags_are_given_out_once(self):
        body = {"material": "EMT", "trade_size": "1", "length": "40", "count": 3}
        answers = self.all_at_once(lambda api, number: api.send("POST", "/rack", body).status_code)
        self.assertEqual(answers, [201] * PEOPLE)
        tags = list(Scrap.objects.values_list("tag", flat=True))
        self.assertEqual(len(set(tags)), 3 * PEOPLE)

    def test_one_save_wins_and_the_others_are_told(self):
        def save(api, number):
            body = {"version": 1, "document": {**RUN, "name": f"by {number}"}}
            return api.send("PUT", f"/runs/{self.run_.pk}", body)

        answers = self.all_at_once(save)
        self.assertEqual(sorted(answer.status_code for answer in answers), [200] + [409] * (PEOPLE - 1))
        kept = Run.objects.get(pk=self.run_.pk)
        winner = next(number for number, answer in enumerate(answers) if answer.status_code == 200)
        self.assertEqual((kept.version, kept.document["name"]), (2, f"by {winner}"))
        self.assertEqual(Revision.objects.filter(run=kept).count(), 2)
        for answer in answers:
            if answer.status_code == 409:
                self.assertEqual(answer.json()["theirs"]["document"]["name"], f"by {winner}")
