from datetime import UTC, datetime, timedelta

from django.utils import timezone

from conduit.bending import Bencher
from conduit.tests.support import ninety
from server.accounts.limits import set_limits
from server.bench.models import BendMade, Stick
from server.bench.tests.support import NOON, BenchTestCase, act, bent
from server.jobs.actions import add_run, save_run
from server.tests.support import RUN, Api

TWO_BENDS = {**RUN, "name": "Two", "steps": [*RUN["steps"], {"kind": "bend", "at": "30", "turn": "right"}]}


class AtTheBench(BenchTestCase):
    def test_a_stick_comes_as_the_core_lays_it_out(self):
        sheet = self.bench()["sticks"][0]["sheet"]
        self.assertEqual(sheet, Bencher(RUN).sheet(1).model_dump(mode="json"))

    def test_it_is_told_in_the_language_that_is_asked_for(self):
        path, spanish = f"/runs/{self.feed.pk}/bench", "es-MX,es;q=0.9,en;q=0.5"
        english = self.bench()["sticks"][0]["sheet"]["cutting"]
        other = self.api.send("GET", path, language=spanish).json()["sticks"][0]["sheet"]["cutting"]
        self.assertEqual(english, ["Cut 56 3/4, square. Ream both ends."])
        self.assertEqual(other, ["Corte 56 3/4, a escuadra. Escarie los dos extremos."])
        refused = self.api.send("POST", path, {"acts": [bent(9, 90)]}, language=spanish).json()["outcomes"]
        self.assertEqual(refused[0]["says"], "La pieza 1 no tiene curva 9.")
        self.assertEqual(self.bench()["sticks"][0]["sheet"]["cutting"], english, "the next is told in English again")

    def test_status_moves_with_the_work(self):
        self.assertEqual(self.status(), ("laid out", []))
        self.do(act("cut"))
        self.assertEqual(self.status(), ("cut", []))
        self.do(bent(1, 90))
        self.assertEqual(self.status(), ("bent", []))
        self.do(act("fitted"))
        self.assertEqual(self.status(), ("fitted", []))
        self.do(act("unfitted"), act("unbent", bend=1), act("uncut"))
        self.assertEqual(self.status(), ("laid out", []))
        run = add_run(self.lead, self.job.pk, {**RUN, "steps": [{"kind": "bend", "at": "3", "turn": "up"}]})
        self.assertEqual(self.status(run), ("measured", []))

    def test_what_was_looked_at_is_kept_with_name_and_time(self):
        self.do(act("cut"), act("checked", item="plumb"), act("checked", item="pencil"))
        first = {one["item"]: one for one in self.bench()["sticks"][0]["fit_checked"]}
        self.assertEqual(set(first), {"plumb", "pencil"})
        self.assertEqual(first["plumb"]["by"], self.lead.get_full_name() or self.lead.username)
        self.do(act("checked", item="plumb"), act("unchecked", item="pencil"))
        [again] = self.bench()["sticks"][0]["fit_checked"]
        self.assertEqual(again, first["plumb"])
        self.do(act("scrapped"))
        self.assertEqual(self.bench()["sticks"][0]["fit_checked"], [])

    def test_progress_is_told_bend_by_bend(self):
        run = add_run(self.lead, self.job.pk, TWO_BENDS)
        self.do(act("cut"), bent(1, 90), run=run)
        self.assertEqual(self.status(run), ("cut", [("bends", 1, 2)]))

    def long_run(self):
        """A run of two pieces, the second with its bend, cut and bent."""
        run = add_run(self.lead, self.job.pk, {**RUN, "steps": [ninety("100", "up")], "couplings": ["70"]})
        self.do(act("arrange", arranged={"spare": "1"}), act("cut", piece=2), bent(1, 88, piece=2), run=run)
        return run, self.bench(run)["sticks"][1]["sheet"]

    def on_red(self, *more, gain="2 3/4", run=None, piece=1):
        arranged = {"shoe": {"name": "Red", "deduct": "5 1/2", "gain": gain}, **dict(more)}
        return self.do(act("arrange", piece=piece, arranged=arranged), run=run)

    def test_a_stick_takes_a_shoe_of_its_own_and_the_others_keep_the_run_s(self):
        run, _ = self.long_run()
        outcomes, bench = self.on_red(run=run, piece=1)
        self.assertTrue(outcomes[0]["done"])
        self.assertEqual([stick["shoe"]["name"] for stick in bench["sticks"]], ["Red", "Typical 3/4"])
        outcomes, bench = self.on_red(run=run, piece=2)
        self.assertIn("Bends are made on it", outcomes[0]["says"])
        [outcome], bench = self.on_red()
        stick = bench["sticks"][0]
        self.assertEqual((outcome["done"], stick["sheet"]["cut"]["reads"]), (True, "57 1/4"))
        self.do(bent(1, 90))
        self.assertEqual(BendMade.objects.latest("id").shoe_name, "Red")
        self.save(self.feed, steps=[ninety("4", "up")])
        self.assertEqual(self.bench()["sticks"][0]["sheet"]["bends"][0]["made"]["angle"], 90)

    def test_one_that_is_cut_takes_another_shoe_where_it_is_long_enough(self):
        self.do(act("cut"))
        [outcome], _ = self.on_red()
        self.assertFalse(outcome["done"])
        self.assertIn("is cut to 56 3/4; on that shoe 57 1/4 is needed", outcome["says"])
        [outcome], bench = self.on_red(gain="3 3/4")
        sheet = bench["sticks"][0]["sheet"]
        self.assertEqual((outcome["done"], sheet["cut"]["reads"], sheet["spare"]["reads"]), (True, "56 3/4", "1/2"))

    def test_a_run_that_its_own_shoe_cannot_bend_any_more_is_shown_on_the_run_s(self):
        self.on_red()
        self.save(self.feed, steps=[ninety("5", "up")], shoe={"name": "Small", "deduct": 3, "gain": 2})
        stick = self.bench()["sticks"][0]
        self.assertIn("on Red this run cannot be bent.", stick["stale"])
        self.assertEqual((stick["shoe"]["name"], stick["arranged"]["shoe"]), ("Small", None))

    def save(self, run, **changed):
        run.refresh_from_db()
        return save_run(self.lead, run.pk, run.version, {**run.document, **changed})

    def test_a_begun_stick_stays_its_piece_when_a_coupling_is_put_before_it(self):
        run, before = self.long_run()
        self.save(run, couplings=["35", "70"])
        sticks = self.bench(run)["sticks"]
        self.assertEqual([bool(stick["cut_at"]) for stick in sticks], [False, False, True])
        self.assertEqual((sticks[2]["stale"], sticks[2]["sheet"]["end_a"]), ("", "coupling 2"))
        self.assertEqual(sticks[2]["sheet"]["bends"], before["bends"])
        self.assertEqual(self.status(run), ("laid out", [("cut", 1, 3), ("bends", 1, 1)]))
        self.save(run, couplings=["70"])
        self.assertEqual(self.bench(run)["sticks"][1]["sheet"], before)

    def test_a_begun_stick_of_a_run_that_is_laid_out_anew_keeps_what_it_was_and_its_piece(self):
        run, before = self.long_run()
        # The bend lies elsewhere, the piece where it lay.
        self.save(run, couplings=["35", "70"], steps=[ninety("101", "up")], end={"at": 39})
        stick = self.bench(run)["sticks"][2]
        self.assertIn("changed after this stick was started", stick["stale"])
        self.assertEqual(stick["sheet"], {**before, "piece": 3})
        self.assertTrue(self.do(bent(1, 90, piece=3, again=True), run=run)[0][0]["done"])
        self.save(run, couplings=["70"], steps=[ninety("100", "up")], end={"at": "40"})
        self.assertEqual([bool(one["cut_at"]) for one in self.bench(run)["sticks"]], [False, True])

    def test_what_is_sent_twice_is_kept_once(self):
        one = bent(1, 89.8, "20 1/16")
        for _ in range(3):
            outcomes, _ = self.do(one)
            self.assertEqual(outcomes, [{"key": one["key"], "done": True, "says": ""}])
        kept = BendMade.objects.get()
        self.assertEqual((kept.angle, kept.tape, kept.at), (89.8, 20.0625, NOON))

    def test_a_device_whose_clock_is_wrong_is_put_right(self):
        now = timezone.now()
        done, sent = (datetime(1999, 1, 1, 8, minute, tzinfo=UTC) for minute in (0, 30))
        acts = [{**act("cut"), "at": done.isoformat()}, {**bent(1, 90), "at": sent.isoformat()}]
        self.api.send("POST", f"/runs/{self.feed.pk}/bench", {"acts": acts, "sent_at": sent.isoformat()})
        bend = BendMade.objects.get()
        self.assertLess(abs(bend.at - now), timedelta(minutes=1))
        self.assertLess(abs(bend.entered_at - now), timedelta(minutes=1))
        self.assertLess(abs(Stick.objects.get().cut_at - (now - timedelta(minutes=30))), timedelta(minutes=1))

    def test_what_one_did_is_not_taken_as_another_who_is_signed_in(self):
        crew = self.lead.membership.crew_id
        body = {"acts": [act("cut")]}
        theirs = Api(self.bender, shown_for=f"{crew}.{self.lead.pk}")
        refused = theirs.send("POST", f"/runs/{self.feed.pk}/bench", body)
        self.assertEqual((refused.status_code, refused["X-Signed-In-As"]), (403, f"{crew}.{self.bender.pk}"))
        self.assertIn("ben is signed in", refused.json()["detail"])
        self.assertFalse(Stick.objects.filter(cut_by=self.bender).exists())
        own = Api(self.lead, shown_for=f"{crew}.{self.lead.pk}").send("POST", f"/runs/{self.feed.pk}/bench", body)
        self.assertEqual(own.json()["bench"]["sticks"][0]["cut_by"], "lena")

    def test_a_whole_batch_sent_again_changes_nothing(self):
        self.do(act("cut"), bent(1, 99))
        for batch in ([act("unbent", bend=1), bent(1, 98)], [act("scrapped"), act("cut"), bent(1, 90)]):
            _, before = self.do(*batch)
            _, after = self.do(*batch)
            self.assertEqual(after["sticks"], before["sticks"])
        self.assertEqual(after["sticks"][0]["sheet"]["bends"][0]["made"]["angle"], 90)
        self.assertEqual(Stick.objects.count(), 2)

    def test_what_was_refused_can_be_sent_again(self):
        early = act("left", bend=1)
        self.assertFalse(self.do(early)[0][0]["done"])
        self.do(bent(1, 88))
        self.assertTrue(self.do(early)[0][0]["done"])

    def test_a_bend_is_kept_with_what_was_planned_and_what_it_shows_of_the_shoe(self):
        _, bench = self.do(bent(1, 90, "20 1/4", reference="star"))
        made = bench["sticks"][0]["sheet"]["bends"][0]["made"]
        self.assertEqual(made["tape_off"]["reads"], "1/4")
        kept = BendMade.objects.get()
        self.assertEqual((kept.shows, round(kept.figure, 6)), ("deduct", 6.25))
        self.assertEqual((kept.reference, kept.hook, kept.planned_angle), ("star", "A", 90))
        self.assertAlmostEqual(kept.tape_wanted, 20)

    def test_two_people_are_told_of_each_other(self):
        self.do(bent(1, 91), api=Api(self.bender))
        outcomes, _ = self.do(bent(1, 90))
        self.assertFalse(outcomes[0]["done"])
        self.assertIn("Bend 1 is already entered: 91° by ben", outcomes[0]["says"])
        outcomes, bench = self.do(bent(1, 90.2, again=True))
        self.assertTrue(outcomes[0]["done"])
        self.assertEqual(bench["sticks"][0]["sheet"]["bends"][0]["made"]["angle"], 90.2)
        self.assertEqual(BendMade.objects.count(), 2, "the first reading stays in the log")

    def test_one_refused_act_does_not_keep_the_others_back(self):
        outcomes, _ = self.do(bent(7, 90), bent(1, 90), act("cut", piece=4), act("left", bend=3), act("cut"))
        self.assertEqual([one["done"] for one in outcomes], [False, True, False, False, True])
        self.assertIn("no bend 7", outcomes[0]["says"])
        self.assertIn("no piece 4", outcomes[2]["says"])

    def test_a_bend_left_as_it_is_has_the_rest_planned_anew(self):
        run = add_run(self.lead, self.job.pk, {**RUN, "name": "Off", "steps": OFFSET, "end": {"at": "40"}})
        turns = [{"bend": 1, "hook": "A"}, {"bend": 2, "hook": "A"}]
        _, bench = self.do(act("arrange", arranged={"order": turns}), bent(1, 27), run=run)
        self.assertEqual(bench["sticks"][0]["sheet"]["correction"]["advice"], "rebend")
        _, bench = self.do(act("left", bend=1), run=run)
        sheet = bench["sticks"][0]["sheet"]
        self.assertEqual(sheet["correction"]["advice"], "replan")
        self.assertTrue(sheet["bends"][1]["replanned"])

    def test_arranging_is_shared_and_what_cannot_be_read_is_refused(self):
        _, bench = self.do(act("arrange", arranged={"spare": "1 1/2", "marks": "card"}))
        self.assertEqual(bench["sticks"][0]["sheet"]["spare"]["reads"], "1 1/2")
        self.assertEqual(self.bench()["sticks"][0]["arranged"]["marks"], "card")
        for wrong in ({"spare": "1 1/0"}, {"hooks": "up"}, {"order": "no"}, {"zzz": 1}):
            outcomes, bench = self.do(act("arrange", arranged=wrong))
            self.assertFalse(outcomes[0]["done"])
            self.assertEqual(bench["sticks"][0]["sheet"]["spare"]["reads"], "1 1/2")

    def test_bad_input_is_told_at_its_place(self):
        for wrong in ({"angle": 0}, {"angle": 500}, {"key": "x"}, {"at": "soon"}, {"kind": "sung"}):
            answer = self.api.send("POST", f"/runs/{self.feed.pk}/bench", {"acts": [{**bent(1, 90), **wrong}]})
            self.assertEqual(answer.status_code, 422, wrong)
            self.assertTrue(answer.json()["places"])
        outcomes, _ = self.do(bent(1, 90, "7 1/0"))
        self.assertIn("tape “7 1/0”: 1/0: nothing can be divided by 0", outcomes[0]["says"])
        self.assertEqual(BendMade.objects.count(), 0)


OFFSET = [{"kind": "offset", "at": "20", "rise": "6", "angle": 30, "toward": "out", "ref": "starts_at"}]


class Begun(BenchTestCase):
    def test_a_begun_stick_stays_as_it_was_laid_out_and_says_that_the_run_changed(self):
        self.do(act("cut"))
        before = self.bench()["sticks"][0]
        self.assertEqual(before["stale"], "")
        longer = {**RUN, "steps": [{"kind": "bend", "at": "25", "turn": "up"}]}
        save_run(self.lead, self.feed.pk, 1, longer)
        after = self.bench()["sticks"][0]
        self.assertEqual(after["sheet"]["bends"][0]["use"], before["sheet"]["bends"][0]["use"])
        self.assertIn("changed after this stick was started", after["stale"])
        self.assertEqual(self.status(), ("cut", []))
        self.assertEqual(self.behind(), ([1], [1]))
        renamed = {**RUN, "name": "Other name"}
        save_run(self.lead, self.feed.pk, 2, renamed)
        self.assertEqual(self.bench()["sticks"][0]["stale"], "", "a name changes nothing on the pipe")
        self.assertEqual(self.behind(), ([], []))

    def behind(self):
        """As the newest save and the list of jobs tell it."""
        lines = [run for job in self.api.send("GET", "/jobs").json() for run in job["runs"]]
        [line] = [run for run in lines if run["id"] == self.feed.pk]
        return line["behind"], self.api.send("GET", f"/runs/{self.feed.pk}/saved").json()["behind"]

    def test_limits_that_would_lay_it_out_otherwise_are_told_in_the_list_of_jobs(self):
        self.do(act("cut"))
        for written, behind in (({"stick": "40"}, [1]), ({}, [])):
            set_limits(self.lead, written)
            self.assertEqual(self.behind()[1], behind, written)

    def test_a_stick_not_begun_follows_the_run(self):
        save_run(self.lead, self.feed.pk, 1, {**RUN, "steps": [{"kind": "bend", "at": "25", "turn": "up"}]})
        self.assertEqual(self.bench()["sticks"][0]["sheet"]["bends"][0]["tape"]["wanted"]["reads"], "25")

    def test_a_scrapped_stick_begins_anew_and_its_bends_stay_in_the_log(self):
        self.do(act("cut"), bent(1, 99))
        _, bench = self.do(act("scrapped"))
        stick = bench["sticks"][0]
        self.assertFalse(stick["begun"])
        self.assertIsNone(stick["sheet"]["bends"][0]["made"])
        self.assertEqual(self.status(), ("laid out", []))
        self.do(bent(1, 90))
        self.assertEqual(Stick.objects.count(), 2)
        self.assertEqual(self.api.send("GET", "/log").json()["total"], 2)

    def test_a_piece_that_the_run_has_no_more_is_still_shown_once_begun(self):
        long = {**RUN, "name": "Long", "steps": [{"kind": "bend", "at": "100", "turn": "up"}], "end": {"at": "60"}}
        run = add_run(self.lead, self.job.pk, long)
        self.do(act("cut", piece=2), run=run)
        save_run(self.lead, run.pk, 1, {**RUN, "name": "Short"})
        sticks = self.bench(run)["sticks"]
        self.assertEqual([stick["sheet"]["piece"] for stick in sticks], [1, 2])
        self.assertIn("no such piece", sticks[1]["stale"])


class Log(BenchTestCase):
    def setUp(self):
        super().setUp()
        self.do(bent(1, 91.5, "20 1/8"))
        self.do(bent(1, 90.1, again=True), api=Api(self.bender))

    def log(self, **wanted):
        query = "&".join(f"{key}={value}" for key, value in wanted.items())
        return self.api.send("GET", f"/log?{query}").json()

    def test_every_reading_is_in_it_with_plan_and_as_bent(self):
        log = self.log()
        newest, first = log["lines"]
        self.assertEqual(
            (first["angle"], first["off"], first["tape"], first["tape_off"]), ("91.5°", "+1.5°", "20 1/8", "+1/8")
        )
        self.assertTrue(first["again"])
        self.assertEqual((newest["by"], newest["again"], newest["within"]), ("ben", False, True))

    def test_it_is_narrowed_by_run_person_and_shoe(self):
        self.assertEqual(self.log(run=self.feed.pk)["total"], 2)
        self.assertEqual(self.log(run=self.feed.pk + 1)["total"], 0)
        self.assertEqual([line["by"] for line in self.log(person=self.bender.pk)["lines"]], ["ben"])
        shoe = self.log()["shoes"][0]
        self.assertEqual(self.log(shoe=shoe.replace(" ", "%20"))["total"], 2)
        self.assertEqual(self.log(shoe="none")["total"], 0)

    def test_a_slip_of_the_hand_is_not_in_it(self):
        self.do(act("unbent", bend=1))
        self.assertEqual(self.log()["total"], 1)

    def test_as_csv_no_cell_can_be_a_formula(self):
        save_run(self.lead, self.feed.pk, 1, {**RUN, "name": "=HYPERLINK(1);@SUM(2)"})
        lines = self.api.send("GET", "/log.csv").content.decode().splitlines()
        self.assertEqual(len(lines), 3)
        self.assertIn("planned_angle,dial,angle,off", lines[0])
        self.assertIn(",'=HYPERLINK(1);'@SUM(2),", lines[1])
        self.assertIn(",90.1°,+0.1°,", lines[1])
