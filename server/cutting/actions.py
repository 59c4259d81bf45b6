"""Taking a cut plan, and cutting: permission first, one transaction, rows locked, each act done once."""

from collections.abc import Iterable
from uuid import UUID

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from conduit.cutting import (
    IN_AN_INCH,
    CutChoice,
    CutList,
    CutTerms,
    Kind,
    ListedCut,
    ListedSource,
    gap_at,
    lies,
    nearest_sixteenth,
    whole_sixteenths,
)
from conduit.document import tape_in
from conduit.tables import STICK
from conduit.units import UnreadableLength, format_length, parse_length, write_length
from server.accounts.models import Role, User, name_of
from server.accounts.permissions import require_writer
from server.bench.actions import arrange_spare, mark_cut, mark_uncut
from server.bench.models import ActDone
from server.cutting.models import Asked, Bar, Cut, Proposal
from server.cutting.planning import Cutting, terms_of
from server.cutting.schemas import PlanIn
from server.errors import Conflict, Refused
from server.jobs.actions import save_run
from server.jobs.models import Job, Run
from server.stock import actions as stock
from server.stock.models import Ends, Scrap, What

PLAN_GONE = "That plan is not kept any more."
STALE = "Plan again; nothing was reserved or cut."


def plan(user: User, cutting: Cutting, terms: CutTerms, given: PlanIn) -> None:
    """Have a job's cuts planned, and keep by what terms. Raises Busy; PermissionDenied for a viewer's new plan."""
    if user.membership.role == Role.VIEWER and cutting.proposal(terms):
        return
    require_writer(user)
    cutting.propose(terms, given.seconds)
    # Not before: terms by which nothing can be planned would stand in the way of every later plan.
    Asked.objects.update_or_create(job=cutting.job, defaults={"terms": given.terms})


def pick(user: User, job_id: int, digest: str, picks: dict[str, int]) -> None:
    """Of a plan's choices prefer these, by kind (as “3/4 EMT”), until another plan is found."""
    require_writer(user)
    job = get_object_or_404(Job.objects.for_user(user), pk=job_id)
    proposal = _kept_plan(job, digest, "Plan again.")
    _check_picks(CutList.model_validate(proposal.result), picks)
    Proposal.objects.filter(pk=proposal.pk).update(picks=picks)


def _kept_plan(job: Job, digest: str, then: str) -> Proposal:
    """A plan that was found for the job. Raises Conflict, with what to do `then`, where it is not kept any more."""
    proposal = Proposal.objects.filter(job=job, digest=digest).first()
    if not proposal:
        raise Conflict(f"{PLAN_GONE} {then}")
    return proposal


def _check_picks(found: CutList, picks: dict[str, int]) -> None:
    known = {kind.kind.name: len(kind.choices) for kind in found.kinds}
    for name, at in picks.items():
        if not 0 <= at < known.get(name, 0):
            raise Refused("There is no such choice.", {f"picks.{name}": f"choose 0 to {known.get(name, 0) - 1}"})


@transaction.atomic
def take(user: User, job_id: int, digest: str, picks: dict[str, int]) -> None:
    """Take a plan: reserve its scraps, name its sticks and offcuts, put its couplings into the runs.

    `picks`: for a kind (as “3/4 EMT”) which of its choices. Raises Conflict where the job is not as it was planned.
    """
    require_writer(user)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    # What is changed meanwhile by others waits until this is done.
    runs = {run.pk: run for run in Run.objects.present().select_for_update().filter(job=job)}
    cutting, terms = Cutting(user, job), terms_of(job)
    now = cutting.digests(terms)
    if now["all"] != digest:
        raise Conflict(f"{_what_changed(job, digest, now)} {STALE}")
    proposal = _kept_plan(job, digest, STALE)
    found = CutList.model_validate(proposal.result)
    _check_picks(found, picks)
    choices = {kind.kind: kind.picked(picks) for kind in found.kinds}
    _drop(cut for bar in cutting.bars for cut in cutting.cuts.get(bar.pk, []) if not cutting.fits(cut))
    wanted = [source.scrap for choice in choices.values() for source in choice.sources if source.scrap]
    mine = {bar.name for bar in cutting.bars}
    scraps = {one.tag: one for one in stock.reserve(user, set(wanted) - mine, job)}
    _put_couplings(user, choices.values(), runs, cutting)
    try:
        with transaction.atomic():
            for kind, choice in choices.items():
                for source in choice.sources:
                    scrap = scraps.get(source.scrap or "")
                    bar = _bar_of(job, source, scrap, kind, terms)
                    _put_cuts(bar, source.cuts, terms.for_kind(kind).kerf)
    except IntegrityError as error:
        raise Conflict(f"Somebody took another plan for these pieces just now. {STALE}") from error
    _close_finished(user, job)
    for cut in Cut.objects.filter(bar__job=job, bar__live=True, live=True, done_at=None).select_related("run"):
        spare = cut.length - _laid_length(cutting, cut)
        arrange_spare(user, cut.run, cut.piece, format_length(max(0, spare) / IN_AN_INCH))


def _laid_length(cutting: Cutting, cut: Cut) -> int:
    return cut.end - cut.start - (gap_at(cutting.plan_of(cut.run), cut.start) if cut.start else 0)


def _what_changed(job: Job, digest: str, now: dict[str, str]) -> str:
    """In words, what is not as it was when the plan was made."""
    then = Proposal.objects.filter(job=job, digest=digest).first()
    if not then:
        return PLAN_GONE
    names = {str(run.pk): str(run.document.get("name") or "a run") for run in job.runs.all()}
    keys = [key for key in {**then.parts, **now} if key.isdigit() and then.parts.get(key) != now.get(key)]
    changed = [names.get(key, "a run that is gone") for key in sorted(keys)]
    changed += ["the rack"] * (then.parts.get("rack") != now["rack"])
    changed += ["what it is cut by"] * (then.parts.get("terms") != now["terms"])
    words = ", ".join(changed) or "something"
    return f"{words[:1].upper()}{words[1:]} changed since this plan was made."


def _bar_of(job: Job, source: ListedSource, scrap: Scrap | None, kind: Kind, terms: CutTerms) -> Bar:
    """The bar that a source is: one that is taken already, or a new one."""
    length = nearest_sixteenth(source.length.inches)
    known = Bar.objects.filter(job=job, live=True, name=source.scrap or source.bought or "").first()
    limits = terms.for_kind(kind)
    values = {
        "crew": job.crew,
        "job": job,
        "material": kind.material,
        "trade_size": kind.trade_size,
        "keep": limits.keep,
    }
    tag = stock.new_tags(job.crew, 1)[0] if source.keep and not (known and known.offcut_tag) else ""
    if known:
        if tag:
            known.offcut_tag = tag
            known.save(update_fields=["offcut_tag"])
        return known
    name = source.scrap or _stick_name(job)
    lengths = {"length": length, "left": length, "begin": source.begin, "offcut_tag": tag}
    return Bar.objects.create(name=name, scrap=scrap, **values, **lengths)


def _stick_name(job: Job) -> str:
    """The next name for a stick of a job that is to be bought."""
    taken = {name for name in Bar.objects.filter(job=job).values_list("name", flat=True) if name.startswith("N")}
    return f"N{1 + max((int(name[1:]) for name in taken), default=0)}"


def _put_cuts(bar: Bar, cuts: Iterable[ListedCut], kerf: int) -> None:
    for order, listed in enumerate(cuts):
        run_id, start = int(listed.run), listed.from_coupling
        known = Cut.objects.filter(bar=bar, run_id=run_id, start=start, live=True).first()
        cut = known or Cut(crew=bar.crew, bar=bar, run_id=run_id, start=start, kerf=kerf)
        cut.order, cut.piece, cut.end = order, listed.piece, listed.to_coupling
        cut.length = nearest_sixteenth(listed.length.inches)
        cut.save()


def _put_couplings(user: User, choices: Iterable[CutChoice], runs: dict[int, Run], cutting: Cutting) -> None:
    """The plan's couplings become the runs', saved as any change is; they stay the plan's to move."""
    for choice in choices:
        long = {int(cut.run): 0.0 for source in choice.sources for cut in source.cuts}
        for cut in (cut for source in choice.sources for cut in source.cuts):
            long[int(cut.run)] = max(long[int(cut.run)], cut.length.inches)
        for places in choice.places:
            run = runs[int(places.run)]
            plan = cutting.plan_of(run)
            by_step = {nearest_sixteenth(one.at.inches) for one in plan.couplings if one.step is not None}
            own = {nearest_sixteenth(one.at.inches) for one in plan.couplings if one.pinned is not None}
            wanted = sorted({nearest_sixteenth(at) for at in places.at} - by_step)
            by_hand = own - set(run.cut_couplings)
            tape = tape_in(run.document)
            document = {**run.document, "couplings": [write_length(at / IN_AN_INCH, tape) for at in wanted]}
            if long.get(run.pk, 0) > STICK:
                document["longest_piece"] = format_length(long[run.pk])
            if sorted(own) != wanted or "longest_piece" in document:
                save_run(user, run.pk, run.version, document)
            Run.objects.filter(pk=run.pk).update(cut_couplings=sorted(set(wanted) - by_hand))


@transaction.atomic
def let_go(user: User, job_id: int) -> None:
    """Give up what is reserved and not cut yet; what is cut stays as it is."""
    require_writer(user)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    let_go_of(user, job, Cut.objects.filter(bar__job=job, live=True))


def let_go_of(user: User, job: Job, cuts: Iterable[Cut]) -> None:
    """Give up pieces of a job (its row locked) that are not cut yet."""
    _drop(cuts)
    _close_finished(user, job)


def _drop(cuts: Iterable[Cut]) -> None:
    """Pieces that are not cut yet and will not be cut so."""
    for cut in cuts:
        if cut.done_at is None:
            cut.live = None
            cut.save(update_fields=["live"])


def _close_finished(user: User, job: Job) -> None:
    """Bars of which nothing more is to be cut: an untouched one goes back, of others the offcut."""
    for bar in Bar.objects.filter(job=job, live=True).select_related("scrap", "offcut"):
        if bar.cuts.filter(live=True).exclude(done_at=None).exists() or bar.spoiled:
            _finish(user, bar)
        elif not bar.cuts.filter(live=True).exists():
            if bar.scrap:
                stock.let_go(user, bar.scrap)
            bar.live = None
            bar.save(update_fields=["live"])


def _finish(user: User, bar: Bar) -> None:
    """After the last cut of a bar what is left of it goes to the rack."""
    if bar.offcut is None and not bar.cuts.filter(live=True, done_at=None).exists():
        _offcut(user, bar)


def _offcut(user: User, bar: Bar) -> None:
    """What is left of a bar goes to the rack, if it is worth keeping."""
    if bar.left < bar.keep:
        return
    tag = bar.offcut_tag or stock.new_tags(bar.crew, 1)[0]
    ends = {"end_a": Ends.CUT, "end_b": bar.scrap.end_b if bar.scrap else Ends.FACTORY}
    place = bar.scrap.place if bar.scrap else ""
    scrap = Scrap(
        crew=bar.crew,
        tag=tag,
        material=bar.material,
        trade_size=bar.trade_size,
        length=bar.left / IN_AN_INCH,
        place=place,
        **ends,
    )
    bar.offcut = stock.put_offcut(user, scrap, What.OFFCUT, f"of {bar.name}")
    bar.offcut_tag = tag
    bar.save(update_fields=["offcut", "offcut_tag"])


@transaction.atomic
def act(user: User, cut_id: int, kind: str, key: UUID, length: str = "") -> None:
    """Confirm a cut, undo it, or say that it was cut wrong. Raises Conflict, Refused; done once for each key."""
    crew = require_writer(user)
    cut = get_object_or_404(Cut.objects.for_user(user).select_related("run"), pk=cut_id)
    # The same order of locks everywhere: the run, then the bar, then its cuts.
    run = Run.objects.select_for_update().get(pk=cut.run_id)
    if run.binned_at:
        raise Conflict(f"{_called(cut)}: the run was deleted. Nothing was cut.")
    bar = Bar.objects.select_for_update().select_related("scrap", "offcut").get(pk=cut.bar_id)
    cut = Cut.objects.select_for_update().select_related("done_by").get(pk=cut_id)
    cut.run, cut.bar = run, bar
    if not ActDone.objects.get_or_create(crew=crew, key=key)[1]:
        return
    match kind:
        case "cut":
            _confirm(user, cut, cut.length)
        case "undo":
            _undo(user, cut)
        case "wrong":
            _cut_wrong(user, cut, length)


def _called(cut: Cut) -> str:
    return f"{cut.run.document.get('name') or 'The run'}, piece {cut.piece}"


def _to_be_cut(user: User, cut: Cut) -> None:
    if cut.done_at is not None:
        raise Conflict(f"{_called(cut)} was cut already by {name_of(cut.done_by)}.")
    if not cut.live:
        raise Conflict(f"{_called(cut)} is not to be cut from {cut.bar.name} any more. Plan again.")
    if not Cutting(user, cut.run.job).fits(cut):
        raise Conflict(f"{_called(cut)} was changed after this was planned. Plan again; nothing was cut.")


def confirm_at_bench(user: User, cut: Cut) -> None:
    """A piece that was cut at the bench was cut as planned; where its run changed since, it is no longer the plan's."""
    if Cutting(user, cut.run.job).fits(cut):
        _confirm(user, cut, cut.length, at_bench=True)
    else:
        _drop([cut])
        _close_finished(user, cut.run.job)


def cut_from_scrap(user: User, run: Run, piece: int, tag: str, inches: float) -> None:
    """A piece was cut at the bench from a scrap that no plan chose: the rack and the ledger follow. Raises Conflict."""
    plan, length = Cutting(user, run.job).plan_of(run), nearest_sixteenth(inches)
    own = next((one for one in plan.pieces if one.number == piece), None)
    scrap = stock.reserve(user, [tag], run.job)[0]
    kind = Kind(plan.material, plan.trade_size)
    if not own or (scrap.material, scrap.trade_size) != (kind.material, kind.trade_size):
        raise Conflict(f"{tag} is {scrap.trade_size} {scrap.material}; this piece is {kind.name}.")
    limits, whole = terms_of(run.job).for_kind(kind), whole_sixteenths(scrap.length)
    bar = Bar(crew=run.crew, job=run.job, name=tag, scrap=scrap, material=kind.material, trade_size=kind.trade_size)
    bar.length, bar.left, bar.keep = whole, whole, limits.keep
    bar.save()
    start, end = lies(plan, own)
    cut = Cut(crew=run.crew, bar=bar, order=0, run=run, piece=piece, start=start, end=end, length=length)
    cut.kerf = limits.kerf
    cut.save()
    _confirm(user, cut, length, at_bench=True)


def take_back_at_bench(user: User, cut: Cut) -> None:
    """That a piece was cut was a mistake, told at the bench."""
    _undo(user, cut, at_bench=True)


def _confirm(user: User, cut: Cut, took: int, at_bench: bool = False) -> None:
    """A piece is cut: `took` of the bar and a kerf are gone, the rack and the ledger follow."""
    _to_be_cut(user, cut)
    bar = cut.bar
    if took > bar.left:
        raise Conflict(f"{bar.name} has only {_reads(bar.left)} left.")
    if bar.scrap and not bar.cuts.exclude(done_at=None).filter(live=True).exists():
        stock.cut_into(user, bar.scrap, f"{_reads(took)} for {_called(cut)}")
    bar.left = max(0, bar.left - took - cut.kerf)
    bar.save(update_fields=["left"])
    cut.done_at, cut.done_by, cut.came_out = timezone.now(), user, took if took != cut.length else None
    cut.save(update_fields=["done_at", "done_by", "came_out"])
    _finish(user, bar)
    if not at_bench:
        mark_cut(user, cut.run, cut.piece)


def _undo(user: User, cut: Cut, at_bench: bool = False) -> None:
    """A cut was confirmed by mistake. Only the last one of a bar can be undone, while its offcut is there."""
    bar = cut.bar
    if cut.done_at is None or not cut.live:
        raise Conflict(f"{_called(cut)} is not cut.")
    last, *others = bar.cuts.filter(live=True).exclude(done_at=None).order_by("-done_at", "-order")
    if last.pk != cut.pk:
        raise Conflict(f"Undo the later cut from {bar.name} first: piece {last.piece}.")
    if bar.offcut:
        stock.remove_offcut(user, bar.offcut)
    if not at_bench:
        mark_uncut(user, cut.run, cut.piece)
    # The last kerf may have run out of the bar: what was there before follows from the cuts that stay.
    taken = sum((one.came_out or one.length) + one.kerf for one in others)
    bar.left, bar.offcut = max(0, bar.length - bar.spoiled - taken), None
    bar.save(update_fields=["left", "offcut"])
    cut.done_at = cut.done_by = cut.came_out = None
    cut.save(update_fields=["done_at", "done_by", "came_out"])
    if bar.scrap and not others and not bar.spoiled:
        stock.uncut(user, bar.scrap, bar.job, f"cut for {_called(cut)}")


def _cut_wrong(user: User, cut: Cut, length: str) -> None:
    """The piece came out at another length: too long it serves, too short it is scrap and another must be cut."""
    try:
        came_out = nearest_sixteenth(parse_length(length))
    except UnreadableLength as error:
        raise Refused("That length cannot be used.", {"length": str(error)}) from error
    if came_out <= 0:
        raise Refused("That length cannot be used.", {"length": "a piece has some length; measure it"})
    if came_out >= cut.length:
        _confirm(user, cut, came_out)
        _drop_what_does_not_fit(cut.bar)
        _finish(user, cut.bar)
        return
    _to_be_cut(user, cut)
    bar = cut.bar
    if came_out > bar.left:
        raise Conflict(f"{bar.name} has only {_reads(bar.left)} left.")
    if bar.scrap and bar.scrap.taken_at is None:
        stock.cut_into(user, bar.scrap, f"cut wrong at {_reads(came_out)} for {_called(cut)}")
    bar.left, bar.spoiled = max(0, bar.left - came_out - cut.kerf), bar.spoiled + came_out + cut.kerf
    bar.save(update_fields=["left", "spoiled"])
    if came_out >= bar.keep:
        tag = stock.new_tags(bar.crew, 1)[0]
        kind = {"material": bar.material, "trade_size": bar.trade_size}
        scrap = Scrap(crew=bar.crew, tag=tag, length=came_out / IN_AN_INCH, **kind)
        stock.put_offcut(user, scrap, What.SPOILED, f"of {bar.name}, for {_called(cut)}")
    _drop_what_does_not_fit(bar)
    _finish(user, bar)


def _drop_what_does_not_fit(bar: Bar) -> None:
    """Pieces that the rest of a bar does not hold are to be planned again, the longest first."""
    waiting = sorted(bar.cuts.filter(live=True, done_at=None), key=lambda one: one.length)
    while waiting and sum(one.length + one.kerf for one in waiting) - waiting[-1].kerf > bar.left:
        dropped = waiting.pop()
        dropped.live = None
        dropped.save(update_fields=["live"])


def _reads(sixteenths: int) -> str:
    return format_length(sixteenths / IN_AN_INCH)
