"""A run that is changed after its pipe was reserved, cut or bent: told while it is, and in Stock at the piece."""

from uuid import uuid4

from server.cutting.models import Cut
from server.jobs.actions import save_run
from server.jobs.models import Run
from server.stock.actions import add_scrap
from server.stock.schemas import ScrapIn
from server.tests.support import Api, CrewTestCase, taken_plan


class UnderChange(CrewTestCase):
    """The feed, reserved on a scrap."""

    def setUp(self):
        super().setUp()
        add_scrap(self.lead, ScrapIn(material="EMT", trade_size="3/4", length="80", place="bay 2"))
        taken_plan(self.lead, self.job)
        self.cut = Cut.objects.get(live=True)
        self.run_now = Run.objects.get(pk=self.cut.run_id)

    def told(self, api=None, **changed):
        body = {"document": {**self.run_now.document, **changed}}
        answer = (api or self.api).send("POST", f"/runs/{self.run_now.pk}/changed", body)
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()

    def do(self, kind):
        return self.api.send("POST", f"/cuts/{self.cut.pk}", {"kind": kind, "key": str(uuid4())})

    def bend(self):
        act = {"kind": "bent", "key": str(uuid4()), "piece": 1, "bend": 1, "angle": 90, "at": "2026-01-01T00:00:00Z"}
        act |= {"tape": None, "again": False, "reference": "arrow", "dial": None}
        answer = self.api.send("POST", f"/runs/{self.run_now.pk}/bench", {"acts": [act]}).json()
        self.assertEqual([one["done"] for one in answer["outcomes"]], [True], answer["outcomes"])

    def longer(self, by):
        """The same run with its end so much farther."""
        return {"end": {**self.run_now.document["end"], "at": float(self.run_now.document["end"]["at"]) + by}}

    def test_as_it_is_nothing_is_told(self):
        for kind in ("", "cut"):
            if kind:
                self.do(kind)
            self.assertEqual(self.told(name="Only called otherwise"), [], kind)

    def test_what_is_reserved_is_told_with_both_lengths(self):
        [line] = self.told(**self.longer(5))
        was, now = (self.told(**self.longer(by)) for by in (5, 6))
        self.assertEqual((line["piece"], line["begun"], line["reserved"]), (1, False, True))
        self.assertIn("is reserved in Stock at", line["says"])
        self.assertNotEqual(was[0]["says"], now[0]["says"])

    def test_what_is_reserved_at_another_length_is_told_in_the_list_of_jobs(self):
        version = self.run_now.version
        for by, behind in ((5, [1]), (0, []), (5, [1])):
            save_run(self.lead, self.run_now.pk, version, {**self.run_now.document, **self.longer(by)})
            version += 1
            self.assertEqual(self.told_in_list(), behind)
        taken_plan(self.lead, self.job)
        self.assertEqual(self.told_in_list(), [])

    def told_in_list(self):
        lines = [run for job in self.api.send("GET", "/jobs").json() for run in job["runs"]]
        return {run["id"]: run["reserved_behind"] for run in lines}[self.run_now.pk]

    def test_what_is_cut_is_told_by_how_much_it_is_short_or_long(self):
        self.do("cut")
        self.assertIn("with this it is 5 short", self.told(**self.longer(5))[0]["says"])
        self.assertIn("with this it is 2 1/2 too long", self.told(**self.longer(-2.5))[0]["says"])
        self.assertEqual(self.told(steps=[{"kind": "bend", "at": "", "turn": "up"}]), [], "nothing while it is typed")

    def test_marks_that_move_on_a_piece_of_the_same_length_are_told(self):
        self.do("cut")
        [step] = self.run_now.document["steps"]
        moved = {"steps": [{**step, "at": float(step["at"]) + 3}], **self.longer(-3)}
        self.assertIn("its marks lie elsewhere", self.told(**moved)[0]["says"])
        self.bend()
        self.assertIn("its bends lie elsewhere", self.told(**moved)[0]["says"])
        self.assertIn("and bent; with this it is 5 short", self.told(**self.longer(5))[0]["says"])

    def test_in_stock_it_stands_at_the_piece_and_the_piece_may_serve_elsewhere(self):
        self.do("cut")
        body = {"version": self.run_now.version, "document": {**self.run_now.document, **self.longer(5)}}
        self.assertEqual(self.api.send("PUT", f"/runs/{self.run_now.pk}", body).status_code, 200)
        cutting = self.api.send("GET", f"/jobs/{self.job.pk}/cutting").json()
        [cut] = [cut for bar in cutting["taken"]["bars"] for cut in bar["cuts"]]
        self.assertIn("this is 5 short", cut["stale"])
        now = self.do("to_rack").json()
        self.assertEqual((now["taken"]["cut"], now["to_plan"]), (0, 1), "its place is planned again")
        lengths = [one["length"] for one in self.api.send("GET", "/rack").json()["scraps"]]
        self.assertIn(self.cut.length / 16, lengths)
        self.assertEqual(self.told(), [])

    def test_a_bent_piece_does_not_go_on_the_rack(self):
        self.do("cut")
        self.bend()
        answer = self.do("to_rack")
        self.assertEqual(answer.status_code, 409)
        self.assertIn("scrap it at the bench", answer.json()["detail"])

    def test_another_crew_is_told_nothing_of_it(self):
        stranger = Api(self.stranger)
        answer = stranger.send("POST", f"/runs/{self.run_now.pk}/changed", {"document": self.run_now.document})
        self.assertEqual(answer.status_code, 404)
