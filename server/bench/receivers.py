"""Begun sticks keep to their pieces: where couplings are added or moved before them, the pieces' numbers change."""

from collections.abc import Callable
from typing import Any

from django.dispatch import receiver

from conduit.bending import laid
from conduit.cutting import number_of
from conduit.plan import Plan
from server.accounts.limits import limits_set
from server.accounts.models import Crew, User
from server.accounts.privacy import erased
from server.bench.meant import begun_span
from server.bench.models import Stick
from server.bench.sheets import Benches, arranged_of, kept_of, own_number
from server.bench.status import follow_status
from server.jobs.actions import run_saved
from server.jobs.models import Run


@receiver(run_saved)
def keep_to_pieces(sender: Any, user: User, run: Run, plan: Callable[[], Plan], **more: Any) -> None:
    """Number begun sticks as the run, as it was just saved, numbers the pieces that they are. Its row is locked."""
    moves = dict[Stick, int]()
    begun = list(run.sticks.filter(live=True, document__isnull=False))
    for stick in begun:
        span = begun_span(stick)
        number = span and number_of(plan(), span)
        if number and number != stick.piece:
            moves[stick] = number
    if moves:
        benches = Benches(run, user)
        _make_way(run, moves, {piece.number for piece in plan().pieces})
        for stick, number in moves.items():
            _move(benches, stick, number)
        follow_status(run, Benches(run, user))
    elif begun:
        _keep_behind(run, user)


@receiver(limits_set)
def note_behind(sender: Any, user: User, crew: Crew, **more: Any) -> None:
    """Sticks that are begun keep their limits; the list of jobs says which the new ones would lay out otherwise."""
    begun = Stick.objects.filter(crew=crew, live=True, document__isnull=False, fitted_at=None)
    runs = Run.objects.select_for_update().filter(pk__in=begun.values("run"), crew=crew).order_by("pk")
    for run in runs.select_related("crew"):
        _keep_behind(run, user)


def _keep_behind(run: Run, user: User) -> None:
    behind = Benches(run, user).behind()
    if behind != run.behind:
        run.behind = behind
        run.save(update_fields=["behind"])


@receiver(erased)
def forget_name(sender: Any, crews: list[int], name: str, neutral: str, **more: Any) -> None:
    """Who looked at something when it was fitted is kept by name."""
    for stick in Stick.objects.filter(crew__in=crews).exclude(fit_checks={}):
        checks = {
            item: {**check, "by": neutral if check["by"] == name else check["by"]}
            for item, check in stick.fit_checks.items()
        }
        if checks != stick.fit_checks:
            stick.fit_checks = checks
            stick.save(update_fields=["fit_checks"])


def _make_way(run: Run, moves: dict[Stick, int], numbers: set[int]) -> None:
    """Sticks whose numbers are wanted: one not begun gives way, a begun one that is no piece any more goes last."""
    last = max([*numbers, *run.sticks.filter(live=True).values_list("piece", flat=True)])
    for stick in run.sticks.filter(live=True, piece__in=moves.values()).exclude(pk__in=[one.pk for one in moves]):
        if stick.document is None:
            stick.live = None
        else:
            last += 1
            stick.number_then, stick.piece = own_number(stick), last
        stick.save()
    run.sticks.filter(pk__in=[stick.pk for stick in moves]).update(live=None)


def _move(benches: Benches, stick: Stick, number: int) -> None:
    """Give a stick its number; where it is laid out the same in the run as it is now, it goes by that from now on."""
    arranged = arranged_of(stick)
    then = benches.sheet_with(kept_of(stick), stick.piece, ())
    stick.number_then, stick.piece = own_number(stick), number
    if laid(benches.now.sheet(number, arranged)) == laid(then):
        stick.document, stick.limits, stick.number_then = benches.run.document, benches.limits.model_dump(), None
    stick.live = True
    stick.save()
