"""The log: every bend made, planned and as bent; narrowed by run, person and shoe; as CSV."""

from dataclasses import dataclass

from django.db.models import Q, QuerySet
from django.db.models.fields.json import KT

from conduit.units import INCH_TAPE, format_angle, format_length, format_off
from server.accounts.models import User, name_of
from server.bench.models import BendMade
from server.bench.schemas import Choice, LogLine, LogOut


@dataclass(frozen=True)
class Narrowed:
    """What of the log is wanted; None: all."""

    run: int | None = None
    person: int | None = None
    shoe: str | None = None


def bends_of(user: User, wanted: Narrowed) -> "QuerySet[BendMade]":
    """The bends in the log, newest first."""
    bends = BendMade.objects.for_user(user).filter(taken_back=False).select_related("stick__run__job", "by", "shoe")
    if wanted.run is not None:
        bends = bends.filter(stick__run_id=wanted.run)
    if wanted.person is not None:
        bends = bends.filter(by_id=wanted.person)
    if wanted.shoe is not None:
        bends = bends.filter(Q(shoe__name=wanted.shoe) | Q(shoe=None, shoe_name=wanted.shoe))
    return bends.order_by("-at", "-id")


def line_of(one: BendMade) -> LogLine:
    """A bend as a line of the log."""
    run = one.stick.run
    taped = one.tape is not None and one.tape_wanted is not None
    return LogLine(
        id=one.pk,
        at=one.at,
        entered_at=one.entered_at,
        by=name_of(one.by),
        run_id=run.pk,
        run=str(run.document.get("name", "")),
        job=run.job.name,
        piece=one.stick.piece,
        bend=one.bend,
        again=not one.live,
        shoe=_shoe_of(one),
        mark=format_length(one.mark),
        reference=one.reference,
        hook=one.hook,
        where=one.where,  # type: ignore[arg-type]
        planned_angle=format_angle(one.planned_angle),
        dial=format_angle(one.dial),
        angle=f"{one.angle:.1f}°",
        turned=format_off(one.turned) if one.turned else "",
        off=format_off(one.angle - one.planned_angle),
        tape="" if one.tape is None else format_length(one.tape),
        tape_wanted="" if one.tape_wanted is None else format_length(one.tape_wanted),
        tape_off=_signed(one.tape - one.tape_wanted) if taped else "",  # type: ignore[operator]
        within=one.within,
        out_by=one.out_by,  # type: ignore[arg-type]
        advice=one.advice,  # type: ignore[arg-type]
    )


def _shoe_of(one: BendMade) -> str:
    """As the shoe is called now, or was when it was still in the list."""
    return one.shoe.name if one.shoe else one.shoe_name


def _signed(inches: float) -> str:
    return f"{'+' if inches > 0 and INCH_TAPE.tells(inches) else ''}{format_length(inches)}"


def log_of(user: User, wanted: Narrowed, most: int) -> LogOut:
    """The log, newest first, and what it can be narrowed to: names alone, however long it is."""
    bends = bends_of(user, wanted)
    every = bends_of(user, Narrowed()).order_by()
    runs = every.values_list("stick__run_id", KT("stick__run__document__name")).distinct()
    shoes = every.values_list("shoe__name", "shoe_name").distinct()
    people = User.objects.filter(pk__in=every.values("by_id"))
    return LogOut(
        lines=[line_of(one) for one in bends[:most]],
        total=bends.count(),
        runs=_listed({key: name or "" for key, name in runs}),
        people=_listed({one.pk: name_of(one) for one in people}),
        shoes=sorted({now or then for now, then in shoes}),
    )


def _listed(names: dict[int, str]) -> list[Choice]:
    return [Choice(id=key, name=name) for key, name in sorted(names.items(), key=lambda pair: pair[1])]


COLUMNS = (
    *("at", "entered_at", "by", "job", "run", "piece", "bend", "again", "shoe", "mark", "reference", "hook", "where"),
    *("planned_angle", "dial", "angle", "off", "turned", "tape", "tape_wanted", "tape_off"),
    *("within", "out_by", "advice"),
)
