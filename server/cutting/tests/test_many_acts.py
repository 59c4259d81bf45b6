from random import Random
from uuid import uuid4

from conduit.tests.support import document, ninety
from server.bench.models import Stick
from server.cutting.models import Bar, Cut
from server.jobs.actions import add_run
from server.stock.actions import add_scrap
from server.stock.models import Reservation, Scrap
from server.stock.schemas import ScrapIn
from server.tests.support import CrewTestCase, taken_plan


class ManyActs(CrewTestCase):
    """Whatever is cut, undone, cut wrong and planned again in whatever order: no pipe comes from nowhere."""

    def setUp(self):
        super().setUp()
        for name, back in (("Second", "16"), ("Third", "24"), ("Fourth", "100")):
            add_run(self.lead, self.job.pk, document([ninety(back, "up")], "30", name=name))
        for length in ("118", "75", "40"):
            add_scrap(self.lead, ScrapIn(material="EMT", trade_size="3/4", length=length))
        taken_plan(self.lead, self.job)

    def act(self, luck):
        cut = luck.choice(Cut.objects.filter(live=True))
        kind = luck.choice(["cut", "cut", "undo", "wrong"])
        length = str(max(16, cut.length + luck.choice([-400, -20, 16])) / 16) if kind == "wrong" else ""
        body = {"kind": kind, "key": str(uuid4()), "length": length}
        return self.api.send("POST", f"/cuts/{cut.pk}", body).status_code

    def check(self):
        for bar in Bar.objects.all():
            done = bar.cuts.filter(live=True).exclude(done_at=None)
            gone = bar.spoiled + sum((cut.came_out or cut.length) + cut.kerf for cut in done)
            # The last kerf may run out of the bar, no more than that.
            self.assertLessEqual(gone - 1, bar.length)
            self.assertEqual(bar.left, max(0, bar.length - gone))
            waiting = bar.cuts.filter(live=True, done_at=None)
            needed = sum(cut.length for cut in waiting) + len(waiting) - 1
            self.assertTrue(not waiting or needed <= bar.left, "what is still to be cut is there")
            if bar.offcut:
                self.assertEqual((bar.offcut.length * 16, len(waiting)), (bar.left, 0))
            if bar.scrap:
                begun = bool(done) or bar.spoiled > 0
                self.assertEqual(Scrap.objects.get(pk=bar.scrap_id).taken_at is not None, begun)
                kept = Reservation.objects.filter(scrap=bar.scrap).exists()
                self.assertEqual(kept, bool(waiting) and not begun)
        for cut in Cut.objects.filter(live=True):
            stick = Stick.objects.filter(run=cut.run, piece=cut.piece, live=True).first()
            self.assertEqual(bool(stick and stick.cut_at), cut.done_at is not None)

    def test_whatever_is_done(self):
        luck, answers = Random(5), []
        for turn in range(60):
            answers.append(self.act(luck))
            self.assertIn(answers[-1], (200, 409))
            self.check()
            if turn % 12 == 11:
                taken_plan(self.lead, self.job)
                self.check()
        self.assertGreater(answers.count(200), 10)
