from server.bench.tests.support import NOON, BenchTestCase, act, bent
from server.jobs.actions import add_run
from server.shoes.models import Calibration, Shoe
from server.tests.support import RUN, Api

NEW = {"name": "Bench 3/4", "trade_size": "3/4", "deduct": "6", "gain": "3 1/4", "front": "1 1/8"}
# On a 30 in scrap: leg 13 1/8 from a mark at 7, other leg 20 3/16.
TEST = {"mark": "7", "leg": "13 1/8", "other_leg": "20 3/16", "length": "30"}


class Shoes(BenchTestCase):
    def setUp(self):
        super().setUp()
        self.shoe = self.api.send("POST", "/shoes", NEW).json()

    def send(self, method, what, body=None):
        return self.api.send(method, f"/shoes/{self.shoe['id']}{what}", body)

    def test_a_shoe_comes_with_what_follows_from_its_figures(self):
        used = self.shoe["used"]
        self.assertEqual((used["deduct"]["reads"], used["gain"]["reads"]), ("6", "3 1/4"))
        self.assertAlmostEqual(used["references"]["star"], 2.75)
        self.assertAlmostEqual(used["references"]["front"], -1.125)
        self.assertIsNone(self.shoe["calibrated_at"])

    def test_without_figures_it_begins_with_typical_ones(self):
        shoe = self.api.send("POST", "/shoes", {"name": "Found", "trade_size": "1/2"}).json()
        self.assertEqual(shoe["used"]["deduct"]["reads"], "5")
        self.assertEqual(self.api.send("POST", "/shoes", {"name": "Big", "trade_size": "3-1/2"}).status_code, 422)

    def test_what_cannot_be_is_told_at_its_place(self):
        wrongs = [({"gain": "1/2"}, "gain"), ({"deduct": None}, "deduct"), ({"deduct": "7 1/0"}, "given.deduct")]
        for wrong, place in wrongs:
            answer = self.api.send("POST", "/shoes", {**NEW, "name": "Wrong", **wrong})
            self.assertEqual((answer.status_code, list(answer.json()["places"])), (422, [place]))
        self.assertEqual(self.api.send("POST", "/shoes", NEW).status_code, 409)
        self.assertEqual(Shoe.objects.count(), 1)

    def test_what_was_exchanged_or_misread_is_asked_about(self):
        wrong = {**TEST, "leg": TEST["other_leg"], "other_leg": TEST["leg"]}
        found = self.send("POST", "/test", {"tests": [TEST, wrong]}).json()
        self.assertEqual([doubt["test"] for doubt in found["doubts"]][:1], [1])
        self.assertEqual(self.send("POST", "/test", {"tests": [TEST]}).json()["doubts"], [])
        self.assertIn(
            "far off", self.send("POST", "/test", {"dials": [{"dial": 45, "angle": 60}]}).json()["doubts"][0]["says"]
        )
        changed = self.send("PUT", "", {**NEW, "deduct": NEW["gain"], "gain": NEW["deduct"]}).json()
        self.assertTrue(changed["exchanged"])
        self.assertIn("look exchanged", changed["doubt"])
        self.assertEqual(self.shoe["doubt"], "")
        far = self.send("PUT", "", {**NEW, "deduct": "3", "gain": "12"})
        self.assertEqual((far.status_code, list(far.json()["places"])), (422, ["gain"]))
        unread = self.send("POST", "/test", {"tests": [{**TEST, "leg": "a lot"}]}).json()
        self.assertNotIn("Value error", str(unread))

    def test_a_test_bend_is_shown_first_then_taken(self):
        found = self.send("POST", "/test", {"tests": [TEST]}).json()
        self.assertEqual((found["shoe"]["deduct"]["reads"], found["shoe"]["gain"]["reads"]), ("6 1/8", "3 5/16"))
        self.assertEqual(Shoe.objects.get().deduct, 6, "not taken yet")
        dials = [{"dial": 30, "angle": 29}, {"dial": 90, "angle": 88}]
        shoe = self.send("POST", "/calibrate", {"tests": [TEST], "dials": dials}).json()
        self.assertEqual(shoe["used"]["deduct"]["reads"], "6 1/8")
        self.assertAlmostEqual(shoe["dial_factor"], 59 / 60)
        self.assertIsNotNone(shoe["calibrated_at"])
        self.assertEqual([one["source"] for one in shoe["calibrations"]], ["test bends"])
        self.assertEqual(self.send("POST", "/calibrate", {}).status_code, 422)
        nonsense = {**TEST, "other_leg": "14"}
        self.assertEqual(self.send("POST", "/calibrate", {"tests": [nonsense]}).status_code, 422)
        self.assertEqual(Calibration.objects.count(), 1)

    def test_figures_written_in_by_hand_are_not_calibrated_any_more(self):
        self.send("POST", "/calibrate", {"tests": [TEST]})
        self.assertIsNotNone(self.send("PUT", "", {**NEW, "deduct": "6 1/8", "gain": "3 5/16"}).json()["calibrated_at"])
        self.assertIsNone(self.send("PUT", "", {**NEW, "deduct": "6 1/4"}).json()["calibrated_at"])

    def test_runs_know_a_shoe_by_the_names_that_it_had(self):
        self.send("POST", "/calibrate", {"tests": [TEST]})
        run = add_run(self.lead, self.job.pk, {**RUN, "shoe": self.api.send("GET", "/shoes").json()[0]["figures"]})
        self.do(bent(1, 90), run=run)
        self.send("PUT", "", {**NEW, "deduct": "6 1/8", "gain": "3 5/16", "name": "Blue head"})
        told = self.bench(run)["sticks"][0]["shoe"]
        self.assertEqual((told["name"], told["cautions"]), ("Blue head", []))
        log = self.api.send("GET", "/log?shoe=Blue head").json()
        self.assertEqual([line["shoe"] for line in log["lines"]], ["Blue head"])
        # Another that takes the old name has it from now on.
        self.api.send("POST", "/shoes", NEW)
        self.assertIn("not calibrated", self.bench(run)["sticks"][0]["shoe"]["cautions"][-1])

    def test_a_plan_made_with_old_figures_says_so_and_its_marks_move_with_the_new(self):
        run = add_run(self.lead, self.job.pk, {**RUN, "shoe": self.shoe["figures"]})
        before = self.bench(run)["sticks"][0]
        self.assertIn("not calibrated", before["shoe"]["cautions"][0])
        shoe = self.send("POST", "/calibrate", {"tests": [TEST]}).json()
        told = self.bench(run)["sticks"][0]
        self.assertIn("other figures", told["shoe"]["cautions"][0])
        self.assertEqual(told["sheet"]["bends"][0]["use"], before["sheet"]["bends"][0]["use"], "not behind one's back")
        document = {**RUN, "shoe": told["shoe"]["figures"]}
        self.assertEqual(document["shoe"]["deduct"], shoe["figures"]["deduct"])
        self.api.send("PUT", f"/runs/{run.pk}", {"version": 1, "document": document})
        after = self.bench(run)["sticks"][0]
        self.assertEqual(after["shoe"]["cautions"], [])
        marks = [stick["sheet"]["bends"][0]["use"]["at"]["inches"] for stick in (before, after)]
        self.assertAlmostEqual(marks[0] - marks[1], 1 / 8)

    def test_a_typical_shoe_is_told_to_be_uncalibrated(self):
        self.assertIn("Typical figures", self.bench()["sticks"][0]["shoe"]["cautions"][0])

    def test_the_log_proposes_figures_and_they_are_taken_once(self):
        for number in range(3):
            run = add_run(self.lead, self.job.pk, {**RUN, "name": f"Run {number}", "shoe": self.shoe["figures"]})
            self.do(act("cut"), bent(1, 90 - number / 10, "20 1/8"), run=run)
        learned = self.send("GET", "/learned").json()
        self.assertAlmostEqual(learned["deduct"]["proposed"], 6.125, delta=1 / 50)
        self.assertIsNone(learned["gain"]["proposed"])
        self.assertEqual(self.send("POST", "/learned", {"gain": True}).status_code, 422)
        taken = self.send("POST", "/learned", {"deduct": True}).json()
        self.assertAlmostEqual(taken["used"]["deduct"]["inches"], learned["deduct"]["proposed"])
        self.assertEqual(taken["calibrations"][0]["source"], "log")
        self.assertIsNone(self.send("GET", "/learned").json()["deduct"]["proposed"])
        self.assertEqual(self.send("POST", "/learned", {"deduct": True}).status_code, 422)

    def test_what_was_bent_on_a_removed_shoe_stays_in_the_log(self):
        run = add_run(self.lead, self.job.pk, {**RUN, "shoe": self.shoe["figures"]})
        self.do(bent(1, 90, at=NOON.isoformat()), run=run)
        self.assertEqual(self.send("DELETE", "").status_code, 204)
        self.assertEqual(self.api.send("GET", "/log?shoe=Bench%203/4").json()["total"], 1)
        self.assertIn("by hand", self.bench(run)["sticks"][0]["shoe"]["cautions"][0])

    def test_another_crew_may_have_a_shoe_of_the_same_name(self):
        self.assertEqual(Api(self.stranger).send("POST", "/shoes", NEW).status_code, 201)
