import json

from conduit.answers import answer_text
from conduit.tables import DEFAULT_LIMITS
from conduit.tests.support import ninety
from server.bench.models import Stick
from server.bench.tests.support import BenchTestCase, act, bent
from server.jobs.actions import add_run, save_run
from server.tests.support import RUN

LONG = {**RUN, "steps": [ninety("100", "up")], "end": {"at": "40"}, "couplings": ["70"]}


class DoneByAnEarlierSheet(BenchTestCase):
    """Acts that were done without a network, while the run was saved with other couplings or other figures."""

    def setUp(self):
        super().setUp()
        self.run_ = add_run(self.lead, self.job.pk, LONG)
        self.then = self.bench(self.run_)

    def save(self, **changed):
        self.run_.refresh_from_db()
        save_run(self.lead, self.run_.pk, self.run_.version, {**self.run_.document, **changed})

    def done_then(self, *acts):
        return self.do(*({**one, "version": self.then["version"]} for one in acts), run=self.run_)

    def test_a_piece_is_known_by_where_it_lies_and_not_by_its_number(self):
        self.save(couplings=["35", "70"])
        outcomes, bench = self.done_then(act("cut", 2), bent(1, 90, piece=2))
        self.assertTrue(all(one["done"] for one in outcomes), outcomes)
        self.assertEqual([bool(stick["cut_at"]) for stick in bench["sticks"]], [False, False, True])
        self.assertEqual(
            (bench["sticks"][2]["stale"], bench["sticks"][2]["sheet"]["bends"][0]["made"]["angle"]), ("", 90)
        )

    def test_a_piece_that_is_no_more_is_begun_as_it_was_where_most_of_it_lay(self):
        self.save(couplings=["35", "80"])
        outcomes, bench = self.done_then(act("cut", 2), bent(1, 90, piece=2))
        self.assertTrue(all(one["done"] for one in outcomes), outcomes)
        stick = bench["sticks"][2]
        self.assertEqual(stick["sheet"]["cut"], self.then["sticks"][1]["sheet"]["cut"])
        self.assertIn("changed after this stick was started", stick["stale"])
        self.assertEqual([bool(one["cut_at"]) for one in bench["sticks"]], [False, False, True])
        # Both acts are of one stick.
        self.assertEqual(Stick.objects.filter(run=self.run_).count(), 1)

    def test_a_piece_that_is_laid_out_otherwise_is_bent_as_its_sheet_said(self):
        self.save(end={"at": "39"})
        _, bench = self.done_then(act("cut", 2))
        stick = bench["sticks"][1]
        self.assertEqual(stick["sheet"]["length"], self.then["sticks"][1]["sheet"]["length"])
        self.assertIn("changed after this stick was started", stick["stale"])
        # What only arranges it is of no use on a piece that is another now.
        self.save(end={"at": "38"}, couplings=["60"])
        [outcome], _ = self.done_then(act("arrange", 1, arranged={"marks": "card"}))
        self.assertIn("Piece 1 was laid out otherwise meanwhile", outcome["says"])

    def test_a_stick_that_another_began_meanwhile_is_that_one(self):
        self.do(act("cut", 2), run=self.run_)
        self.save(couplings=["35", "70"])
        [outcome], bench = self.done_then(bent(1, 90, piece=2))
        self.assertTrue(outcome["done"] and bench["sticks"][2]["sheet"]["bends"][0]["made"])
        [outcome], _ = self.done_then(bent(1, 91, piece=2))
        self.assertIn("already entered: 90° by", outcome["says"])

    def test_a_device_makes_the_same_of_it_by_itself(self):
        self.do(act("cut", 1), run=self.run_)
        self.save(end={"at": "39"})
        acts = [
            act("arrange", 2, arranged={"marks": "card", "spare": "1"}),
            act("cut", 2),
            bent(1, 87, "31 1/4", piece=2),
            bent(1, 89, piece=2, again=True),
            bent(1, 89, piece=2),
        ]
        before = self.bench(self.run_)
        begun = {"document": before["document"]}
        sticks = [{**one["kept"], **(begun if one["begun"] else {})} for one in before["sticks"] if one["kept"]]
        given = {"document": before["document"], "sticks": sticks, "acts": acts}
        _, text = answer_text("bench", json.dumps(given), DEFAULT_LIMITS.model_dump_json(), "en")
        here, (outcomes, there) = json.loads(text), self.do(*acts, run=self.run_)
        self.assertEqual([one["key"] for one in here["not_done"]], [one["key"] for one in outcomes if not one["done"]])
        for mine, theirs in zip(here["sticks"], there["sticks"], strict=True):
            for field in ("sheet", "arranged", "used", "stale", "card"):
                self.assertEqual(mine[field], theirs[field], field)
            self.assertEqual((mine["shoe"], mine["cautions"]), (theirs["shoe"]["name"], theirs["shoe"]["cautions"]))
