"""The pipes of a rack are runs of the lead's job: written anew, in the same transaction, whenever the lead is."""

from collections.abc import Callable, Mapping
from typing import Any

from conduit.racks import Member, members_of
from server.accounts.limits import limits_of
from server.accounts.models import User
from server.errors import Refused
from server.jobs.models import Run

# What a pipe's run has of its own beside its lead: where it is cut is planned for each by itself.
ITS_OWN = ("couplings", "longest_piece")
Document = dict[str, Any]
# Keeps a run's new document, as a save of its own.
Keep = Callable[[Run, Document], None]


def must_follow(run: Run, document: Mapping[str, Any]) -> None:
    """Raises Refused where a pipe of a rack is changed by itself in what its lead says."""
    if run.rack_lead_id is None:
        return
    if any(document.get(key) != run.document.get(key) for key in {*document, *run.document} - {*ITS_OWN}):
        says = f"This is pipe {run.rack_number} of a rack, and follows its lead."
        raise Refused(f"{says} Change the lead, or let the pipe leave there.")


def follow_lead(user: User, lead: Run, keep: Keep, remove: Callable[[Run], None]) -> None:
    """Bring the runs of a lead's rack up to date: add those that are new, put those that are gone into the bin.

    The lead's row is locked. A pipe that comes back is the run that it was, with all that was done on it.
    """
    if lead.rack_lead_id is not None:
        return
    members = members_of(lead.document, limits_of(lead.crew))
    pipes = {one.number: one for one in members.pipes if one.number > 1 and not one.free} if members else {}
    there = {run.rack_number: run for run in lead.rack_pipes.filter(emptied=False).select_for_update()}
    for number, member in pipes.items():
        run = there.pop(number, None) or Run(
            crew=lead.crew, job=lead.job, rack_lead=lead, rack_number=number, document={}, version=0
        )
        if run.pk and run.binned_at:
            run.take_out()
        document = _document(member, run)
        if document != run.document:
            keep(run, document)
    for run in there.values():
        if not run.binned_at:
            remove(run)


def _document(member: Member, run: Run) -> Document:
    own = {key: run.document[key] for key in ITS_OWN if key in run.document}
    return {**member.raw, **own}
