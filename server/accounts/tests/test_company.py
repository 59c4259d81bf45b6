from server.accounts.members import invite
from server.accounts.models import Company, Crew, Event, Invitation, Membership, Role, User
from server.cutting.models import Bar, Cut
from server.jobs.models import Job, Run
from server.shoes.models import Shoe
from server.tests.support import RUN, Api, CrewTestCase, person, planned

NEW = {"first": "Nora", "last": "Quill", "password": "two-straps-a-stick"}


class Companies(CrewTestCase):
    """“Ours”, led by Lena, has begun a company, and “Theirs”, led by Stan, has joined it."""

    def setUp(self):
        super().setUp()
        self.api.send("POST", "/company", {"name": "Saltmarsh Group"})
        self.token = self.api.send("POST", "/company/link").json()["token"]
        self.theirs = Api(self.stranger)
        self.assertEqual(self.theirs.send("POST", "/company/join", {"token": self.token}).status_code, 200)

    def company(self, api=None):
        return (api or self.api).send("GET", "/company").json()

    def share(self, wanted=True):
        return self.api.send("PUT", f"/jobs/{self.job.pk}/shared", {"wanted": wanted})

    def test_a_lead_begins_it_and_another_joins_by_a_link_once(self):
        told = self.company(self.theirs)
        self.assertEqual(
            (told["name"], [one["name"] for one in told["crews"]]), ("Saltmarsh Group", ["Ours", "Theirs"])
        )
        self.assertEqual((told["runs_it"], told["people"]), (False, []))
        self.assertEqual([one["name"] for one in self.company()["people"]], ["lena", "ben", "vera", "stan"])
        third = Api(person(Crew.objects.create(name="Third"), "thea"))
        self.assertEqual(third.send("POST", "/company/join", {"token": self.token}).status_code, 409, "once")
        self.assertEqual(self.theirs.send("POST", "/company/join", {"token": self.token}).status_code, 409)
        void = self.api.send("POST", "/company/link").json()["token"]
        self.api.send("POST", "/company/link")
        self.assertEqual(third.send("POST", "/company/join", {"token": void}).status_code, 409, "a newer one voids it")
        self.assertEqual(self.theirs.send("PUT", "/company", {"name": "Mine"}).status_code, 403, "who does not run it")
        self.assertEqual(self.theirs.send("POST", "/company/link").status_code, 403)

    def test_a_guest_measures_and_cuts_in_a_shared_job_from_its_own_crews_rack(self):
        self.assertEqual(self.theirs.send("GET", "/jobs").json(), [])
        self.share()
        [job] = self.theirs.send("GET", "/jobs").json()
        self.assertEqual((job["name"], job["crew"], job["shared"]), ("Shed", "Ours", True))
        made = self.theirs.send("POST", f"/jobs/{self.job.pk}/runs", {"document": RUN}).json()
        self.assertEqual(Run.objects.get(pk=made["id"]).crew.name, "Ours")
        digest = planned(self.stranger_at_ours(), self.job)
        taken = self.theirs.send("POST", f"/jobs/{self.job.pk}/cutting/take", {"digest": digest})
        self.assertEqual(taken.status_code, 200, taken.content)
        cut = Cut.objects.first().pk
        act = {"kind": "cut", "key": "6f1d7c55-4df5-4a52-9c3e-0a0b4e6f9a11"}
        self.assertEqual(self.theirs.send("POST", f"/cuts/{cut}", act).status_code, 200)
        self.assertEqual({one.crew.name for one in Bar.objects.all()}, {"Ours"})
        self.assertEqual({one.crew.name for one in Event.objects.filter(what="cut")}, {"Ours"})
        self.share(wanted=False)
        self.assertEqual(self.theirs.send("GET", f"/runs/{made['id']}").status_code, 404)

    def stranger_at_ours(self):
        """Stan as a guest in the shared job."""
        guest = User.objects.get(pk=self.stranger.pk)
        guest.be_guest(self.job.crew, self.job.pk)
        return guest

    def test_a_guest_sees_no_other_job_of_the_crew_and_takes_no_run_into_one(self):
        self.share()
        other = self.api.send("POST", "/jobs", {"name": "Secret"}).json()["id"]
        own = self.theirs.send("POST", "/jobs", {"name": "Barn"}).json()["id"]
        for job, status in ((other, 404), (own, 201)):
            answer = self.theirs.send("POST", f"/runs/{self.feed.pk}/copy", {"job_id": job})
            self.assertEqual(answer.status_code, status)
        self.assertEqual(Run.objects.get(job=own).crew.name, "Theirs")
        copied = self.theirs.send("POST", f"/runs/{answer.json()['id']}/copy", {"job_id": self.job.pk})
        self.assertEqual(Run.objects.get(pk=copied.json()["id"]).crew.name, "Ours")

    def test_a_viewer_of_another_crew_only_looks(self):
        self.share()
        api = Api(person(Crew.objects.get(name="Theirs"), "vito", "viewer"))
        self.assertEqual(api.send("GET", f"/runs/{self.feed.pk}").status_code, 200)
        self.assertEqual(api.send("POST", f"/jobs/{self.job.pk}/runs", {"document": RUN}).status_code, 403)

    def test_limits_are_those_of_the_crew_whose_run_it_is(self):
        self.share()
        self.assertEqual(self.api.send("PUT", "/limits", {"limits": {"stick": "48"}}).status_code, 200)
        body = {"document": RUN}
        at_home = self.theirs.send("POST", "/plan", body).json()
        there = self.theirs.send("POST", f"/plan?of_run={self.feed.pk}", body).json()
        self.assertEqual((len(at_home["pieces"]), len(there["pieces"])), (1, 2))

    def test_beside_a_shared_run_stand_the_shoes_of_its_crew(self):
        self.share()
        for api, name in ((self.api, "Old faithful"), (self.theirs, "Mine")):
            api.send("POST", "/shoes", {"name": name, "trade_size": "3/4"})
        for asked, names in (("", ["Mine"]), (f"?of_run={self.feed.pk}", ["Mine", "Old faithful"])):
            self.assertEqual([one["name"] for one in self.theirs.send("GET", f"/shoes{asked}").json()], names)

    def test_a_shared_shoe_is_bent_on_and_changed_by_its_own_crew_alone(self):
        shoe = self.api.send("POST", "/shoes", {"name": "Big", "trade_size": "3/4"}).json()
        self.api.send("PUT", f"/shoes/{shoe['id']}/shared", {"wanted": True})
        [seen] = self.theirs.send("GET", "/shoes").json()
        self.assertEqual((seen["name"], seen["crew"]), ("Big", "Ours"))
        self.assertEqual(
            self.theirs.send("PUT", f"/shoes/{shoe['id']}", {"name": "x", "trade_size": "1"}).status_code, 404
        )
        self.assertEqual(Shoe.objects.get().name, "Big")

    def test_whoever_runs_it_adds_crews_shares_running_and_shuts_out(self):
        token = self.api.send("POST", "/company/crews", {"name": "Third"}).json()["token"]
        nora = Api()
        joined = nora.send("POST", f"/invitations/{token}/person", {**NEW, "username": "nora"})
        self.assertEqual((joined.status_code, joined.json()["role"]), (200, "lead"))
        person_of = {one["name"]: one["id"] for one in self.company()["people"]}
        path = f"/company/people/{person_of['Nora Quill']}"
        self.assertEqual(
            self.api.send("PUT", f"/company/people/{person_of['ben']}/runs-it", {"wanted": True}).status_code, 422
        )
        self.assertTrue(self.api.send("PUT", f"{path}/runs-it", {"wanted": True}).json()["runners"][1]["name"])
        self.assertTrue(self.company(nora)["runs_it"])
        shut = f"/company/people/{person_of['stan']}/let-in"
        self.assertEqual(self.api.send("PUT", shut, {"wanted": False}).status_code, 200)
        self.assertEqual(self.theirs.send("GET", "/jobs").status_code, 401)
        self.api.send("PUT", shut, {"wanted": True})
        Membership.objects.create(user=self.bender, crew=Crew.objects.create(name="Elsewhere"), role=Role.LEAD)
        own = f"/company/people/{person_of['lena']}/let-in"
        for address in (own, f"/company/people/{person_of['ben']}/let-in"):
            self.assertEqual(self.api.send("PUT", address, {"wanted": False}).status_code, 409)

    def test_an_invitation_of_who_runs_it_no_more_is_void(self):
        self.api.send("POST", "/company/crews", {"name": "Third"})
        self.theirs.send("GET", "/company")
        Company.objects.get().run_by.set([self.stranger])
        token = Invitation.objects.get().token
        joined = Api().send("POST", f"/invitations/{token}/person", {**NEW, "username": "nora"})
        self.assertEqual(joined.status_code, 409)

    def test_a_crew_that_leaves_shares_nothing_more_and_never_none_runs_it(self):
        self.share()
        crew = {one["name"]: one["id"] for one in self.company()["crews"]}
        lena = next(one["id"] for one in self.company()["people"] if one["name"] == "lena")
        gives_up = self.api.send("PUT", f"/company/people/{lena}/runs-it", {"wanted": False})
        self.assertEqual(gives_up.status_code, 409, "nobody else runs it")
        self.assertEqual(self.theirs.send("DELETE", f"/company/crews/{crew['Ours']}").status_code, 403)
        self.assertFalse(self.company(self.theirs)["runs_it"])
        self.assertEqual(self.api.send("DELETE", f"/company/crews/{crew['Ours']}").status_code, 204)
        self.assertEqual(self.theirs.send("GET", "/jobs").json(), [])
        self.assertTrue(self.company(self.theirs)["runs_it"], "the leads that are left")
        self.assertEqual(self.theirs.send("DELETE", f"/company/crews/{crew['Theirs']}").status_code, 204)
        self.assertFalse(Company.objects.exists())
        self.assertTrue(Job.objects.filter(pk=self.job.pk).exists())

    def test_a_crew_without_a_company_is_invited_into_as_before(self):
        self.assertTrue(invite(self.lead, Role.LEAD, "").is_open)
