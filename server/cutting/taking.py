"""What taking a plan writes: bars, their cuts, and the couplings in the runs.

Called within `actions.take`, which has checked who asks and locked the job and its runs.
"""

from collections.abc import Iterable

from conduit.cutting import (
    IN_AN_INCH,
    CutChoice,
    CutTerms,
    Kind,
    ListedCut,
    ListedSource,
    gap_at,
    nearest_sixteenth,
    whole_sixteenths,
)
from conduit.document import tape_in
from conduit.tables import STICK
from conduit.units import write_length
from server.accounts.models import User
from server.cutting.models import Bar, Cut
from server.cutting.planning import Cutting
from server.jobs.actions import save_run
from server.jobs.models import Job, Run
from server.stock.keeping import new_tags
from server.stock.models import Scrap


def laid_length(cutting: Cutting, cut: Cut) -> int:
    """How long a piece is by its run's layout, without what is left to spare; sixteenths."""
    return cut.end - cut.start - (gap_at(cutting.plan_of(cut.run), cut.start) if cut.start else 0)


def bar_of(job: Job, source: ListedSource, scrap: Scrap | None, kind: Kind, terms: CutTerms) -> Bar:
    """The bar that a source is: one that is taken already, or a new one."""
    length = whole_sixteenths(source.length.inches)
    known = Bar.objects.filter(job=job, live=True, name=source.scrap or source.bought or "").first()
    limits = terms.for_kind(kind)
    values = {
        "crew": job.crew,
        "job": job,
        "material": kind.material,
        "trade_size": kind.trade_size,
        "keep": limits.keep,
    }
    tag = new_tags(job.crew, 1)[0] if source.keep and not (known and known.offcut_tag) else ""
    if known:
        if tag:
            known.offcut_tag = tag
            known.save(update_fields=["offcut_tag"])
        return known
    name = source.scrap or _stick_name(job)
    squared = nearest_sixteenth(source.square.inches) if source.square else 0
    lengths = {"length": length, "left": length - squared, "squared": squared, "is_squared": source.square is not None}
    begins = {"begin": source.begin, "offcut_tag": tag}
    return Bar.objects.create(name=name, scrap=scrap, **values, **lengths, **begins)


def _stick_name(job: Job) -> str:
    """The next name for a stick of a job that is to be bought."""
    taken = {name for name in Bar.objects.filter(job=job).values_list("name", flat=True) if name.startswith("N")}
    return f"N{1 + max((int(name[1:]) for name in taken), default=0)}"


def put_cuts(bar: Bar, cuts: Iterable[ListedCut], kerf: int) -> None:
    """The pieces that a bar is to give, in their order; a piece that it gives already keeps its row."""
    for order, listed in enumerate(cuts):
        run_id, start = int(listed.run), listed.from_coupling
        known = Cut.objects.filter(bar=bar, run_id=run_id, start=start, live=True).first()
        cut = known or Cut(crew=bar.crew, bar=bar, run_id=run_id, start=start, kerf=kerf)
        cut.order, cut.piece, cut.end = order, listed.piece, listed.to_coupling
        cut.length = nearest_sixteenth(listed.length.inches)
        cut.save()


def put_couplings(user: User, choices: Iterable[CutChoice], runs: dict[int, Run], cutting: Cutting) -> None:
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
                document["longest_piece"] = write_length(long[run.pk], tape)
            if sorted(own) != wanted or "longest_piece" in document:
                save_run(user, run.pk, run.version, document)
            Run.objects.filter(pk=run.pk).update(cut_couplings=sorted(set(wanted) - by_hand))
