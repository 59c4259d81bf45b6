"""Every change to the rack: permission first, one transaction, a line in the ledger."""

from django.db import transaction
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404
from django.utils import timezone

from conduit.tables import DEFAULT_RULES, STICK, Material, TradeSize
from conduit.units import UnreadableLength, format_length, parse_length
from server.accounts.models import Crew, User
from server.accounts.permissions import require_writer
from server.errors import Conflict, Refused
from server.stock.models import Entry, Scrap, What


def on_rack(user: User) -> QuerySet[Scrap]:
    """The scraps that lie on the crew's rack now, oldest first."""
    return Scrap.objects.for_user(user).filter(taken_at=None)


def add_scrap(user: User, material: Material, trade_size: TradeSize, length: str, count: int = 1) -> list[Scrap]:
    """Put `count` offcuts on the rack. Raises Refused for a length that cannot be kept."""
    crew = require_writer(user)
    inches = _keepable(length)
    with transaction.atomic():
        crew = Crew.objects.select_for_update().get(pk=crew.pk)
        scraps = []
        for _ in range(count):
            crew.last_tag += 1
            scrap = Scrap(crew=crew, tag=f"S{crew.last_tag}", material=material, trade_size=trade_size, length=inches)
            scrap.save()
            _enter(scrap, What.ADDED, user)
            scraps.append(scrap)
        crew.save(update_fields=["last_tag"])
    return scraps


def _keepable(length: str) -> float:
    try:
        inches = parse_length(length)
    except UnreadableLength as error:
        raise Refused("That length cannot be used.", {"length": str(error)}) from error
    if inches < DEFAULT_RULES.keep:
        least = format_length(DEFAULT_RULES.keep)
        raise Refused("Too short for the rack.", {"length": f"pieces under {least} are waste; recycle it"})
    if inches > 2 * STICK:
        raise Refused("Too long for the rack.", {"length": f"no stick is longer than {format_length(2 * STICK)}"})
    return inches


def take_scrap(user: User, scrap_id: int) -> Scrap:
    """Take a scrap off the rack. Raises Conflict where somebody took it first."""
    return _move(user, scrap_id, What.TAKEN)


def put_back(user: User, scrap_id: int) -> Scrap:
    """Put a scrap back that was taken by mistake. Raises Conflict where it lies there already."""
    return _move(user, scrap_id, What.PUT_BACK)


@transaction.atomic
def _move(user: User, scrap_id: int, what: What) -> Scrap:
    require_writer(user)
    scrap = get_object_or_404(Scrap.objects.for_user(user).select_for_update(), pk=scrap_id)
    taking = what == What.TAKEN
    if (scrap.taken_at is None) != taking:
        raise Conflict(f"{scrap.tag} is {'no longer' if taking else 'already'} on the rack.")
    scrap.taken_at = timezone.now() if taking else None
    scrap.save(update_fields=["taken_at"])
    _enter(scrap, what, user)
    return scrap


def _enter(scrap: Scrap, what: What, user: User) -> None:
    Entry.objects.create(crew=scrap.crew, scrap=scrap, what=what, by=user)
