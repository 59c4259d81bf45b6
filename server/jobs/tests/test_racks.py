"""A rack's pipes as runs of their job: they follow their lead, and nothing done on them is lost."""

from server.bench.models import BendMade
from server.bench.tests.support import BenchTestCase, act, bent
from server.jobs.models import Run
from server.tests.support import RUN, taken_plan

RACK = {"side": "out", "spacing": 2, "pipes": [{"name": "Second"}, {}]}


class Racks(BenchTestCase):
    """Feed is the lead of three pipes."""

    def setUp(self):
        super().setUp()
        self.save(RACK)

    def save(self, rack, **more):
        version = Run.objects.get(pk=self.feed.pk).version
        document = {**RUN, **more, **({"rack": rack} if rack else {})}
        answer = self.api.send("PUT", f"/runs/{self.feed.pk}", {"version": version, "document": document})
        self.assertEqual(answer.status_code, 200, answer.content)

    def lines(self):
        [job] = self.api.send("GET", "/jobs").json()
        return [(run["name"], run["rack_number"], run["status"]) for run in job["runs"]]

    def pipe(self, number):
        return Run.objects.present().get(rack_lead=self.feed, rack_number=number)

    def test_they_are_runs_of_the_job_and_follow_each_save(self):
        self.assertEqual(
            self.lines(), [("Feed", None, "laid out"), ("Second", 2, "laid out"), ("Feed 3", 3, "laid out")]
        )
        told = self.api.send("GET", f"/runs/{self.pipe(3).pk}").json()
        self.assertEqual(told["rack"], {"lead_id": self.feed.pk, "lead_name": "Feed", "number": 3})
        before = self.pipe(2)
        self.save(RACK, end={"at": "50"})
        after = self.pipe(2)
        self.assertEqual((after.pk, after.version), (before.pk, before.version + 1))
        self.assertGreater(after.document["end"]["at"], before.document["end"]["at"] + 9)
        self.save({**RACK, "pipes": [{"name": "Second"}, {"left_out": True}]}, end={"at": "50"})
        self.assertEqual([line[0] for line in self.lines()], ["Feed", "Second"])
        self.assertEqual(self.pipe(2).version, after.version, "what did not change is not saved")

    def test_a_run_that_begins_with_a_rack(self):
        new = self.api.send("POST", f"/jobs/{self.job.pk}/runs", {"document": {**RUN, "name": "New", "rack": RACK}})
        self.assertEqual(Run.objects.filter(rack_lead=new.json()["id"]).count(), 2)

    def test_a_pipe_is_not_changed_by_itself_but_for_its_couplings(self):
        pipe = self.pipe(2)
        body = {"version": pipe.version, "document": {**pipe.document, "end": {"at": "9"}}}
        refused = self.api.send("PUT", f"/runs/{pipe.pk}", body)
        self.assertEqual((refused.status_code, "follows its lead" in refused.json()["detail"]), (422, True))
        body = {"version": pipe.version, "document": {**pipe.document, "couplings": ["30"]}}
        self.assertEqual(self.api.send("PUT", f"/runs/{pipe.pk}", body).status_code, 200)
        self.save(RACK, end={"at": "50"})
        self.assertEqual(self.pipe(2).document["couplings"], ["30"])
        self.assertEqual(self.api.send("DELETE", f"/runs/{pipe.pk}").status_code, 422)

    def test_what_was_bent_on_a_pipe_comes_back_with_it(self):
        self.do(act("cut"), bent(1, 90), run=self.pipe(3))
        self.save({**RACK, "pipes": [{}]})
        self.assertFalse(Run.objects.present().filter(rack_number=3).exists())
        self.save(RACK)
        self.assertEqual(self.status(self.pipe(3))[0], "bent")

    def test_what_is_typed_half_takes_no_pipe_away(self):
        before = {number: self.pipe(number).document for number in (2, 3)}
        for rack, more in (
            ({**RACK, "spacing": ""}, {}),
            ({**RACK, "side": "sideways"}, {}),
            ({**RACK, "pipes": [{"trade_size": "9"}, 7]}, {}),
            ({**RACK, "pipes": [{"leaves": "x"}, {}]}, {}),
            (RACK, {"end": {"at": ""}}),
            (RACK, {"steps": [{"kind": "bend", "at": "", "turn": "up"}]}),
        ):
            with self.subTest(str(rack)):
                self.save(rack, **more)
                self.assertEqual({number: self.pipe(number).document for number in (2, 3)}, before)
                self.assertEqual(self.api.send("GET", f"/runs/{self.pipe(3).pk}/floor").status_code, 200)
                self.save(RACK)

    def test_they_go_into_the_bin_with_their_lead_and_come_back_with_it(self):
        self.api.send("DELETE", f"/runs/{self.feed.pk}")
        self.assertEqual([one["name"] for one in self.api.send("GET", "/bin").json()], ["Feed"])
        self.api.send("POST", f"/runs/{self.feed.pk}/restore")
        self.assertEqual([line[0] for line in self.lines()], ["Feed", "Second", "Feed 3"])

    def test_one_that_the_rack_has_no_more_comes_out_as_a_run_of_its_own(self):
        pipe = self.pipe(3)
        self.save({**RACK, "pipes": [{}]})
        self.api.send("POST", f"/runs/{pipe.pk}/restore")
        self.assertIn(("Feed 3", None, "laid out"), self.lines())
        self.save(RACK)
        self.assertEqual([line[0] for line in self.lines()].count("Feed 3"), 2)

    def test_all_of_them_are_cut(self):
        taken_plan(self.lead, self.job)
        cut = self.api.send("GET", f"/jobs/{self.job.pk}/cutting").json()
        runs = {one["run"] for bar in cut["taken"]["bars"] for one in bar["cuts"]}
        self.assertEqual(runs, {self.feed.pk, self.pipe(2).pk, self.pipe(3).pk})

    def test_they_lie_on_the_floor_with_how_far_each_has_come(self):
        self.do(act("cut"), bent(1, 90), run=self.pipe(3))
        for run in (self.feed, self.pipe(2)):
            floor = self.api.send("GET", f"/runs/{run.pk}/floor").json()
            self.assertEqual(floor["lead_id"], self.feed.pk)
            self.assertEqual([one["status"] for one in floor["runs"]], ["laid out", "laid out", "bent"])
            self.assertEqual([pipe["number"] for pipe in floor["sticks"][0]["pipes"]], [1, 2, 3])

    def test_how_a_bend_came_out_is_carried_to_the_next_pipe(self):
        self.assertEqual(self.bench(self.pipe(2))["carried"], [])
        self.do(act("cut"), bent(1, 91.5), run=self.pipe(2))
        [told] = self.bench(self.pipe(3))["carried"]
        self.assertEqual((told["bend"], told["pipe"], told["off_reads"], told["dial"]), (1, 2, "+1.5°", 88.5))
        self.do(act("cut"), bent(1, 90, dial=88.5), run=self.pipe(3))
        self.assertEqual(BendMade.objects.get(stick__run=self.pipe(3)).dial, 88.5)
        self.assertEqual(self.bench(self.pipe(3))["carried"], [], "it is made")
        [again] = self.bench(self.feed)["carried"]
        self.assertEqual((again["pipe"], again["dial"]), (3, 88.5), "set so it came out right")

    def test_what_is_no_habit_of_the_shoe_is_not_carried(self):
        self.do(act("cut"), bent(1, 90.3), run=self.pipe(2))
        self.assertEqual(self.bench(self.pipe(3))["carried"], [], "a finder does not tell so little")
        self.do(bent(1, 99, again=True), run=self.pipe(2))
        self.assertEqual(self.bench(self.pipe(3))["carried"], [], "so much is a mistake")
        self.do(bent(1, 92, again=True), run=self.pipe(2))
        self.assertEqual(len(self.bench(self.pipe(3))["carried"]), 1)
        own = {"name": "Own", "deduct": "6 1/16", "gain": "3 1/4"}
        self.save({**RACK, "pipes": [{"name": "Second"}, {"shoe": own}]})
        self.assertEqual(self.bench(self.pipe(3))["carried"], [], "another shoe has habits of its own")
        self.do(act("unbent", bend=1), run=self.pipe(2))
        self.assertEqual(self.bench(self.feed)["carried"], [], "it was entered by mistake")

    def test_its_struts_are_brought_along(self):
        lines = self.api.send("GET", f"/jobs/{self.job.pk}/cutting").json()["order"]
        [strut] = [line for line in lines if line["what"] == "strut"]
        self.assertIn("Feed: pipes at 1 15/16, 3 15/16, 5 15/16", strut["note"])

    def test_a_rack_is_planned_without_being_kept(self):
        plan = self.api.send("POST", "/pipe-rack", {"document": {**RUN, "rack": RACK}}).json()
        self.assertTrue(plan["makeable"] and plan["gaps_kept"])
        self.assertEqual([pipe["name"] for pipe in plan["pipes"]], ["Feed", "Second", "Feed 3"])
        self.assertEqual(self.api.send("POST", "/pipe-rack", {"document": RUN}).status_code, 422)
