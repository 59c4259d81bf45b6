"""Dates, prices, labour and totals over the API."""

from datetime import timedelta

from django.utils import timezone

from server.accounts.models import Membership
from server.bench.models import BendMade, Stick
from server.jobs.actions import add_job, add_run
from server.tests.support import RUN, Api, CrewTestCase

PRICES = "what,trade size,price\nstick,3/4,14\nconnector,3/4,2.5\nstrap,,0.4\n"


class Takes(CrewTestCase):
    def takes(self, user=None):
        return Api(user or self.lead).send("GET", f"/jobs/{self.job.pk}/takes").json()

    def test_a_job_comes_to_what_a_hand_adds_up(self):
        self.assertEqual(self.api.send("PUT", "/estimate/prices", {"text": PRICES}).json()["prices"], 3)
        self.api.send("PUT", "/estimate/figures", {"bend": 4, "cut": 3, "rate": 60})
        told = self.takes()
        counts = {one["line"]["what"]: one["line"]["count"] for one in told["materials"]["lines"]}
        self.assertEqual((counts["stick"], counts["connector"]), (1, 2))
        self.assertAlmostEqual(told["materials"]["total"], 14 + 2 * 2.5 + counts["strap"] * 0.4)
        without = [one for one in told["materials"]["lines"] if one["line"]["what"] == "box"]
        self.assertEqual(told["materials"]["unpriced"], len(without))
        self.assertAlmostEqual(told["labour"]["minutes"], 4 + 3)
        self.assertAlmostEqual(told["total"], told["materials"]["total"] + 7)
        self.assertLess(told["labour"]["least"], 7)
        self.assertGreater(told["labour"]["most"], 7)

    def test_several_jobs_come_to_the_sum_of_each(self):
        self.api.send("PUT", "/estimate/figures", {"bend": 4})
        other = add_job(self.lead, "Yard", "")
        add_run(self.lead, other.pk, RUN)
        told = self.api.send("GET", f"/estimate?job={self.job.pk}&job={other.pk}").json()
        self.assertAlmostEqual(told["labour"]["minutes"], sum(one["labour"]["minutes"] for one in told["jobs"]))
        self.assertEqual(len(told["jobs"]), 2)
        self.assertEqual(Api(self.stranger).send("GET", f"/estimate?job={self.job.pk}").status_code, 404)

    def test_a_price_list_with_a_line_that_cannot_be_read_changes_nothing(self):
        self.api.send("PUT", "/estimate/prices", {"text": PRICES})
        refused = self.api.send("PUT", "/estimate/prices", {"text": PRICES + "strap,,many\n"})
        self.assertEqual((refused.status_code, list(refused.json()["places"])), (422, ["line.5"]))
        self.assertIn("line 5", refused.json()["detail"])
        self.assertIn('stick,"3/4""",,,14', self.api.send("GET", "/estimate/prices.csv").content.decode())
        again = self.api.send(
            "PUT", "/estimate/prices", {"text": self.api.send("GET", "/estimate/prices.csv").content.decode()}
        )
        self.assertEqual(again.json()["prices"], 3, "as it was given out it is read")

    def test_what_cannot_be_made_is_left_out_by_name(self):
        add_run(self.lead, self.job.pk, {**RUN, "name": "Too near", "end": {"at": "1"}})
        self.assertEqual(self.takes()["left_out"], ["Too near"])

    def test_a_bend_is_proposed_as_long_as_the_log_has_it(self):
        stick = Stick.objects.create(crew=self.job.crew, run=self.feed, piece=1)
        made = {"shoe_name": "", "mark": 1, "reference": "arrow", "hook": "A", "where": "floor", "planned_angle": 30}
        for number in range(15):
            at = timezone.now() - timedelta(days=1) + timedelta(minutes=3.5 * number)
            BendMade.objects.create(
                crew=self.job.crew,
                stick=stick,
                bend=number,
                dial=30,
                angle=30,
                within=True,
                by=self.bender,
                at=at,
                **made,
            )
        proposed = self.api.send("GET", "/estimate/figures").json()["proposed"]
        self.assertEqual([(one["work"], one["minutes"], one["times"]) for one in proposed], [("bend", 3.5, 14)])


class Schedule(CrewTestCase):
    def schedule(self, **said):
        return self.api.send("PUT", f"/jobs/{self.job.pk}/schedule", said)

    def test_several_runs_are_set_at_once_and_what_is_not_said_stays(self):
        other = add_run(self.lead, self.job.pk, RUN)
        ben = Membership.objects.get(user=self.bender)
        self.schedule(runs=[self.feed.pk, other.pk], member_id=ben.pk, due="2026-12-04")
        told = self.schedule(runs=[other.pk], member_id=None).json()["runs"]
        self.assertEqual(
            [(one["assigned"] and one["assigned"]["name"], one["due"]) for one in told],
            [("ben", "2026-12-04"), (None, "2026-12-04")],
        )
        self.assertEqual(self.schedule(runs=[self.feed.pk, 0], due=None).status_code, 422)
        self.assertEqual(self.api.send("GET", "/jobs").json()[0]["runs"][0]["due"], "2026-12-04", "all of them or none")

    def test_what_is_due_and_does_not_hang_is_late(self):
        yesterday = timezone.localdate() - timedelta(days=1)
        self.schedule(runs=[self.feed.pk], due=f"{yesterday}")
        path = f"/jobs/{self.job.pk}/takes"
        run = self.api.send("GET", path).json()["runs"][0]
        self.assertEqual((run["late"], run["begun_at"], run["fitted_at"]), (True, None, None))
        now = timezone.now()
        Stick.objects.create(crew=self.job.crew, run=self.feed, piece=1, cut_at=now - timedelta(hours=3), fitted_at=now)
        self.feed.status = "fitted"
        self.feed.save()
        run = self.api.send("GET", path).json()["runs"][0]
        self.assertEqual((run["late"], run["begun_at"] is None, run["fitted_at"] is None), (False, False, False))
