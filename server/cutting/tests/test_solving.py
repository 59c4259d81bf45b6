from datetime import timedelta
from unittest import mock

from django.test import override_settings
from django.utils import timezone

from server.cutting import solving
from server.cutting.models import SILENCE, Proposal, Solve, State
from server.jobs.actions import add_job, add_run
from server.tests.support import RUN, Api, CrewTestCase

LATER = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "QUEUES": ["cuts"]}}


class Asked(CrewTestCase):
    """Questions for plans while no planner is at work, and what comes of them when one is."""

    def setUp(self):
        super().setUp()
        later = override_settings(TASKS=LATER)
        later.enable()
        self.addCleanup(later.disable)
        self.queued = []
        enqueue = mock.patch.object(type(solving.make_plan), "enqueue", lambda task, *given: self.queued.append(given))
        enqueue.start()
        self.addCleanup(enqueue.stop)

    def plan(self, job=None, seconds=0.2, **terms):
        body = {"terms": terms, "seconds": seconds}
        return self.api.send("POST", f"/jobs/{(job or self.job).pk}/cutting/plan", body)

    def cutting(self, job=None):
        return self.api.send("GET", f"/jobs/{(job or self.job).pk}/cutting").json()

    def work(self):
        """What a planner does: all that waits."""
        while self.queued:
            solving.make_plan.func(*self.queued.pop(0))

    def test_it_is_answered_at_once_and_asked_once(self):
        for _ in range(2):
            told = self.plan().json()
            self.assertEqual((told["solve"]["state"], told["proposal"]), ("waiting", None))
        self.assertEqual(len(self.queued), 1)
        self.work()
        told = self.cutting()
        self.assertIsNone(told["solve"])
        self.assertEqual(told["proposal"]["found"]["left_out"], [])
        self.assertIsNone(self.plan().json()["solve"])
        self.assertEqual(self.queued, [])

    def test_a_first_plan_is_kept_while_a_better_one_is_looked_for(self):
        self.plan(seconds=2)
        seen = []
        propose = solving.Cutting.propose

        def looking(cutting, *given):
            seen.append([one.seconds for one in Proposal.objects.filter(job=self.job)])
            return propose(cutting, *given)

        with mock.patch.object(solving.Cutting, "propose", looking):
            self.work()
        self.assertEqual(seen, [[], [solving.FIRST]])
        self.assertEqual(self.cutting()["proposal"]["seconds"], 2)

    def test_other_terms_take_the_place_of_what_was_asked(self):
        self.plan()
        self.plan(kerf="1/4")
        self.assertEqual(len(self.queued), 2)
        self.work()
        self.assertEqual(self.cutting()["terms"]["kerf"], 0.25)
        self.assertEqual(Proposal.objects.count(), 1)

    def test_what_was_planned_before_stays_in_sight_and_terms_that_were_tried_before_hold_at_once(self):
        self.plan()
        self.work()
        told = self.plan(kerf="1/4").json()
        self.assertEqual((told["terms"]["kerf"], told["solve"]["state"]), (0.0625, "waiting"))
        self.assertTrue(told["proposal"])
        self.work()
        self.assertEqual(self.cutting()["terms"]["kerf"], 0.25)
        self.assertEqual(self.plan().json()["terms"]["kerf"], 0.0625)
        self.assertEqual(self.cutting()["terms"]["kerf"], 0.0625)

    def test_who_goes_back_to_what_was_planned_is_not_overtaken(self):
        self.plan()
        self.work()
        self.plan(kerf="1/4")
        propose = solving.Cutting.propose

        def back_meanwhile(cutting, *given):
            self.plan()
            return propose(cutting, *given)

        with mock.patch.object(solving, "A_BEAT", 0.0), mock.patch.object(solving.Cutting, "propose", back_meanwhile):
            self.work()
        self.assertEqual(self.cutting()["terms"]["kerf"], 0.0625)

    def test_it_can_be_stopped_and_is_then_not_begun_unasked(self):
        self.plan()
        stopped = self.api.send("POST", f"/jobs/{self.job.pk}/cutting/stop").json()
        self.assertEqual(stopped["solve"]["state"], "stopped")
        self.work()
        self.assertEqual((Proposal.objects.count(), self.cutting()["solve"]["state"]), (0, "stopped"))
        add_run(self.lead, self.job.pk, {**RUN, "name": "More"})
        self.assertIsNone(self.cutting()["solve"])

    def test_stopped_in_the_middle_it_keeps_what_it_has(self):
        self.plan(seconds=10)
        beat = mock.patch.object(solving, "A_BEAT", 0.0)
        real = solving.make_plan.func

        def stopped_once_begun(cutting, *given):
            Solve.objects.update(state=State.STOPPED)
            return propose(cutting, *given)

        propose = solving.Cutting.propose
        with beat, mock.patch.object(solving.Cutting, "propose", stopped_once_begun):
            real(*self.queued.pop(0))
        told = self.cutting()
        self.assertEqual(told["solve"]["state"], "stopped")
        self.assertLess(told["proposal"]["seconds"], solving.FIRST)

    def test_on_a_busy_machine_all_of_the_work_is_done_and_one_is_told_how_far_it_is(self):
        self.plan(seconds=2)
        seen = []
        propose = solving.Cutting.propose

        def slowly(cutting, terms, seconds, clock, before):
            # All the time that was asked for is gone before it begins.
            clock.began -= seconds
            Solve.objects.update(started_at=timezone.now() - timedelta(seconds=60))
            proposal = propose(cutting, terms, seconds, clock, before)
            clock.left()
            seen.append((clock.part_done, self.cutting()["solve"]))
            return proposal

        with mock.patch.object(solving, "A_BEAT", 0.0), mock.patch.object(solving.Cutting, "propose", slowly):
            self.work()
        for part, told in seen:
            self.assertGreater(part, 0)
            self.assertTrue(told["late"])
            self.assertAlmostEqual(told["done"], 2 * part)
        self.assertEqual(self.cutting()["proposal"]["seconds"], 2)

    def test_one_whose_planner_fell_silent_is_asked_anew(self):
        self.plan()
        long_ago = timezone.now() - SILENCE - timedelta(seconds=1)
        Solve.objects.update(state=State.RUNNING, started_at=long_ago, heard_at=long_ago)
        self.assertIsNone(self.cutting()["solve"])
        self.assertEqual(self.plan().json()["solve"]["state"], "waiting")
        # The lost one, should it come back, does nothing.
        lost, anew = self.queued
        self.queued = [lost]
        self.work()
        self.assertEqual(Proposal.objects.count(), 0)
        self.queued = [anew]
        self.work()
        self.assertEqual(Proposal.objects.count(), 1)

    def test_neither_a_crew_nor_all_of_them_ask_without_end(self):
        jobs = [add_job(self.lead, f"Job {number}", "") for number in range(solving.MOST_FOR_A_CREW + 1)]
        for job in jobs:
            add_run(self.lead, job.pk, RUN)
        answers = [self.plan(job).status_code for job in jobs]
        self.assertEqual(answers, [200] * solving.MOST_FOR_A_CREW + [429])
        self.assertEqual(self.cutting(jobs[1])["solve"]["ahead"], 1)
        theirs = add_job(self.stranger, "Theirs", "")
        add_run(self.stranger, theirs.pk, RUN)
        with mock.patch.object(solving, "MOST_WAITING", solving.MOST_FOR_A_CREW):
            body = {"terms": {}, "seconds": 0.2}
            answer = Api(self.stranger).send("POST", f"/jobs/{theirs.pk}/cutting/plan", body)
        self.assertEqual((answer.status_code, answer["Retry-After"]), (503, "30"))
        self.assertIn("nothing is lost", answer.json()["detail"])
