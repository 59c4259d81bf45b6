"""Taking a cut plan, and cutting: permission first, one transaction, rows locked, each act done once."""

from uuid import UUID

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404

from conduit.catalogue import Message, joined
from conduit.cutting import (
    IN_AN_INCH,
    CutList,
    CutTerms,
    nearest_sixteenth,
)
from conduit.units import format_length
from server.accounts.changes import NAMED
from server.accounts.history import What, record
from server.accounts.models import Role, User
from server.accounts.permissions import Right, require
from server.accounts.visiting import WHOSE, Whose
from server.bench.models import ActDone
from server.bench.staging import arrange_spare, length_on_own_shoe
from server.cutting import solving
from server.cutting.models import Bar, Cut, Proposal
from server.cutting.planning import Cutting, terms_of
from server.cutting.sawing import called, close_finished, confirm, cut_to, cut_wrong, drop, let_go_of, to_rack, undo
from server.cutting.schemas import PlanIn
from server.cutting.taking import bar_of, laid_length, put_couplings, put_cuts
from server.errors import Conflict, Refused
from server.jobs.models import Job, Run
from server.sentences import message
from server.stock.actions import reserve

PLAN_GONE = message("cutting.plan.gone")
# What each act is called in the crew's history.
CUTS = {"cut": What.CUT, "undo": What.UNDID_CUT, "wrong": What.CUT_WRONG, "to_rack": What.CUT_TO_RACK}
STALE = message("cutting.plan.nothing_reserved")


def plan(user: User, cutting: Cutting, terms: CutTerms, given: PlanIn) -> None:
    """Have a job's cuts planned. Raises Busy, Overloaded; PermissionDenied for a viewer's new plan."""
    if user.membership.role == Role.VIEWER and cutting.proposal(terms):
        return
    require(user, Right.WORK)
    solving.ask(user, cutting, terms, given.seconds)


def stop_planning(user: User, cutting: Cutting) -> None:
    """Stop looking for a better plan; what was found stays."""
    require(user, Right.WORK)
    solving.stop(cutting)


@transaction.atomic
def keep_sold(user: User, cutting: Cutting) -> None:
    """What the job's sticks are sold in, and at what prices, is so for the crew's other jobs too."""
    crew = require(user, Right.SET_UP)
    wanted = terms_of(cutting.job).sold
    mine = [(one.material, one.trade_size) for one in wanted]
    others = [one for one in crew.sold if (one["material"], one["trade_size"]) not in mine]
    crew.sold = [*others, *(one.model_dump(mode="json") for one in wanted)]
    crew.save(update_fields=["sold"])
    cutting.job.crew.sold = crew.sold
    record(crew, user, What.SET_LIMITS, "sticks and their prices")


def pick(user: User, job_id: int, digest: str, picks: dict[str, int]) -> None:
    """Of a plan's choices prefer these, by kind (as “3/4 EMT”), until another plan is found."""
    require(user, Right.WORK)
    job = get_object_or_404(Job.objects.for_user(user), pk=job_id)
    proposal = _kept_plan(job, digest, message("cutting.plan.again"))
    _check_picks(CutList.model_validate(proposal.result), picks)
    Proposal.objects.filter(pk=proposal.pk).update(picks=picks)


def _kept_plan(job: Job, digest: str, then: str) -> Proposal:
    """A plan that was found for the job. Raises Conflict, with what to do `then`, where it is not kept any more."""
    proposal = Proposal.objects.filter(job=job, digest=digest).first()
    if not proposal:
        raise Conflict(joined((PLAN_GONE, then)))
    return proposal


def _check_picks(found: CutList, picks: dict[str, int]) -> None:
    known = {kind.kind.name: len(kind.choices) for kind in found.kinds}
    for name, at in picks.items():
        if not 0 <= at < known.get(name, 0):
            raise Refused(
                message("cutting.choice.none"),
                {f"picks.{name}": message("cutting.terms.out_of_range", most=known.get(name, 0) - 1)},
            )


@transaction.atomic
def take(user: User, job_id: int, digest: str, picks: dict[str, int]) -> None:
    """Take a plan: reserve its scraps, name its sticks and offcuts, put its couplings into the runs.

    `picks`: for a kind (as “3/4 EMT”) which of its choices. Raises Conflict where the job is not as it was planned.
    """
    crew = require(user, Right.WORK)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    # What is changed meanwhile by others waits until this is done.
    runs = {run.pk: run for run in Run.objects.present().select_for_update().filter(job=job)}
    cutting, terms = Cutting(job), terms_of(job)
    now = cutting.digests(terms)
    if now["all"] != digest:
        raise Conflict(joined((_what_changed(job, digest, now), STALE)))
    proposal = _kept_plan(job, digest, STALE)
    found = CutList.model_validate(proposal.result)
    _check_picks(found, picks)
    choices = {kind.kind: kind.picked(picks) for kind in found.kinds}
    drop(cut for bar in cutting.bars for cut in cutting.cuts.get(bar.pk, []) if not cutting.fits(cut))
    wanted = [source.scrap for choice in choices.values() for source in choice.sources if source.scrap]
    mine = {bar.name for bar in cutting.bars}
    scraps = {one.tag: one for one in reserve(user, set(wanted) - mine, job)}
    put_couplings(user, choices.values(), runs, cutting)
    try:
        with transaction.atomic():
            for kind, choice in choices.items():
                for source in choice.sources:
                    scrap = scraps.get(source.scrap or "")
                    bar = bar_of(job, source, scrap, kind, terms)
                    put_cuts(bar, source.cuts, terms.for_kind(kind).kerf)
    except IntegrityError as error:
        raise Conflict(message("cutting.plan.other_taken", stale=STALE)) from error
    close_finished(user, job)
    record(crew, user, What.TOOK_PLAN, job.name)
    for cut in Cut.objects.filter(bar__job=job, bar__live=True, live=True, done_at=None).select_related("run", "bar"):
        spare = cut.length - laid_length(cutting, cut)
        arrange_spare(user, cut.run, cut.piece, format_length(max(0, spare) / IN_AN_INCH))
        own = length_on_own_shoe(user, cut.run, cut.piece)
        if own is not None:
            cut_to(cut, nearest_sixteenth(own))


def _what_changed(job: Job, digest: str, now: dict[str, str]) -> Message:
    """In words, what is not as it was when the plan was made."""
    then = Proposal.objects.filter(job=job, digest=digest).first()
    if not then:
        return PLAN_GONE
    names = {str(run.pk): Message(run.document.get("name") or message("cutting.called.run")) for run in job.runs.all()}
    keys = [key for key in {**then.parts, **now} if key.isdigit() and then.parts.get(key) != now.get(key)]
    changed = [names.get(key, message("cutting.called.run_gone")) for key in sorted(keys)]
    changed += [message("cutting.called.rack")] * (then.parts.get("rack") != now["rack"])
    changed += [message("cutting.called.terms")] * (then.parts.get("terms") != now["terms"])
    return message("cutting.plan.changed", changed=joined(changed, ", ") or message("cutting.called.something"))


@transaction.atomic
def let_go(user: User, job_id: int) -> None:
    """Give up what is reserved and not cut yet; what is cut stays as it is."""
    require(user, Right.WORK)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    let_go_of(user, job, Cut.objects.filter(bar__job=job, live=True))


def whose_cut(cut_id: int) -> Whose:
    """Whose a cut is, and in which job, where that is shared."""
    cuts = Cut.objects.filter(pk=cut_id, bar__job__shared=True, bar__job__binned_at=None)
    return cuts.values_list("crew", "bar__job").first()


WHOSE["cut_id"] = whose_cut
NAMED["cut_id"] = lambda cut_id: [f"job {Cut.objects.values_list('bar__job', flat=True).get(pk=cut_id)}"]


@transaction.atomic
def act(user: User, cut_id: int, kind: str, key: UUID, length: str = "") -> None:
    """Confirm a cut, undo it, or say that it was cut wrong. Raises Conflict, Refused; done once for each key."""
    crew = require(user, Right.WORK)
    cut = get_object_or_404(Cut.objects.for_user(user).select_related("run"), pk=cut_id)
    # The same order of locks everywhere: the run, then the bar, then its cuts.
    run = Run.objects.select_for_update().get(pk=cut.run_id)
    if run.binned_at:
        raise Conflict(message("cutting.cut.run_deleted", piece=called(cut)))
    bar = Bar.objects.select_for_update().select_related("scrap", "offcut").get(pk=cut.bar_id)
    cut = Cut.objects.select_for_update().select_related("done_by").get(pk=cut_id)
    cut.run, cut.bar = run, bar
    if not ActDone.objects.get_or_create(crew=crew, key=key)[1]:
        return
    record(crew, user, CUTS[kind], called(cut))
    match kind:
        case "cut":
            confirm(user, cut, cut.length)
        case "undo":
            undo(user, cut)
        case "wrong":
            cut_wrong(user, cut, length)
        case "to_rack":
            to_rack(user, cut)
