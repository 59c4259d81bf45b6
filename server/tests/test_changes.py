from uuid import uuid4

from server.accounts.members import seat
from server.accounts.models import Role, User
from server.jobs.models import Run
from server.shoes.actions import add_shoe
from server.shoes.schemas import ShoeIn
from server.tests.support import RUN, Api, CrewTestCase, person, taken_plan


class UnchangedBench(CrewTestCase):
    """Who has the bench of a run as it is, is answered so, and gets it anew after whatever may have changed it."""

    def setUp(self):
        super().setUp()
        self.tags = {}

    def asked(self, api=None, language="en"):
        api = api or self.api
        headers = {"Accept-Language": language, "If-None-Match": self.tags.get(api, "")}
        answer = api.get(f"/api/runs/{self.feed.pk}/bench", headers=headers)
        self.tags[api] = answer["ETag"]
        return answer.status_code

    def assert_anew(self, what):
        self.assertEqual(self.asked(), 200, what)
        self.assertEqual(self.asked(), 304, what)

    def test_it_is_told_in_a_word_until_something_is_done(self):
        self.assert_anew("at first")
        shoe = add_shoe(self.lead, ShoeIn(name="Ours", trade_size="3/4"))
        cut = taken_plan(self.lead, self.job)
        other, feed = Api(self.lead), f"/runs/{self.feed.pk}"
        taken = Run.objects.get(pk=self.feed.pk)
        act = {
            "key": str(uuid4()),
            "piece": 1,
            "at": "2026-11-30T10:00:00Z",
            "kind": "arrange",
            "arranged": {"spare": "1"},
        }
        writes = [
            ("POST", f"/cuts/{cut.pk}", {"kind": "cut", "key": str(uuid4())}),
            ("POST", f"{feed}/bench", {"acts": [act]}),
            ("PUT", feed, {"version": taken.version, "document": taken.document | {"name": "Other"}}),
            ("PUT", f"/jobs/{self.job.pk}", {"name": "Barn"}),
            ("PUT", f"/shoes/{shoe.pk}", {"name": "Other", "trade_size": "3/4"}),
            ("PUT", "/limits", {"limits": {"kerf": "1/8"}}),
        ]
        for method, path, body in writes:
            done = other.send(method, path, body)
            self.assertEqual(done.status_code, 200, (path, done.content))
            self.assert_anew(path)

    def test_what_is_done_in_another_run_does_not_matter(self):
        other = self.api.send("POST", f"/jobs/{self.job.pk}/runs", {"document": RUN}).json()
        self.assert_anew("a run was added")
        self.api.send("PUT", f"/runs/{other['id']}", {"version": 1, "document": RUN | {"name": "Other"}})
        self.assertEqual(self.asked(), 304)

    def test_it_is_one_persons_in_one_language_and_gone_with_their_place(self):
        self.assertEqual((self.asked(), self.asked(language="es")), (200, 200))
        marek = Api(person(self.lead.membership.crew, "marek"))
        self.tags[marek] = self.tags[self.api]
        self.assertEqual(self.asked(marek), 200)
        User.objects.get(username="marek").memberships.all().delete()
        self.assertRaises(KeyError, self.asked, marek)

    def test_another_crew_is_not_told_that_nothing_changed(self):
        self.asked()
        theirs = Api(self.stranger)
        path = f"/api/runs/{self.feed.pk}/bench"
        self.assertEqual(theirs.get(path, headers={"If-None-Match": self.tags[self.api]}).status_code, 404)


class Prepared(CrewTestCase):
    def test_a_person_is_found_as_they_are_now(self):
        seat(self.bender, self.stranger.membership.crew, Role.LEAD)
        for _ in range(2):
            found = User.objects.get(pk=self.bender.pk)
            self.assertEqual((found.username, found.place.role, found.place.crew.name), ("ben", "lead", "Theirs"))
            self.assertEqual(len(found.memberships.all()), 2)
        self.bender.memberships.all().delete()
        self.assertIsNone(User.objects.get(pk=str(self.bender.pk)).place)
        self.assertRaises(User.DoesNotExist, User.objects.get, pk=0)
