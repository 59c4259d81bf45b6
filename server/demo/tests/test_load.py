from conduit.plan import make_plan
from server.accounts.models import Crew
from server.demo.load import load
from server.demo.scene import RUNS
from server.jobs.models import Job, Run
from server.tests.support import CrewTestCase


class Demo(CrewTestCase):
    def test_loaded_once_and_reset_alone(self):
        self.assertTrue(load(fresh=False))
        self.assertFalse(load(fresh=False))
        demo = Crew.objects.get(is_demo=True)
        Job.objects.filter(crew=demo).delete()
        self.assertTrue(load(fresh=True))
        self.assertEqual(Run.objects.filter(crew__is_demo=True).count(), len(RUNS))
        self.assertEqual(Crew.objects.filter(is_demo=True).count(), 1)
        self.assertTrue(Run.objects.filter(pk=self.feed.pk).exists(), "other crews are not touched")

    def test_every_demo_run_can_be_made(self):
        for document in RUNS:
            plan = make_plan(document)
            self.assertTrue(plan.makeable, document["name"])
            self.assertEqual(plan.problems, [])
