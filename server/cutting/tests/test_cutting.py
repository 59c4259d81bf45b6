from unittest import mock
from uuid import uuid4

from conduit.tests.support import document, ninety, offset
from server.bench.models import Stick
from server.cutting.models import Asked, Bar, Cut, Proposal
from server.cutting.planning import KEPT_PROPOSALS
from server.cutting.solving import FAILED
from server.jobs.actions import add_run
from server.jobs.models import Run
from server.stock.actions import add_scrap
from server.stock.models import Entry, Reservation, Scrap
from server.stock.schemas import ScrapIn
from server.tests.support import Api, CrewTestCase, planned, taken_plan

LONG = document([ninety("100", "up")], "80", size="1/2", name="Long run")


class Cutting(CrewTestCase):
    """The feed (57 and a bit) with a scrap that holds it, and a run of two pieces of another size."""

    def setUp(self):
        super().setUp()
        self.long = add_run(self.lead, self.job.pk, LONG)
        self.scrap = add_scrap(self.lead, ScrapIn(material="EMT", trade_size="3/4", length="80", place="bay 2"))[0]

    def cutting(self):
        return self.api.send("GET", f"/jobs/{self.job.pk}/cutting").json()

    def act(self, cut, kind, key=None, **more):
        return self.api.send("POST", f"/cuts/{cut.pk}", {"kind": kind, "key": str(key or uuid4()), **more})

    def rack(self):
        return sorted(self.api.send("GET", "/rack").json()["scraps"], key=lambda one: one["id"])

    def on_scrap(self):
        return Cut.objects.get(bar__scrap=self.scrap, live=True)

    def test_the_same_job_gets_the_same_plan(self):
        one, other = (
            self.api.send("POST", f"/jobs/{self.job.pk}/cutting/plan", {"terms": {}, "seconds": 0.3}).json()
            for _ in range(2)
        )
        self.assertEqual(one, other)
        self.assertEqual(self.cutting()["proposal"], one["proposal"])

    def test_what_to_bring_counts_the_choice_that_is_picked(self):
        # Two short pieces save a stick and cost a coupling.
        add_run(self.lead, self.job.pk, {**LONG, "trade_size": "3/4"})
        for _ in range(2):
            add_scrap(self.lead, ScrapIn(material="EMT", trade_size="3/4", length="30"))
        digest = planned(self.lead, self.job)
        kinds = {kind["trade_size"]: kind for kind in self.cutting()["proposal"]["found"]["kinds"]}
        kind = kinds["3/4"]
        self.assertGreater(len(kind["choices"]), 1)
        for at, choice in enumerate(kind["choices"]):
            body = {"digest": digest, "picks": {"3/4 EMT": at}}
            now = self.api.send("POST", f"/jobs/{self.job.pk}/cutting/pick", body).json()
            counts = {line["what"]: line["count"] for line in now["order"] if line["trade_size"] == "3/4"}
            self.assertEqual(counts.get("stick", 0), choice["sticks"])
            self.assertEqual(counts["coupling"], choice["couplings"])
            self.assertEqual(self.cutting()["proposal"]["picks"], body["picks"])
        body["picks"]["3/4 EMT"] = len(kind["choices"])
        self.assertEqual(self.api.send("POST", f"/jobs/{self.job.pk}/cutting/pick", body).status_code, 422)

    def test_taken_it_is_reserved_and_its_couplings_are_in_the_runs(self):
        taken_plan(self.lead, self.job)
        now = self.cutting()
        self.assertEqual((now["to_plan"], now["taken"]["cut"], now["taken"]["stale"]), (0, 0, 0))
        self.assertEqual(self.rack()[0]["reserved_for"], "Shed")
        self.assertEqual(self.api.send("POST", f"/rack/{self.scrap.pk}/take").status_code, 409)
        cuts = {(cut["run"], cut["piece"]): cut for bar in now["taken"]["bars"] for cut in bar["cuts"]}
        for run in (self.feed, self.long):
            run.refresh_from_db()
            plan = self.api.send("POST", "/plan", {"document": run.document}).json()
            lengths = {(run.pk, piece["number"]): piece["length"]["reads"] for piece in plan["pieces"]}
            self.assertEqual(lengths, {key: cut["length"]["reads"] for key, cut in cuts.items() if key[0] == run.pk})

    def test_a_stale_plan_is_told_and_nothing_is_reserved(self):
        digest = planned(self.lead, self.job)
        body = {"version": 1, "document": {**LONG, "end": {"at": "95"}}}
        self.assertEqual(self.api.send("PUT", f"/runs/{self.long.pk}", body).status_code, 200)
        answer = self.api.send("POST", f"/jobs/{self.job.pk}/cutting/take", {"digest": digest})
        self.assertEqual(answer.status_code, 409)
        self.assertIn("Changed since this plan was made: Long run", answer.json()["detail"])
        self.assertEqual((Bar.objects.count(), Reservation.objects.count()), (0, 0))

    def test_a_run_that_cannot_be_bent_is_told_with_and_without_a_plan(self):
        taken_plan(self.lead, self.job)
        wrong = add_run(self.lead, self.job.pk, document([ninety("3", "up")], "40", name="Too near"))
        self.assertEqual([one["run"] for one in self.cutting()["left_out"]], [str(wrong.pk)])
        planned(self.lead, self.job)
        now = self.cutting()
        self.assertEqual([one["run_name"] for one in now["left_out"]], ["Too near"])
        self.assertIsNotNone(now["proposal"])

    def test_a_cut_the_rack_the_ledger_and_the_bench_follow(self):
        taken_plan(self.lead, self.job)
        cut, key = self.on_scrap(), uuid4()
        for _ in range(2):
            self.assertEqual(self.act(cut, "cut", key).status_code, 200, "the same key again is passed over")
        bar = Bar.objects.get(pk=cut.bar_id)
        left = 80 * 16 - cut.length - 1
        self.assertEqual(bar.left, left)
        self.assertEqual([(one["tag"], one["length"]) for one in self.rack()], [(bar.offcut_tag, left / 16)])
        self.assertEqual(list(Entry.objects.values_list("what", flat=True)[:2]), ["offcut", "cut"])
        self.assertTrue(Stick.objects.get(run=cut.run, piece=cut.piece).cut_at)
        self.assertEqual(self.act(cut, "cut").status_code, 409)

    def test_a_scrap_with_ends_that_are_not_square_is_squared_once(self):
        correct = {"material": "EMT", "trade_size": "3/4", "length": "80", "end_a": "rough", "end_b": "bent"}
        self.assertEqual(self.api.send("PUT", f"/rack/{self.scrap.pk}", correct).status_code, 200)
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        [bar] = [one for one in self.cutting()["taken"]["bars"] if one["scrap"]]
        self.assertEqual((bar["begin"], bar["square"]["reads"], bar["cuts"][0]["start"]["inches"]), ("A", "1/2", 0))
        left = 80 * 16 - 8 - cut.length - 1
        self.assertEqual(bar["offcut"]["inches"], left / 16)
        self.act(cut, "cut")
        [offcut] = self.rack()
        self.assertEqual((offcut["length"], offcut["end_a"], offcut["end_b"]), (left / 16, "cut", "bent"))
        self.act(cut, "undo")
        self.assertEqual(Bar.objects.get(pk=cut.bar_id).left, 80 * 16 - 8)
        # Planned again with what is reserved, it is not squared twice.
        again = taken_plan(self.lead, self.job)
        self.assertEqual(Bar.objects.get(pk=again.bar_id, live=True).left, 80 * 16 - 8)

    def test_begun_at_its_end_b_an_offcut_keeps_its_end_a(self):
        correct = {"material": "EMT", "trade_size": "3/4", "length": "80", "end_a": "bent", "end_b": "factory"}
        self.api.send("PUT", f"/rack/{self.scrap.pk}", correct)
        taken_plan(self.lead, self.job)
        self.act(self.on_scrap(), "cut")
        [offcut] = self.rack()
        self.assertEqual((offcut["end_a"], offcut["end_b"]), ("cut", "bent"))

    def test_undone_all_is_as_it_was(self):
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        self.act(cut, "cut")
        self.assertEqual(self.act(cut, "undo").status_code, 200)
        self.assertEqual([(one["tag"], one["reserved_for"]) for one in self.rack()], [("S1", "Shed")])
        self.assertEqual(Bar.objects.get(pk=cut.bar_id).left, 80 * 16)
        self.assertIsNone(Stick.objects.get(run=cut.run, piece=cut.piece).cut_at)
        self.assertEqual(self.act(cut, "undo").status_code, 409)
        # The offcut's tag is used again for the same offcut.
        self.act(cut, "cut")
        self.assertEqual(len(self.rack()), 1)

    def test_an_undo_is_refused_when_the_offcut_is_gone(self):
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        self.act(cut, "cut")
        offcut = self.rack()[0]
        self.assertEqual(self.api.send("POST", f"/rack/{offcut['id']}/take").status_code, 200)
        self.assertEqual(self.act(cut, "undo").status_code, 409)
        self.assertIsNotNone(Cut.objects.get(pk=cut.pk).done_at)

    def test_cut_wrong(self):
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        for length, status in (("", 422), ("-3", 422), ("0", 422), ("79 1/2 x", 422), ("90", 409)):
            self.assertEqual(self.act(cut, "wrong", length=length).status_code, status, length)
        self.assertIsNone(Cut.objects.get(pk=cut.pk).done_at)
        # Too short: scrap of its own, and what is left no longer holds the piece, which is planned again.
        self.assertEqual(self.act(cut, "wrong", length="30").status_code, 200)
        self.assertEqual(sorted(one["length"] for one in self.rack()), [30, 80 - 30 - 1 / 16])
        now = self.cutting()
        self.assertEqual((now["to_plan"], Cut.objects.get(pk=cut.pk).live), (1, None))

    def test_cut_too_long_it_serves(self):
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        length = (cut.length + 16) / 16
        self.assertEqual(self.act(cut, "wrong", length=str(length)).status_code, 200)
        cut.refresh_from_db()
        self.assertEqual((cut.came_out, cut.done_at is None), (cut.length + 16, False))

    def test_longer_sticks_that_are_sold_make_a_run_whose_couplings_find_no_place(self):
        tight = document([offset(10 + 18 * at, 2.25, 15) for at in range(6)], 122, name="Tight")
        run = add_run(self.lead, self.job.pk, {**tight, "trade_size": "1", "tape": "1 mm"})
        before = self.api.send("POST", "/plan", {"document": run.document}).json()
        self.assertIn("no_coupling_place", [one["code"] for one in before["findings"]])
        planned(self.lead, self.job)
        left_out = {one["run"]: one["says"] for one in self.cutting()["proposal"]["found"]["left_out"]}
        self.assertIn("No pipe that is sold", left_out[str(run.pk)])
        sold = [{"material": "EMT", "trade_size": "1", "sticks": [{"length": 240}]}]
        taken_plan(self.lead, self.job, sold=sold)
        run.refresh_from_db()
        plan = self.api.send("POST", "/plan", {"document": run.document}).json()
        self.assertTrue(plan["makeable"], plan["findings"])
        self.assertEqual(len(plan["pieces"]), 1)

    def test_what_is_cut_stays_when_the_rest_is_planned_again(self):
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        self.act(cut, "cut")
        before = set(Cut.objects.filter(live=True).values_list("run", "start", "end", "bar__name"))
        extra = add_run(self.lead, self.job.pk, {**LONG, "name": "One more"})
        taken_plan(self.lead, self.job)
        after = set(Cut.objects.filter(live=True).values_list("run", "start", "end", "bar__name"))
        self.assertLessEqual(before, after, "cut or reserved, they are not reshuffled")
        self.assertEqual({run for run, *_ in after - before}, {extra.pk})

    def test_a_run_that_changed_is_not_cut_as_it_was(self):
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        run = Run.objects.get(pk=cut.run_id)
        changed = {**run.document, "end": {"at": "43"}}
        self.api.send("PUT", f"/runs/{run.pk}", {"version": run.version, "document": changed})
        answer = self.act(cut, "cut")
        self.assertEqual(answer.status_code, 409)
        self.assertIn("Plan again", answer.json()["detail"])
        self.assertEqual(self.cutting()["taken"]["stale"], 1)
        taken_plan(self.lead, self.job)
        self.assertEqual(self.cutting()["taken"]["stale"], 0)

    def test_let_go_it_is_free_again(self):
        taken_plan(self.lead, self.job)
        self.assertEqual(self.api.send("POST", f"/jobs/{self.job.pk}/cutting/let-go").status_code, 200)
        self.assertEqual((self.rack()[0]["reserved_for"], Reservation.objects.count()), ("", 0))
        self.assertEqual(self.cutting()["taken"]["bars"], [])
        taken_plan(self.lead, self.job)

    def at_bench(self, cut, *kinds, **more):
        """What came of acts at the bench on a cut's piece."""
        same = {"piece": cut.piece, "at": "2026-01-01T00:00:00Z", **more}
        acts = [{"kind": kind, "key": str(uuid4()), **same} for kind in kinds]
        answer = self.api.send("POST", f"/runs/{cut.run_id}/bench", {"acts": acts})
        self.assertEqual(answer.status_code, 200)
        return [one["done"] for one in answer.json()["outcomes"]]

    def test_cut_at_the_bench_it_is_cut_here(self):
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        self.assertEqual(self.at_bench(cut, "cut"), [True])
        self.assertIsNotNone(Cut.objects.get(pk=cut.pk).done_at)
        self.assertIsNotNone(Scrap.objects.get(pk=self.scrap.pk).taken_at)
        self.assertEqual(self.at_bench(cut, "uncut"), [True])
        self.assertIsNone(Cut.objects.get(pk=cut.pk).done_at)
        self.assertIsNone(Scrap.objects.get(pk=self.scrap.pk).taken_at)

    def test_cut_at_the_bench_after_the_run_changed_it_is_no_longer_the_plans(self):
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        run = Run.objects.get(pk=cut.run_id)
        body = {"version": run.version, "document": {**run.document, "end": {"at": "41"}}}
        self.assertEqual(self.api.send("PUT", f"/runs/{run.pk}", body).status_code, 200)
        self.assertEqual(self.at_bench(cut, "cut", "fitted"), [True, True])
        self.assertIsNone(Cut.objects.get(pk=cut.pk).live)
        self.assertEqual((self.rack()[0]["reserved_for"], self.cutting()["taken"]["stale"]), ("", 0))

    def arrange(self, cut, **arranged):
        act = {"kind": "arrange", "piece": cut.piece, "key": str(uuid4()), "at": "2026-01-01T00:00:00Z"}
        answer = self.api.send("POST", f"/runs/{cut.run_id}/bench", {"acts": [{**act, "arranged": arranged}]})
        return answer.json()["outcomes"][0]

    def test_a_stick_on_a_shoe_of_its_own_is_cut_as_that_shoe_wants_it(self):
        red = {"name": "Red", "deduct": "5 1/2", "gain": "2 3/4"}
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        self.assertTrue(self.arrange(cut, shoe=red)["done"])
        self.assertEqual(Cut.objects.get(pk=cut.pk).length, (20 + 40 - 2.75) * 16)
        outcome = self.arrange(cut, shoe=red, spare="30")
        self.assertEqual((outcome["done"], Cut.objects.get(pk=cut.pk).length), (False, 57.25 * 16))
        self.assertIn("would be cut to 87 1/4; S1 has 80 for it", outcome["says"])
        # What is planned anew keeps to it.
        self.api.send("POST", f"/jobs/{self.job.pk}/cutting/let-go")
        taken_plan(self.lead, self.job)
        self.assertEqual(self.on_scrap().length, 57.25 * 16)

    def test_cut_at_the_bench_from_a_scrap_without_a_plan_the_rack_follows(self):
        piece = Cut(run=self.feed, piece=1)
        half = add_scrap(self.lead, ScrapIn(material="EMT", trade_size="1/2", length="100"))[0]
        short = add_scrap(self.lead, ScrapIn(material="EMT", trade_size="3/4", length="40"))[0]
        for tag in (half.tag, short.tag, "S99"):
            self.assertEqual(self.at_bench(piece, "cut", source=tag), [False], tag)
        self.assertEqual((Bar.objects.count(), Reservation.objects.count()), (0, 0))
        self.assertEqual(self.at_bench(piece, "cut", source=self.scrap.tag), [True])
        cut = self.on_scrap()
        offcut = Bar.objects.get(scrap=self.scrap).offcut
        self.assertAlmostEqual(offcut.length, 80 - cut.length / 16 - 1 / 16)
        self.assertIsNotNone(Scrap.objects.get(pk=self.scrap.pk).taken_at)
        self.assertEqual(self.at_bench(cut, "uncut"), [True])
        self.assertIsNone(Scrap.objects.get(pk=self.scrap.pk).taken_at)

    def test_what_cannot_be_taken_back_at_the_bench_is_told_and_the_rest_is_done(self):
        taken_plan(self.lead, self.job)
        cut = self.on_scrap()
        self.at_bench(cut, "cut")
        offcut = Bar.objects.get(scrap=self.scrap).offcut
        self.assertEqual(self.api.send("POST", f"/rack/{offcut.pk}/take").status_code, 200)
        self.assertEqual(self.at_bench(cut, "uncut", "fitted"), [False, True])
        self.assertIsNotNone(Cut.objects.get(pk=cut.pk).done_at)

    def test_terms_that_cannot_be_read_are_told_at_their_place(self):
        wrong = {
            "keep": "-1",
            "kerf": "x",
            "coupling": 0,
            "sold": [{"material": "EMT", "trade_size": "3/4", "sticks": []}],
        }
        answer = self.api.send("POST", f"/jobs/{self.job.pk}/cutting/plan", {"terms": wrong})
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(
            set(answer.json()["places"]), {"terms.keep", "terms.kerf", "terms.coupling", "terms.sold.0.sticks"}
        )

    def test_lists_to_take_along(self):
        taken_plan(self.lead, self.job)
        cuts = self.api.send("GET", f"/jobs/{self.job.pk}/cutting/cuts.csv").content.decode().splitlines()
        self.assertEqual(len(cuts), 1 + Cut.objects.count())
        order = self.api.send("GET", f"/jobs/{self.job.pk}/cutting/order.csv").content.decode()
        self.assertIn('stick,"1/2""",EMT,"120""",', order, "a spreadsheet makes no date of it")
        self.assertIn('connector,"3/4""",EMT,,2', order)

    def test_a_viewer_sees_plans_and_changes_nothing_by_looking(self):
        digest = planned(self.lead, self.job)
        self.api.send("POST", f"/jobs/{self.job.pk}/cutting/pick", {"digest": digest, "picks": {"3/4 EMT": 0}})
        before = self.cutting()
        plan, viewer = f"/jobs/{self.job.pk}/cutting/plan", Api(self.viewer)
        self.assertEqual(viewer.send("POST", plan, {"terms": {}, "seconds": 9}).json()["proposal"], before["proposal"])
        tried = viewer.send("POST", plan, {"terms": {"use_scrap": False}, "seconds": 0.2})
        self.assertEqual(tried.status_code, 403)
        self.assertEqual(self.cutting(), before)

    def test_the_plan_that_is_kept_outlives_what_is_tried(self):
        digest = planned(self.lead, self.job)
        keep = Asked.objects.get(job=self.job)
        for kerf in range(KEPT_PROPOSALS + 2):
            planned(self.lead, self.job, kerf=f"{kerf + 1}/64")
            keep.save()
        self.assertEqual(Proposal.objects.filter(job=self.job).count(), KEPT_PROPOSALS + 2)
        answer = self.api.send("POST", f"/jobs/{self.job.pk}/cutting/take", {"digest": digest})
        self.assertEqual(answer.status_code, 200)
        Proposal.objects.all().delete()
        again = self.api.send("POST", f"/jobs/{self.job.pk}/cutting/take", {"digest": digest})
        self.assertEqual(again.status_code, 409)

    def test_pieces_that_are_reserved_keep_the_blade_they_were_reserved_for(self):
        """Two pieces that fill a scrap to the sixteenth with a thin blade do not burst it with a thick one."""
        for name in ("One", "Two"):
            add_run(self.lead, self.job.pk, document([], "30", size="1", name=name))
        add_scrap(self.lead, ScrapIn(material="EMT", trade_size="1", length="60 1/16"))
        taken_plan(self.lead, self.job)
        body = {"terms": {"kerf": "1/2"}, "seconds": 0.3}
        answer = self.api.send("POST", f"/jobs/{self.job.pk}/cutting/plan", body)
        self.assertEqual(answer.status_code, 200)
        self.assertEqual(answer.json()["to_plan"], 0)
        for cut in Cut.objects.filter(run__document__trade_size="1").order_by("order"):
            self.assertEqual(self.act(cut, "cut").status_code, 200)
        add_run(self.lead, self.job.pk, document([], "20", size="1", name="Three"))
        self.assertEqual(self.api.send("POST", f"/jobs/{self.job.pk}/cutting/plan", body).status_code, 200)

    def test_terms_by_which_nothing_can_be_planned_are_not_kept(self):
        planned(self.lead, self.job)
        with (
            mock.patch("server.cutting.planning.make_cut_list", side_effect=AssertionError("a fault of ours")),
            self.assertLogs("crelda.planner", "ERROR"),
        ):
            body = {"terms": {"kerf": "1/4"}, "seconds": 0.2}
            told = self.api.send("POST", f"/jobs/{self.job.pk}/cutting/plan", body).json()
        self.assertEqual((told["solve"]["state"], told["solve"]["says"]), ("failed", FAILED))
        self.assertEqual(Asked.objects.get(job=self.job).terms, {})


class OnTheCrewsTape(CrewTestCase):
    """A crew that measures in millimetres reads, types and is told millimetres; what is kept stays what it is."""

    def setUp(self):
        super().setUp()
        self.scrap = add_scrap(self.lead, ScrapIn(material="EMT", trade_size="3/4", length="80"))[0]
        self.api.send("PUT", "/rack/tape", {"tape": "1 mm"})

    def plan(self, **terms):
        return self.api.send("POST", f"/jobs/{self.job.pk}/cutting/plan", {"terms": terms, "seconds": 0.3})

    def test_lengths_are_read_on_it(self):
        told = self.plan(kerf="3", keep="250").json()
        self.assertEqual(told["tape"], "1 mm")
        self.assertAlmostEqual(told["terms"]["kerf"], 3 / 25.4)
        source = told["proposal"]["found"]["kinds"][0]["choices"][0]["sources"][0]
        for measure in (source["length"], source["cuts"][0]["length"], source["left"]):
            self.assertEqual(measure["reads"], f"{round(measure['inches'] * 25.4)} mm")
        inches = self.api.send("PUT", "/rack/tape", {"tape": "1/16"})
        self.assertEqual(inches.status_code, 200)
        again = self.api.send("GET", f"/jobs/{self.job.pk}/cutting").json()
        self.assertAlmostEqual(again["terms"]["kerf"], 3 / 25.4, msg="it was not typed in inches")
        self.assertEqual(again["proposal"]["found"]["kinds"][0]["choices"][0]["sources"][0]["length"]["reads"], "80")

    def test_a_scrap_reads_as_it_was_measured_and_gives_no_more_than_it_has(self):
        self.scrap.delete()
        add_scrap(self.lead, ScrapIn(material="EMT", trade_size="3/4", length="1816 mm"))
        proposal = self.plan().json()["proposal"]
        source = proposal["found"]["kinds"][0]["choices"][0]["sources"][0]
        self.assertEqual(source["length"]["reads"], "1816 mm")
        took = source["cuts"][-1]["end"]["inches"] + 1 / 16
        self.assertAlmostEqual(source["left"]["inches"], 1816 / 25.4 - took)
        self.api.send("POST", f"/jobs/{self.job.pk}/cutting/take", {"digest": proposal["digest"]})
        self.assertEqual(Bar.objects.get(live=True).length, int(1816 / 25.4 * 16))

    def test_a_piece_that_came_out_wrong_is_measured_on_it(self):
        digest = self.plan().json()["proposal"]["digest"]
        self.assertEqual(
            self.api.send("POST", f"/jobs/{self.job.pk}/cutting/take", {"digest": digest}).status_code, 200
        )
        cut = Cut.objects.get(live=True)
        wrong = {"kind": "wrong", "key": str(uuid4()), "length": "500"}
        self.assertEqual(self.api.send("POST", f"/cuts/{cut.pk}", wrong).status_code, 200)
        spoiled = Scrap.objects.exclude(pk=self.scrap.pk).get()
        self.assertEqual(spoiled.length, round(500 / 25.4 * 16) / 16)

    def test_what_is_as_usual_follows_the_crews_limits(self):
        usual = self.plan().json()["terms"]
        self.plan(**usual)
        self.api.send("PUT", "/limits", {"limits": {"keep": "400"}})
        self.assertAlmostEqual(self.api.send("GET", f"/jobs/{self.job.pk}/cutting").json()["terms"]["keep"], 400 / 25.4)
        self.plan(**{**usual, "keep": 20})
        self.api.send("PUT", "/limits", {"limits": {"keep": "500"}})
        self.assertEqual(self.api.send("GET", f"/jobs/{self.job.pk}/cutting").json()["terms"]["keep"], 20)
