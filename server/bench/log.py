"""The log: every bend made, planned and as bent; narrowed by run, person and shoe; as CSV."""

from dataclasses import dataclass
from typing import Any

from django.db.models import Q, QuerySet
from django.db.models.fields.json import KT

from conduit.units import INCH_TAPE, format_angle, format_length, format_off
from server.accounts.models import User, name_of
from server.bench.models import BendMade


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


def line_of(one: BendMade) -> dict[str, Any]:
    """A bend as a line of the log."""
    run = one.stick.run
    taped = one.tape is not None and one.tape_wanted is not None
    return {
        "id": one.pk,
        "at": one.at,
        "entered_at": one.entered_at or "",
        "by": name_of(one.by),
        "run_id": run.pk,
        "run": str(run.document.get("name", "")),
        "job": run.job.name,
        "piece": one.stick.piece,
        "bend": one.bend,
        "again": not one.live,
        "shoe": _shoe_of(one),
        "mark": format_length(one.mark),
        "reference": one.reference,
        "hook": one.hook,
        "where": one.where,
        "planned_angle": format_angle(one.planned_angle),
        "dial": format_angle(one.dial),
        "angle": f"{one.angle:.1f}°",
        "turned": format_off(one.turned) if one.turned else "",
        "off": format_off(one.angle - one.planned_angle),
        "tape": "" if one.tape is None else format_length(one.tape),
        "tape_wanted": "" if one.tape_wanted is None else format_length(one.tape_wanted),
        "tape_off": _signed(one.tape - one.tape_wanted) if taped else "",  # type: ignore[operator]
        "within": one.within,
        "out_by": one.out_by,
        "advice": one.advice,
    }


def _shoe_of(one: BendMade) -> str:
    """As the shoe is called now, or was when it was still in the list."""
    return one.shoe.name if one.shoe else one.shoe_name


def _signed(inches: float) -> str:
    return f"{'+' if inches > 0 and INCH_TAPE.tells(inches) else ''}{format_length(inches)}"


def choices_of(user: User) -> dict[str, Any]:
    """What the log can be narrowed to: names alone, however long it is."""
    bends = bends_of(user, Narrowed()).order_by()
    runs = bends.values_list("stick__run_id", KT("stick__run__document__name")).distinct()
    shoes = bends.values_list("shoe__name", "shoe_name").distinct()
    people = User.objects.filter(pk__in=bends.values("by_id"))
    return {
        "runs": _listed({key: name or "" for key, name in runs}),
        "people": _listed({one.pk: name_of(one) for one in people}),
        "shoes": sorted({now or then for now, then in shoes}),
    }


def _listed(names: dict[int, str]) -> list[dict[str, Any]]:
    return [{"id": key, "name": name} for key, name in sorted(names.items(), key=lambda pair: pair[1])]


COLUMNS = (
    *("at", "entered_at", "by", "job", "run", "piece", "bend", "again", "shoe", "mark", "reference", "hook", "where"),
    *("planned_angle", "dial", "angle", "off", "turned", "tape", "tape_wanted", "tape_off"),
    *("within", "out_by", "advice"),
)
