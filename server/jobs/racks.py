"""The pipes of a rack are runs of the lead's job: written anew, in the same transaction, whenever the lead is."""

from collections.abc import Callable, Mapping
from typing import Any

from django.shortcuts import get_object_or_404
from ninja import Schema

from conduit.answers import Draft
from conduit.as_typed import AsWritten
from conduit.racks import FloorRun, FloorStick, Member, floor_of, members_of
from server.accounts.limits import limits_of
from server.accounts.models import User
from server.errors import Refused
from server.jobs.models import Run, Status
from server.jobs.schemas import Begun
from server.sentences import message


class FloorPipeRun(Schema):
    """Which run a pipe on the floor is, and how far the work on it has come."""

    number: int
    id: int
    name: str
    status: Status
    begun: list[Begun]
    document: Draft


class FloorOut(Schema):
    """A rack on the floor: its sticks side by side, and its runs."""

    lead_id: int
    name: str
    sticks: list[FloorStick]
    runs: list[FloorPipeRun]


# What a pipe's run has of its own beside its lead: where it is cut is planned for each by itself.
ITS_OWN = ("couplings", "longest_piece")
# Keeps a run's new document, as a save of its own.
Keep = Callable[[Run, AsWritten], None]


def floor(user: User, run_id: int) -> FloorOut:
    """A rack as it is saved, on the floor; asked for by its lead, or by one of its pipes."""
    found = Run.objects.for_user(user)
    asked = get_object_or_404(found.select_related("crew"), pk=run_id)
    lead = asked if asked.rack_lead_id is None else get_object_or_404(found, pk=asked.rack_lead_id)
    pipes = [lead, *found.filter(rack_lead=lead).order_by("rack_number")]
    rack = lead.document.get("rack") or {}
    on_floor = [FloorRun(number_of(run), run.document, follows_of(run, rack)) for run in pipes]
    runs = [_on_floor(run) for run in pipes]
    sticks = floor_of(on_floor, limits_of(lead.crew))
    return FloorOut(lead_id=lead.pk, name=lead.name, sticks=sticks, runs=runs)


def _on_floor(run: Run) -> FloorPipeRun:
    number, status = number_of(run), Status(run.status)
    return FloorPipeRun(number=number, id=run.pk, name=run.name, status=status, begun=run.begun, document=run.document)


def number_of(run: Run) -> int:
    """A run's number in its rack; the lead is 1."""
    return run.rack_number or 1


def follows_of(run: Run, rack: Mapping[str, Any]) -> int:
    """How many of the lead's steps a pipe takes."""
    steps = len(run.document.get("steps", []))
    pipes = rack.get("pipes") if isinstance(rack, Mapping) else None
    at = number_of(run) - 2
    pipe = pipes[at] if isinstance(pipes, list) and 0 <= at < len(pipes) else None
    own = pipe.get("leaves") if isinstance(pipe, Mapping) else None
    return min(steps, own) if isinstance(own, int) else steps


def must_follow(run: Run, document: Mapping[str, Any]) -> None:
    """Raises Refused where a pipe of a rack is changed by itself in what its lead says."""
    if run.rack_lead_id is None:
        return
    if any(document.get(key) != run.document.get(key) for key in {*document, *run.document} - {*ITS_OWN}):
        raise Refused(message("jobs.rack.follows_lead", number=number_of(run)))


def follow_lead(user: User, lead: Run, keep: Keep, remove: Callable[[Run], None]) -> None:
    """Bring the runs of a lead's rack up to date: add those that are new, put those that are gone into the bin.

    The lead's row is locked. While it is not finished, or a pipe cannot be read, its runs stay as they were: what is
    typed half is no reason to let go of what was done. A pipe that comes back is the run that it was.
    """
    if lead.rack_lead_id is not None:
        return
    there = {run.rack_number: run for run in lead.rack_pipes.filter(emptied=False).select_for_update()}
    wanted = _wanted(lead.document)
    for number, run in there.items():
        if number not in wanted and not run.binned_at:
            remove(run)
    members = members_of(lead.document, limits_of(lead.crew)) if wanted else None
    if not members or not members.lead.layout or not members.lead.layout.complete:
        return
    for member in members.pipes:
        if member.number not in wanted or member.free:
            continue
        run = there.get(member.number) or Run(
            crew=lead.crew, job=lead.job, rack_lead=lead, rack_number=member.number, document={}, version=0
        )
        if run.pk and run.binned_at:
            run.take_out()
        document = _document(member, run)
        if document != run.document:
            keep(run, document)


def _wanted(document: AsWritten) -> set[int]:
    """The numbers of the pipes that are to be there, readable or not."""
    rack = document.get("rack")
    pipes = rack.get("pipes") if isinstance(rack, Mapping) else None
    there = enumerate(pipes if isinstance(pipes, list) else ())
    return {at + 2 for at, pipe in there if not (isinstance(pipe, Mapping) and pipe.get("left_out") is True)}


def _document(member: Member, run: Run) -> AsWritten:
    own = {key: run.document[key] for key in ITS_OWN if key in run.document}
    return {**member.raw, **own}
