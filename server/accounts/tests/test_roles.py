from django.contrib.auth.hashers import identify_hasher
from django.test import override_settings

from server import settings
from server.accounts.models import Crew, Membership, User
from server.jobs.models import Job
from server.stock.models import Scrap
from server.tests.support import PASSWORD, RUN, Api, CrewTestCase, person


class Roles(CrewTestCase):
    def test_a_bender_works_like_the_lead(self):
        api = Api(self.bender)
        self.assertEqual(api.send("POST", f"/jobs/{self.job.pk}/runs", {"document": RUN}).status_code, 201)
        body = {"material": "EMT", "trade_size": "1", "length": "30"}
        self.assertEqual(api.send("POST", "/rack", body).status_code, 201)

    def test_a_viewer_is_told_why(self):
        answer = Api(self.viewer).send("POST", "/jobs", {"name": "Mine"})
        self.assertEqual(answer.json()["detail"], "You can look at this crew's work but not change it. Ask its lead.")

    def test_a_person_without_a_crew_or_no_longer_active_is_nobody(self):
        loose = User.objects.create_user("loose", password=PASSWORD)
        self.assertEqual(Api(loose).send("GET", "/jobs").status_code, 401)
        answer = Api().send("POST", "/session", {"username": "loose", "password": PASSWORD})
        self.assertEqual(answer.status_code, 401)
        api = Api(self.bender)
        User.objects.filter(pk=self.bender.pk).update(is_active=False)
        self.assertEqual(api.send("GET", "/jobs").status_code, 401)

    def test_moving_to_another_crew_takes_the_old_one_out_of_sight(self):
        api = Api(self.bender)
        self.assertEqual(len(api.send("GET", "/jobs").json()), 1)
        Membership.objects.filter(user=self.bender).update(crew=Crew.objects.get(name="Theirs"))
        self.assertEqual(api.send("GET", "/jobs").json(), [])
        self.assertEqual(api.send("GET", f"/runs/{self.feed.pk}").status_code, 404)

    def test_every_crew_owned_query_goes_by_the_person(self):
        for model in (Job, Scrap):
            self.assertEqual(model.objects.for_user(self.stranger).count(), 0)
        self.assertEqual(Job.objects.for_user(self.lead).get(), self.job)

    @override_settings(PASSWORD_HASHERS=settings.PASSWORD_HASHERS)
    def test_passwords_are_kept_with_argon2(self):
        self.lead.set_password("clamp-the-vise-9")
        self.assertEqual(identify_hasher(self.lead.password).algorithm, "argon2")

    def test_what_goes_with_a_crew_goes_whole(self):
        crew = Crew.objects.create(name="Short-lived")
        one = person(crew, "one")
        Api(one).send("POST", "/jobs", {"name": "Barn"})
        crew.delete()
        self.assertFalse(Job.objects.filter(name="Barn").exists())
        self.assertEqual(Api(one).send("GET", "/jobs").status_code, 401)
