"""What is done at the bench, to a run or to a job is so in the cut plan, the rack and its ledger: same transaction."""

from collections.abc import Callable, Iterable
from typing import Any

from django.db.models.signals import post_save
from django.dispatch import receiver

from conduit.cutting import nearest_sixteenth, number_of
from conduit.plan import Plan
from conduit.units import INCH_TAPE
from server.accounts.limits import limits_of
from server.accounts.models import User
from server.bench.staging import cut_length_changed, stage_done
from server.cutting.changed import since_cut
from server.cutting.models import Bar, Cut
from server.cutting.sawing import confirm_at_bench, cut_from_scrap, cut_to, let_go_of, take_back_at_bench
from server.jobs.actions import binned, run_saved
from server.jobs.models import Job, Run
from server.jobs.plans import plan_of


@receiver(stage_done)
def follow(sender: Any, user: User, run: Run, piece: int, kind: str, **more: Any) -> None:
    """A piece that was cut, taken back or scrapped at the bench. The run's row is locked by the bench."""
    planned = Cut.objects.filter(run=run, piece=piece, live=True).first()
    if not planned and kind == "cut" and more.get("source"):
        cut_from_scrap(user, run, piece, more["source"], more["length"])
        return
    if not planned or kind not in ("cut", "uncut", "scrapped"):
        return
    bar = Bar.objects.select_for_update().select_related("scrap", "offcut").get(pk=planned.bar_id)
    cut = Cut.objects.select_for_update().get(pk=planned.pk)
    cut.run, cut.bar = run, bar
    if kind == "cut" and cut.done_at is None:
        confirm_at_bench(user, cut)
    elif kind == "uncut" and cut.done_at is not None:
        take_back_at_bench(user, cut)
    elif kind == "scrapped":
        # It is to be cut again, from whatever the next plan says.
        cut.live = None
        cut.save(update_fields=["live"])


@receiver(cut_length_changed)
def follow_length(sender: Any, run: Run, piece: int, length: float, **more: Any) -> None:
    """A piece that is to be cut from a bar is another length now: bent on another shoe, or with more to spare."""
    planned = Cut.objects.filter(run=run, piece=piece, live=True, done_at=None).first()
    if planned:
        bar = Bar.objects.select_for_update().get(pk=planned.bar_id)
        cut = Cut.objects.select_for_update().get(pk=planned.pk)
        cut.run, cut.bar = run, bar
        cut_to(cut, nearest_sixteenth(length))


@receiver(run_saved)
def number_cuts(sender: Any, run: Run, plan: Callable[[], Plan], **more: Any) -> None:
    """Pieces that are to be cut, or were, are called as the run, as it was just saved, numbers them."""
    cuts = list(Cut.objects.filter(run=run, live=True))
    for cut in cuts:
        number = number_of(plan(), (cut.start, cut.end))
        if number and number != cut.piece:
            cut.piece = number
            cut.save(update_fields=["piece"])
    _note_reserved_behind(run, plan, cuts)


@receiver(post_save, sender=Cut)
def follow_reservation(sender: Any, instance: Cut, **more: Any) -> None:
    """A piece that was told in the list of jobs as reserved at another length is cut now, let go of or planned anew."""
    run = instance.run
    if instance.piece in run.reserved_behind:
        live = Cut.objects.filter(run=run, live=True)
        _note_reserved_behind(run, lambda: plan_of(run.document, limits_of(run.crew)), live)


def _note_reserved_behind(run: Run, plan: Callable[[], Plan], live: Iterable[Cut]) -> None:
    """Keep at the run which of its pieces are reserved at another length than it has now, for the list of jobs."""
    behind = sorted(cut.piece for cut in live if cut.done_at is None and since_cut(plan(), cut, INCH_TAPE))
    if behind != run.reserved_behind:
        run.reserved_behind = behind
        run.save(update_fields=["reserved_behind"])


@receiver(binned)
def let_go_of_deleted(sender: Any, user: User, job: Job, run: Run | None, **more: Any) -> None:
    """What was reserved for a job or a run that is deleted is free again; what is cut stays so."""
    cuts = Cut.objects.filter(bar__job=job, live=True)
    let_go_of(user, job, cuts if run is None else cuts.filter(run=run))
