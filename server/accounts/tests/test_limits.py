from conduit.tests.support import document, ninety
from server.bench.models import Stick
from server.bench.tests.support import BenchTestCase, act
from server.jobs.actions import add_job, add_run
from server.tests.support import Api, CrewTestCase

FOUR = document([ninety(30, turn) for turn in ("up", "right", "up", "right")], 30, name="Four 90s")


class CrewLimits(BenchTestCase):
    def put(self, user=None, **limits):
        return Api(user or self.lead).send("PUT", "/limits", {"limits": limits})

    def shown(self):
        return {one["name"]: one for one in self.api.send("GET", "/limits").json()}

    def planned(self, raw):
        return self.api.send("POST", "/plan", {"document": raw}).json()

    def test_as_shipped_until_the_lead_sets_them(self):
        degrees = self.shown()["most_degrees"]
        self.assertEqual((degrees["reads"], degrees["shipped"], degrees["written"]), ("360°", "360°", ""))
        self.assertEqual(self.put(self.bender, most_degrees="270").status_code, 403)
        self.assertEqual(self.planned(FOUR)["findings"], [])
        self.assertEqual(self.put(most_degrees="270", support_spacing="5'", kerf="").status_code, 200)
        self.assertEqual(self.shown()["support_spacing"]["reads"], "60")
        plan = self.planned(FOUR)
        self.assertEqual([one["code"] for one in plan["findings"]], ["too_many_degrees"])
        self.assertEqual((plan["limits"]["most_degrees"], plan["limits"]["support_spacing"]), (270, 60))
        self.assertEqual(self.put().status_code, 200)
        self.assertEqual(self.planned(FOUR)["findings"], [])

    def test_a_run_may_have_its_own(self):
        self.put(most_degrees="270")
        self.assertEqual(self.planned({**FOUR, "limits": {"most_degrees": "360"}})["findings"], [])

    def test_what_cannot_be_read_is_told_by_its_name_and_nothing_is_changed(self):
        answer = self.put(most_degrees="x", keep="9000", closure="1/8", unheard_of="1")
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(set(answer.json()["places"]), {"most_degrees", "keep", "unheard_of"})
        self.assertEqual(self.shown()["closure"]["written"], "")

    def test_bare_figures_are_on_the_crews_tape_and_stay_what_they_were(self):
        Api(self.lead).send("PUT", "/rack/tape", {"tape": "1 mm"})
        self.put(keep="400")
        Api(self.lead).send("PUT", "/rack/tape", {"tape": "1/16"})
        self.assertEqual((self.shown()["keep"]["written"], self.shown()["keep"]["reads"]), ("400 mm", "15 3/4"))
        short = {"material": "EMT", "trade_size": "3/4", "length": "14"}
        self.assertEqual(self.api.send("POST", "/rack", short).status_code, 422)

    def test_a_begun_stick_keeps_those_it_was_planned_by(self):
        run = add_run(self.lead, self.job.pk, document([ninety(60, "up")], 100, name="Long"))
        self.do(act("cut", 2), run=run)
        pieces = len(self.bench(run)["sticks"])
        self.put(stick="70")
        bench = self.bench(run)
        self.assertGreater(len(bench["sticks"]), pieces)
        self.assertEqual(Stick.objects.get(run=run).limits["stick"], 120)
        begun = next(stick for stick in bench["sticks"] if stick["begun"])
        self.assertIn("changed after this stick was started", begun["stale"])

    def test_the_cutting_goes_by_them(self):
        self.put(kerf="1/8", keep="20", least_piece="10")
        terms = self.api.send("GET", f"/jobs/{self.job.pk}/cutting").json()["terms"]
        self.assertEqual((terms["kerf"], terms["keep"], terms["least"]), (0.125, 20, 10))


class HowNewRunsAreRead(CrewTestCase):
    def test_as_the_document_says_until_the_lead_sets_it(self):
        self.assertEqual(
            self.api.send("GET", "/session").json()["new_runs"], {"tape": "1/16", "feet": False, "stand_off": "0"}
        )
        metric = {"tape": "1 mm", "feet": False, "stand_off": "38"}
        self.assertEqual(self.api.send("PUT", "/crew/new-runs", metric).json()["new_runs"], metric)
        refused = self.api.send("PUT", "/crew/new-runs", {**metric, "stand_off": "a bit"})
        self.assertEqual((refused.status_code, list(refused.json()["places"])), (422, ["stand_off"]))
        self.assertEqual(Api(self.bender).send("GET", "/session").json()["new_runs"], metric)

    def test_sticks_and_prices_of_a_job_are_kept_for_all(self):
        sold = [{"material": "EMT", "trade_size": "3/4", "sticks": [{"length": "120", "price": 9}]}]
        body = {"terms": {"sold": sold}, "seconds": 0.2}
        self.api.send("POST", f"/jobs/{self.job.pk}/cutting/plan", body)
        other = add_job(self.lead, "Other", "")
        self.assertEqual(self.api.send("GET", f"/jobs/{other.pk}/cutting").json()["terms"]["sold"], [])
        self.api.send("POST", f"/jobs/{self.job.pk}/cutting/sold")
        told = self.api.send("GET", f"/jobs/{other.pk}/cutting").json()["terms"]["sold"]
        self.assertEqual([(one["trade_size"], one["sticks"]) for one in told], [("3/4", [{"length": 120, "price": 9}])])
