from server.accounts.models import User
from server.bench.models import BendMade
from server.cutting.models import Cut
from server.demo.load import load
from server.shoes.actions import add_shoe
from server.shoes.schemas import ShoeIn
from server.stock.actions import add_scrap
from server.stock.models import Entry, Reservation
from server.stock.schemas import ScrapIn
from server.tests.support import RUN, Api, CrewTestCase, taken_plan


class Bin(CrewTestCase):
    def lies_there(self):
        return [(one["kind"], one["name"]) for one in self.api.send("GET", "/bin").json()]

    def runs(self):
        return [run["name"] for job in self.api.send("GET", "/jobs").json() for run in job["runs"]]

    def test_a_job_comes_back_with_what_went_with_it(self):
        other = self.api.send("POST", f"/jobs/{self.job.pk}/runs", {"document": {**RUN, "name": "Other"}}).json()
        self.api.send("DELETE", f"/runs/{other['id']}")
        self.assertEqual(self.runs(), ["Feed"])
        self.api.send("DELETE", f"/jobs/{self.job.pk}")
        self.assertEqual((self.runs(), self.lies_there()), ([], [("job", "Shed"), ("run", "Other")]))
        for path in (f"/jobs/{self.job.pk}", f"/runs/{self.feed.pk}/bench"):
            self.assertEqual(self.api.send("GET", path).status_code, 404)
        gone = self.api.send("GET", f"/runs/{self.feed.pk}")
        self.assertEqual(gone.status_code, 410)
        self.assertIn("is in the bin: deleted by", gone.json()["detail"])
        self.assertEqual(Api(self.stranger).send("GET", f"/runs/{self.feed.pk}").status_code, 404)
        refused = self.api.send("POST", f"/runs/{other['id']}/restore")
        self.assertEqual((refused.status_code, "Shed" in refused.json()["detail"]), (409, True))
        restored = self.api.send("POST", f"/jobs/{self.job.pk}/restore")
        self.assertEqual([run["name"] for run in restored.json()["runs"]], ["Feed"])
        self.assertEqual((self.runs(), self.lies_there()), (["Feed"], [("run", "Other")]))
        self.api.send("POST", f"/runs/{other['id']}/restore")
        self.assertEqual((self.runs(), self.lies_there()), (["Feed", "Other"], []))

    def test_a_job_that_is_deleted_keeps_no_scrap(self):
        add_scrap(self.lead, ScrapIn(material="EMT", trade_size="3/4", length="80"))
        for path in (f"/runs/{self.feed.pk}", f"/jobs/{self.job.pk}"):
            with self.subTest(path):
                cut = taken_plan(self.lead, self.job)
                self.assertEqual(Reservation.objects.get().job, self.job)
                self.api.send("DELETE", path)
                self.assertFalse(Reservation.objects.exists())
                self.assertEqual(Entry.objects.first().what, "let go")
                body = {"kind": "cut", "key": "6f1d7c55-4df5-4a52-9c3e-0a0b4e6f9a11"}
                self.assertEqual(self.api.send("POST", f"/cuts/{cut.pk}", body).status_code, 409)
                self.assertFalse(Cut.objects.filter(live=True).exists())
                self.api.send("POST", f"{path}/restore")

    def test_the_log_stays_when_a_job_goes(self):
        load(fresh=True)
        before = BendMade.objects.count()
        demo = User.objects.get(username="dana")
        api = type(self.api)(demo)
        lines = api.send("GET", "/log").json()
        for job in api.send("GET", "/jobs").json():
            self.assertEqual(api.send("DELETE", f"/jobs/{job['id']}").status_code, 204)
        self.assertEqual((BendMade.objects.count(), api.send("GET", "/log").json()), (before, lines))

    def test_a_shoes_name_is_free_while_it_lies_in_the_bin(self):
        old = add_shoe(self.lead, ShoeIn(name="Worn", trade_size="3/4"))
        self.api.send("DELETE", f"/shoes/{old.pk}")
        self.assertEqual(self.lies_there(), [("shoe", "Worn")])
        new = self.api.send("POST", "/shoes", {"name": "Worn", "trade_size": "1/2"}).json()
        self.assertEqual(self.api.send("POST", f"/shoes/{old.pk}/restore").status_code, 409)
        self.api.send("PUT", f"/shoes/{new['id']}", {"name": "Newer", "trade_size": "1/2"})
        self.assertEqual(self.api.send("POST", f"/shoes/{old.pk}/restore").status_code, 200)
        self.assertEqual(self.lies_there(), [])

    def test_what_is_emptied_is_gone_for_good_and_the_log_stays(self):
        load(fresh=True)
        before = BendMade.objects.count()
        lead = User.objects.get(username="dana")
        self.api = type(self.api)(lead)
        lines = self.api.send("GET", "/log").json()
        self.api.send("DELETE", f"/shoes/{add_shoe(lead, ShoeIn(name='Worn', trade_size='3/4')).pk}")
        for job in self.api.send("GET", "/jobs").json():
            self.api.send("DELETE", f"/jobs/{job['id']}")
        saw = [{"kind": one["kind"], "id": one["id"]} for one in self.api.send("GET", "/bin").json()]
        self.assertEqual(self.api.send("POST", "/bin/empty", {"things": saw}).status_code, 204)
        self.assertEqual(self.lies_there(), [])
        for one in saw:
            self.assertEqual(self.api.send("POST", f"/{one['kind']}s/{one['id']}/restore").status_code, 404)
        self.assertEqual((BendMade.objects.count(), self.api.send("GET", "/log").json()), (before, lines))
        told = [(line["what"], line["about"]) for line in self.api.send("GET", "/history").json()["lines"]]
        self.assertIn(("deleted for good", "the shoe “Worn”"), told)

    def test_what_was_taken_out_meanwhile_is_not_emptied(self):
        self.api.send("DELETE", f"/jobs/{self.job.pk}")
        self.api.send("POST", f"/jobs/{self.job.pk}/restore")
        self.api.send("POST", "/bin/empty", {"things": [{"kind": "job", "id": self.job.pk}]})
        self.assertEqual(self.runs(), ["Feed"])
