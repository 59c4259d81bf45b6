from datetime import datetime, timedelta
from uuid import uuid4

from django.utils import timezone

from server.accounts.models import Reply
from server.bench.models import ActDone
from server.cutting.models import Proposal
from server.jobs.models import Revision
from server.tests.support import RUN, CrewTestCase, planned
from server.upkeep.tidying import ACTS, DAILY, HOURLY, PROPOSALS, REPLIES, tidy


class Tidying(CrewTestCase):
    def test_what_is_young_stays_and_what_is_old_goes(self):
        planned(self.lead, self.job)
        self.api.send("POST", "/jobs", {"name": "Barn"})
        act = {"key": str(uuid4()), "piece": 1, "kind": "cut", "at": "2026-05-04T07:30:00Z"}
        self.api.send("POST", f"/runs/{self.feed.pk}/bench", {"acts": [act]})
        now, a_bit = timezone.now(), timedelta(minutes=1)
        for model, age in ((Reply, REPLIES), (Proposal, PROPOSALS), (ActDone, ACTS)):
            with self.subTest(model.__name__):
                self.assertEqual(model.objects.count(), 1)
                tidy(now + age - a_bit)
                self.assertEqual(model.objects.count(), 1)
                tidy(now + age + a_bit)
                self.assertEqual(model.objects.count(), 0)

    def test_sessions_end(self):
        self.assertEqual(self.api.send("GET", "/session").status_code, 200)
        self.assertEqual(tidy(timezone.now() + timedelta(days=13))["sessions"], 0)
        self.assertGreater(tidy(timezone.now() + timedelta(days=15))["sessions"], 0)

    def saved(self, *moments):
        """The feed saved at these moments, the first when it was made; the versions that are left a while after."""
        Revision.objects.filter(run=self.feed).delete()
        for version, at in enumerate(moments, 1):
            kept = Revision.objects.create(run=self.feed, version=version, document=RUN)
            Revision.objects.filter(pk=kept.pk).update(saved_at=at)
        type(self.feed).objects.filter(pk=self.feed.pk).update(version=len(moments))

    def left(self, now):
        tidy(now)
        return list(Revision.objects.filter(run=self.feed).values_list("version", flat=True).order_by("version"))

    def test_old_saves_are_thinned_out_by_age(self):
        day = datetime(2026, 3, 2, 7, 0, tzinfo=timezone.get_current_timezone())
        minutes = [0, 10, 20, 50, 70, 80, 200, 1500, 1510]
        self.saved(*(day + timedelta(minutes=count) for count in minutes))
        self.assertEqual(self.left(day + HOURLY), [1, 2, 3, 4, 5, 6, 7, 8, 9])
        self.assertEqual(self.left(day + HOURLY + timedelta(days=2)), [1, 4, 6, 7, 9])
        self.assertEqual(self.left(day + DAILY + timedelta(days=2)), [1, 7, 9])
