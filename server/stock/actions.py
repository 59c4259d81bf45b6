"""Every change to the rack: permission first, one transaction, a line in the ledger."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from itertools import islice

from django.db import IntegrityError, transaction
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404
from django.utils import timezone

from conduit.catalogue import said_by
from conduit.cutting import ScrapLine, read_scrap_list
from conduit.tables import STICK
from conduit.units import UnreadableLength, format_length, is_metric, parse_length
from server.accounts.limits import limits_of
from server.accounts.models import Crew, User, name_of
from server.accounts.permissions import Right, require
from server.errors import Conflict, Refused
from server.jobs.models import Job
from server.moments import sensible
from server.sentences import message
from server.stock.keeping import enter, new_tags
from server.stock.models import Entry, Reservation, Scrap, What
from server.stock.schemas import CorrectIn, ListIn, ScrapIn, TapeIn

MOST_ON_RACK = 10_000
MOST_FAULTS_TOLD = 50


def lying(crew: int | None) -> QuerySet[Scrap]:
    """The scraps that lie on a crew's rack now, oldest first."""
    found = Scrap.objects.filter(crew=crew, taken_at=None)
    return found.select_related("crew", "reservation__by", "reservation__job")


def on_rack(user: User) -> QuerySet[Scrap]:
    """The scraps that lie on the rack of the person's crew now, oldest first."""
    place = user.place
    return lying(place.crew_id if place else None)


def add_scrap(user: User, given: ScrapIn) -> list[Scrap]:
    """Put offcuts on the rack. Raises Refused for a length that cannot be kept."""
    crew = require(user, Right.WORK)
    length = _keepable(given.length, given.tape or crew.tape, crew)
    line = ScrapLine(given.trade_size, given.material, length, given.count, given.place)
    return _add(user, [(line, given.end_a, given.end_b, given.since)])


def set_tape(user: User, given: TapeIn) -> TapeIn:
    """Measure the crew's rack with another tape; what lies there keeps its length."""
    crew = require(user, Right.SET_UP)
    crew.tape = given.tape
    crew.save(update_fields=["tape"])
    return given


@dataclass(frozen=True)
class ReadList:
    """What a list of pieces says: what can be put on the rack, by line, and what is wrong with the others."""

    lines: dict[int, ScrapLine]
    faults: dict[int, str]
    tape: str


def read_list(user: User, given: ListIn) -> ReadList:
    """Read a pasted list or CSV as it would be put on the rack; nothing is."""
    crew = require(user, Right.WORK)
    tape = given.tape or crew.tape
    found = read_scrap_list(given.text, tape)
    faults: dict[int, str] = {fault.line: fault.says for fault in found.faults}
    for number, line in found.lines.items():
        try:
            _keepable(line.length, tape, crew)
            _since(line.since)
        except Refused as error:
            faults[number] = f"{next(iter(error.places.values()))}."
    lines = {number: line for number, line in found.lines.items() if number not in faults}
    return ReadList(lines, dict(sorted(faults.items())), tape)


def add_list(user: User, given: ListIn) -> list[Scrap]:
    """Put all on the rack that a pasted list or CSV says. Raises Refused, with the faults by line, or none is added."""
    read = read_list(user, given)
    lines, faults = read.lines.values(), read.faults
    if faults:
        told = {f"line {number}": says for number, says in islice(faults.items(), MOST_FAULTS_TOLD)}
        raise Refused(message("stock.list.unreadable", faults=len(faults), lines=len(faults) + len(lines)), told)
    if not lines:
        raise Refused(message("stock.list.empty"), {"text": message("stock.list.how")})
    return _add(user, [(line, line.end_a, line.end_b, _since(line.since)) for line in lines])


@transaction.atomic
def _add(user: User, lines: Sequence[tuple[ScrapLine, str, str, datetime | None]]) -> list[Scrap]:
    crew = require(user, Right.WORK)
    count = sum(line.count for line, *_ in lines)
    if on_rack(user).count() + count > MOST_ON_RACK:
        raise Refused(message("stock.rack.full", most_on_rack=f"{MOST_ON_RACK:,}"))
    tags = iter(new_tags(crew, count))
    # What a device says whose clock is wrong was not laid there tomorrow.
    now = timezone.now()
    scraps = [
        Scrap(
            crew=crew,
            tag=next(tags),
            material=line.material,
            trade_size=line.trade_size,
            length=line.length,
            place=line.place,
            end_a=end_a,
            end_b=end_b,
            since=min(since or now, now),
        )
        for line, end_a, end_b, since in lines
        for _ in range(line.count)
    ]
    Scrap.objects.bulk_create(scraps, batch_size=500)
    tags_made = [scrap.tag for scrap in scraps]
    made = list(on_rack(user).filter(tag__in=tags_made).order_by("id"))
    entries = [Entry(crew=crew, scrap=one, what=What.ADDED, length=one.length, by=user) for one in made]
    Entry.objects.bulk_create(entries, batch_size=500)
    return made


def _keepable(length: str | float, tape: str, crew: Crew) -> float:
    try:
        inches = parse_length(length, tape)
    except UnreadableLength as error:
        raise Refused(message("stock.length.unusable"), {"length": said_by(error)}) from error
    keep = limits_of(crew).keep
    if inches < keep:
        least = format_length(keep, tape)
        raise Refused(
            message("stock.rack.too_short"),
            {"length": message("stock.length.waste", least=least)},
        )
    if inches > 2 * STICK:
        longest, other = format_length(2 * STICK, tape), '71 1/2"' if is_metric(tape) else "1816mm"
        says = message("stock.length.too_long", longest=longest, other=other)
        raise Refused(message("stock.rack.too_long"), {"length": says})
    return inches


def _since(written: str) -> datetime | None:
    """A date, or a time (in UTC where it does not say). Raises Refused."""
    if not written:
        return None
    try:
        found = datetime.fromisoformat(written)
        return sensible(found if found.tzinfo else found.replace(tzinfo=UTC))
    except ValueError as error:
        says = message("stock.since.no_date", written=written[:40])
        raise Refused(message("stock.since.unusable"), {"since": says}) from error


def take_scrap(user: User, scrap_id: int) -> Scrap:
    """Take a scrap off the rack. Raises Conflict where somebody took or reserved it first."""
    return _take(user, scrap_id, What.TAKEN)


def recycle(user: User, scrap_id: int) -> Scrap:
    """Discard a scrap to the recycler. Raises Conflict where somebody took or reserved it first."""
    return _take(user, scrap_id, What.RECYCLED)


@transaction.atomic
def _take(user: User, scrap_id: int, what: What) -> Scrap:
    scrap = _locked(user, scrap_id)
    scrap.taken_at = timezone.now()
    scrap.save(update_fields=["taken_at"])
    enter(scrap, what, user)
    return scrap


def _locked(user: User, scrap_id: int) -> Scrap:
    """A scrap that lies on the rack for anyone to take, its row locked. Raises Conflict where it does not."""
    require(user, Right.WORK)
    scrap = get_object_or_404(Scrap.objects.for_user(user).select_for_update(), pk=scrap_id)
    if scrap.taken_at is not None:
        raise Conflict(message("stock.tag.gone", tag=scrap.tag))
    if kept := Reservation.objects.filter(scrap=scrap).select_related("by", "job").first():
        raise Conflict(message("stock.tag.reserved", tag=scrap.tag, job=kept.job.name, by=name_of(kept.by)))
    return scrap


@transaction.atomic
def put_back(user: User, scrap_id: int) -> Scrap:
    """Put a scrap back that was taken by mistake. Raises Conflict where it lies there already, or was cut."""
    require(user, Right.WORK)
    scrap = get_object_or_404(Scrap.objects.for_user(user).select_for_update(), pk=scrap_id)
    if scrap.taken_at is None:
        raise Conflict(message("stock.tag.taken", tag=scrap.tag))
    last = scrap.entries.first()
    if last and last.what not in (What.TAKEN, What.RECYCLED):
        raise Conflict(message("stock.tag.cut", tag=scrap.tag))
    scrap.taken_at = None
    scrap.save(update_fields=["taken_at"])
    enter(scrap, What.PUT_BACK, user)
    return scrap


@transaction.atomic
def correct(user: User, scrap_id: int, given: CorrectIn) -> Scrap:
    """Correct what is written of a scrap. Raises Conflict where it is taken or reserved, Refused for a bad length."""
    scrap = _locked(user, scrap_id)
    before = f"was {scrap.trade_size} {scrap.material} {format_length(scrap.length, scrap.crew.tape)}"
    scrap.material, scrap.trade_size, scrap.length = (
        given.material,
        given.trade_size,
        _keepable(given.length, given.tape or scrap.crew.tape, scrap.crew),
    )
    scrap.place, scrap.end_a, scrap.end_b = given.place, given.end_a, given.end_b
    scrap.save()
    enter(scrap, What.CORRECTED, user, before)
    return scrap


@transaction.atomic
def reserve(user: User, tags: Iterable[str], job: Job) -> list[Scrap]:
    """Keep scraps for a job. Raises Conflict where one is taken or reserved; then none is reserved."""
    require(user, Right.WORK)
    wanted = set(tags)
    scraps = list(Scrap.objects.for_user(user).select_for_update().filter(tag__in=wanted).order_by("id"))
    gone = wanted - {scrap.tag for scrap in scraps if scrap.taken_at is None}
    if gone:
        raise Conflict(message("stock.tags.gone", tags=", ".join(sorted(gone)), count=len(gone)))
    for kept in Reservation.objects.filter(scrap__in=scraps).select_related("scrap", "by", "job"):
        raise Conflict(message("stock.tag.reserved", tag=kept.scrap.tag, job=kept.job.name, by=name_of(kept.by)))
    try:
        with transaction.atomic():
            for scrap in scraps:
                Reservation.objects.create(scrap=scrap, job=job, by=user)
    except IntegrityError as error:
        raise Conflict(message("stock.tags.reserved_meanwhile")) from error
    for scrap in scraps:
        enter(scrap, What.RESERVED, user, job.name)
    return scraps
