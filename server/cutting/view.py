"""A job's cutting as the API gives it."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from pydantic import BaseModel

from conduit.catalogue import Message as CatalogueMessage
from conduit.catalogue import message as catalogue_message
from conduit.catalogue import told
from conduit.cutting import (
    IN_AN_INCH,
    BringLine,
    CutList,
    CutTerms,
    Joined,
    Kind,
    StrutNeeded,
    along_the_pile,
    bring_list,
    first_fit,
    joined,
    make_cut_list,
    not_makeable,
    reading,
    stop_settings,
)
from conduit.plan import Measure
from conduit.racks import RackPlan
from conduit.space import SharedStrut, shared_struts
from conduit.units import Tape
from server.accounts.models import name_of
from server.cutting.changed import since_cut
from server.cutting.models import Bar, Cut, Proposal
from server.cutting.planning import Cutting, read_terms, terms_of
from server.cutting.schemas import BarOut, CutOut, CuttingOut, ProposalOut, TakenOut
from server.cutting.solving import going_on
from server.jobs.plans import rack_plan_of
from server.jobs.space import standing_runs
from server.sentences import message


def cutting_out(cutting: Cutting, terms: CutTerms | None = None) -> CuttingOut:
    """The terms, what is taken, what is proposed, and what to bring."""
    terms = terms or terms_of(cutting.job)
    proposal = cutting.proposal(terms)
    tape = Tape(cutting.job.crew.tape)
    bars = [_bar(cutting, bar) for bar in sorted(cutting.bars, key=_walk)]
    cuts = [cut for bar in bars for cut in bar.cuts]
    waiting = [(_kind(bar), cut.length) for bar in bars for cut in bar.cuts if cut.done_at is None and not cut.stale]
    return CuttingOut(
        tape=tape.step,  # type: ignore[arg-type]
        terms=terms,
        usual=read_terms(cutting.job.crew, {}),
        taken=TakenOut(
            bars=_on_tape(bars, tape),
            stop=_on_tape(stop_settings(waiting), tape),
            to_cut=sum(1 for cut in cuts if cut.done_at is None),
            cut=sum(1 for cut in cuts if cut.done_at is not None),
            stale=sum(1 for cut in cuts if cut.stale and cut.done_at is None),
        ),
        solve=going_on(cutting),
        proposal=_on_tape(proposal_out(proposal), tape) if proposal else None,
        left_out=CutList.model_validate(proposal.result).left_out if proposal else not_makeable(cutting.runs),
        to_plan=sum(1 for run in cutting.runs if run.plan.makeable and not _settled(run.plan.pieces, run.held)),
        order=to_bring(cutting, proposal),
    )


def _on_tape(told: Any, tape: Tape) -> Any:
    """The same with each measure as the crew's tape reads it."""
    if isinstance(told, Measure):
        return Measure.of(told.inches, tape)
    if isinstance(told, BaseModel):
        return told.model_copy(update={name: _on_tape(getattr(told, name), tape) for name in type(told).model_fields})
    return [_on_tape(one, tape) for one in told] if isinstance(told, list) else told


def _settled(pieces: Any, held: Any) -> bool:
    return len(held) >= len(pieces)


def proposal_out(proposal: Proposal) -> ProposalOut:
    """A plan that was found."""
    found = CutList.model_validate(proposal.result)
    return ProposalOut(digest=proposal.digest, found=found, seconds=proposal.seconds, picks=proposal.picks)


def _kind(bar: Bar | BarOut) -> Kind:
    return Kind(bar.material, bar.trade_size)  # type: ignore[arg-type]


def _walk(bar: Bar) -> tuple[bool, str, int, str]:
    return along_the_pile(bar.name, bar.scrap.place if bar.scrap else None)


def _bar(cutting: Cutting, bar: Bar) -> BarOut:
    cuts, at, outs = cutting.cuts.get(bar.pk, []), bar.spoiled, []
    for cut in cuts:
        outs.append(_cut(cutting, cut, at))
        at += (cut.came_out or cut.length) + cut.kerf
    waiting = any(cut.done_at is None for cut in cuts)
    rest = max(0, bar.length - bar.squared - at) if waiting else bar.left
    offcut = (
        reading(round(bar.offcut.length * IN_AN_INCH)) if bar.offcut else reading(rest) if rest >= bar.keep else None
    )
    return BarOut(
        id=bar.pk,
        name=bar.name,
        scrap=bar.scrap is not None,
        place=bar.scrap.place if bar.scrap else "",
        material=bar.material,
        trade_size=bar.trade_size,
        length=reading(bar.length),
        left=reading(bar.left),
        begin=bar.begin,
        square=reading(bar.squared) if bar.is_squared else None,
        cuts=outs,
        offcut_tag=bar.offcut_tag if offcut else "",
        offcut=offcut,
        finished=not waiting,
    )


def _cut(cutting: Cutting, cut: Cut, at: int) -> CutOut:
    pieces = cutting.plan_of(cut.run).pieces
    own = next((piece for piece in pieces if piece.number == cut.piece), None)
    stale, tape = "", Tape(cutting.job.crew.tape)
    if not cutting.fits(cut):
        plan = cutting.plan_of(cut.run)
        stale = since_cut(plan, cut, tape) if cut.done_at else told(message("changed.plan_again"))
    return CutOut(
        id=cut.pk,
        run=cut.run_id,
        run_name=cut.run.name,
        piece=cut.piece,
        end_a=own.end_a if own else "",
        end_b=own.end_b if own else "",
        length=reading(cut.length),
        start=reading(at),
        end=reading(at + (cut.came_out or cut.length)),
        came_out=reading(cut.came_out) if cut.came_out else None,
        done_at=cut.done_at,
        done_by=name_of(cut.done_by) if cut.done_at else "",
        stale=stale,
    )


def to_bring(cutting: Cutting, proposal: Proposal | None) -> list[BringLine]:
    """The job's order list: sticks that are taken but not begun, and those that are proposed."""
    found = CutList.model_validate(proposal.result) if proposal else None
    return _to_bring(cutting, found, proposal.picks if proposal else {})


def to_bring_at_most(cutting: Cutting) -> list[BringLine]:
    """The same where nobody planned the cuts yet: each piece from the first new stick with room, nothing off the rack.

    It is what an estimate counts with. What pieces are held for comes from what was taken already.
    """
    terms = terms_of(cutting.job)
    proposal = cutting.proposal(terms)
    runs = [replace(run, as_laid_out=True) for run in cutting.runs if run.plan.makeable and not run.held]
    if proposal or not runs:
        return to_bring(cutting, proposal)
    return _to_bring(cutting, make_cut_list(runs, [], terms, first_fit), {})


def _to_bring(cutting: Cutting, found: CutList | None, picks: Mapping[str, int]) -> list[BringLine]:
    sticks, couplings = Counter[tuple[Kind, float]](), Counter[Joined]()
    for bar in cutting.bars:
        if bar.scrap is None and bar.left == bar.length:
            sticks[_kind(bar), bar.length / IN_AN_INCH] += 1
    planned = dict[str, int]()
    for kind in found.kinds if found else []:
        choice = kind.picked(picks)
        for source in choice.sources:
            if source.scrap is None and source.bought is None:
                sticks[kind.kind, source.length.inches] += 1
        planned |= {places.run: len(places.at) for places in choice.places}
    runs = [run for run in cutting.all_planned if run.plan.makeable]
    for run in runs:
        boxes = sum(one.box for one in run.plan.couplings)
        couplings[joined(run)] += planned.get(run.key, len(run.plan.couplings)) - boxes
    documents = {str(run.pk): run.document for run in cutting.all_runs}
    return bring_list(runs, documents, sticks, couplings, _struts(cutting))


def struts_needed(plan: RackPlan, name: str) -> Counter[StrutNeeded]:
    """The struts of a rack, alike ones counted together."""
    rack = name or catalogue_message("bring.a_rack")
    return Counter(_strut(one.length.reads, rack, [hole.reads for hole in one.holes]) for one in plan.struts)


def _strut(length: str, runs: str | CatalogueMessage, places: Sequence[str]) -> StrutNeeded:
    return StrutNeeded(length, catalogue_message("bring.struts", runs=runs, places=", ".join(places)))


def _struts(cutting: Cutting) -> Counter[StrutNeeded]:
    """The struts of all racks of the job, and those that runs beside each other share, each once."""
    struts = Counter[StrutNeeded]()
    for run in cutting.all_runs:
        rack = rack_plan_of(run.document, cutting.limits)
        if rack:
            struts += struts_needed(rack, run.name)
    return struts + Counter(_shared(one) for one in shared_struts(standing_runs(cutting.job, cutting.all_runs)))


def _shared(one: SharedStrut) -> StrutNeeded:
    tape = one.runs[0].tape
    runs = ", ".join(run.name or str(catalogue_message("bring.a_run")) for run in one.runs)
    return _strut(tape.shows(one.length), runs, [tape.shows(place) for place in one.places])
