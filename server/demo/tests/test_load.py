from conduit.plan import make_plan
from conduit.racks import make_rack_plan
from server.accounts.models import Crew, User
from server.bench.actions import learned_of
from server.demo.load import load
from server.demo.scene import CEILING_RUNS, OLD_RUNS, RACK_RUN, RUNS, WORN_DEDUCT, WORN_GAIN
from server.jobs.models import Job, Run
from server.shoes.models import Shoe
from server.tests.support import CrewTestCase


class Demo(CrewTestCase):
    def test_loaded_once_and_reset_alone(self):
        self.assertTrue(load(fresh=False))
        self.assertFalse(load(fresh=False))
        demo = Crew.objects.get(is_demo=True)
        Job.objects.filter(crew=demo).update(name="Other")
        self.assertTrue(load(fresh=True))
        count = len([*RUNS, *OLD_RUNS, *CEILING_RUNS, *RACK_RUN["rack"]["pipes"]])
        self.assertEqual(Run.objects.filter(crew__is_demo=True).count(), count)
        self.assertEqual(Crew.objects.filter(is_demo=True).count(), 1)
        self.assertTrue(Run.objects.filter(pk=self.feed.pk).exists(), "other crews are not touched")

    def test_the_worn_shoe_is_told_by_what_was_bent_on_it(self):
        load(fresh=True)
        self.assertEqual(Run.objects.filter(status="fitted").count(), len(OLD_RUNS))
        worn = Shoe.objects.get(name="Old faithful")
        learned = learned_of(User.objects.get(username="dana"), worn.pk)
        self.assertAlmostEqual(learned.deduct.proposed, worn.deduct + WORN_DEDUCT, delta=1 / 32)
        self.assertAlmostEqual(learned.gain.mean, worn.gain + WORN_GAIN, delta=1 / 32)

    def test_every_demo_run_can_be_made(self):
        for document in [*RUNS, *CEILING_RUNS]:
            plan = make_plan(document)
            self.assertTrue(plan.makeable, document["name"])
            self.assertEqual(plan.findings, [])
        rack = make_rack_plan(RACK_RUN)
        self.assertTrue(rack.makeable and rack.gaps_kept)
