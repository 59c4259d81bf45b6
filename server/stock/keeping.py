"""What other acts do to scraps: reserved ones let go, cut into, offcuts put on the rack, each with its ledger line.

Called within a transaction of an action that has checked who asks, as `actions` here and the cutting's do.
"""

from django.db import transaction
from django.utils import timezone

from server.accounts.models import Crew, User
from server.errors import Conflict
from server.jobs.models import Job
from server.sentences import message
from server.stock.models import Entry, Reservation, Scrap, What


@transaction.atomic
def new_tags(crew: Crew, count: int) -> list[str]:
    """Tags that nothing had before."""
    crew = Crew.objects.select_for_update().get(pk=crew.pk)
    first = crew.last_tag + 1
    crew.last_tag += count
    crew.save(update_fields=["last_tag"])
    return [f"S{number}" for number in range(first, first + count)]


def enter(scrap: Scrap, what: What, user: User, note: str = "") -> None:
    """A line in the ledger."""
    Entry.objects.create(crew=scrap.crew, scrap=scrap, what=what, length=scrap.length, note=note[:200], by=user)


def let_go(user: User, scrap: Scrap) -> None:
    """End a scrap's reservation."""
    if Reservation.objects.filter(scrap=scrap).delete()[0]:
        enter(scrap, What.LET_GO, user)


def cut_into(user: User, scrap: Scrap, note: str) -> None:
    """A scrap is cut: it is off the rack, its reservation done."""
    Reservation.objects.filter(scrap=scrap).delete()
    scrap.taken_at = timezone.now()
    scrap.save(update_fields=["taken_at"])
    enter(scrap, What.CUT, user, note)


def uncut(user: User, scrap: Scrap, job: Job, note: str) -> None:
    """A cut was a slip of the hand: the scrap lies on the rack as before, reserved."""
    scrap.taken_at = None
    scrap.save(update_fields=["taken_at"])
    Reservation.objects.get_or_create(scrap=scrap, defaults={"job": job, "by": user})
    enter(scrap, What.UNDONE, user, note)


def remove_offcut(user: User, scrap: Scrap) -> None:
    """An offcut that came of a cut that is undone. Raises Conflict where it is gone already."""
    scrap = Scrap.objects.select_for_update().get(pk=scrap.pk)
    if scrap.taken_at is not None or Reservation.objects.filter(scrap=scrap).exists():
        raise Conflict(message("stock.offcut.taken", tag=scrap.tag))
    scrap.taken_at = timezone.now()
    scrap.save(update_fields=["taken_at"])
    enter(scrap, What.UNDONE, user, "the cut was undone")


def put_offcut(user: User, scrap: Scrap, what: What, note: str) -> Scrap:
    """Put an offcut of a cut on the rack; a tag that was given to one that was undone is used again."""
    known = Scrap.objects.for_user(user).filter(tag=scrap.tag).first()
    if known:
        known.length, known.end_a, known.end_b = scrap.length, scrap.end_a, scrap.end_b
        known.taken_at, scrap = None, known
    scrap.save()
    enter(scrap, what, user, note)
    return scrap
