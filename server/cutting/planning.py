"""What is asked of the planner for a job: its runs, the rack, the terms; and the plan, the same for the same."""

import time
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

from django.shortcuts import get_object_or_404
from pydantic import ValidationError

from conduit.as_typed import AsWritten
from conduit.cutting import (
    IN_AN_INCH,
    CutChoice,
    CutKind,
    CutList,
    CutTerms,
    End,
    Held,
    Kind,
    PlannedRun,
    ScrapOnRack,
    digests,
    is_better,
    lies,
    make_cut_list,
    nearest_sixteenth,
    number_of,
)
from conduit.cutting.optimizer import JointPlanner, Meter
from conduit.findings import Code
from conduit.plan import Plan
from conduit.tables import LONGEST_STICK, Limits
from server.accounts.limits import limits_of
from server.accounts.models import Crew, User
from server.bench.models import Stick
from server.cutting.models import Asked, Bar, Cut, Proposal
from server.jobs.models import TO_CUT, Job, Run
from server.jobs.plans import plan_of
from server.stock.actions import lying
from server.stock.models import Scrap

KEPT_PROPOSALS = 12


@dataclass
class Clock:
    """So many seconds from now."""

    seconds: float
    began: float = field(default_factory=time.monotonic)
    meter: Meter | None = None

    def follow(self, meter: Meter) -> None:
        """Whose work it stops."""
        self.meter = meter

    def left(self) -> float:
        """Seconds that are left."""
        return self.began + self.seconds - time.monotonic()


def terms_of(job: Job) -> CutTerms:
    """By what the job is cut; as usual where that cannot be read any more."""
    asked = Asked.objects.filter(job=job).first()
    try:
        return read_terms(job.crew, asked.terms if asked else {})
    except ValidationError:
        return read_terms(job.crew, {})


def read_terms(crew: Crew, given: AsWritten) -> CutTerms:
    """Terms as typed on the crew's tape (numbers are inches); what is left out is as its limits have it.

    Raises ValidationError.
    """
    limits = limits_of(crew)
    usual = {"keep": limits.keep, "kerf": limits.kerf, "least": limits.least_piece, "sold": crew.sold}
    return CutTerms.model_validate({**usual, **given}, context={"tape": crew.tape})


class Cutting:
    """A job's cutting as it stands now."""

    def __init__(self, job: Job) -> None:
        self.job, self.limits = job, limits_of(job.crew)
        self.bars = list(Bar.objects.filter(job=job, live=True).select_related("scrap", "offcut"))
        cuts = Cut.objects.filter(bar__job=job, live=True).select_related("run", "done_by")
        self._plans: dict[int, Plan] = {}
        self._digests: tuple[CutTerms, dict[str, str]] | None = None
        self.cuts: dict[int, list[Cut]] = {}
        for cut in cuts:
            self.cuts.setdefault(cut.bar_id, []).append(cut)

    @classmethod
    def of(cls, user: User, job_id: int) -> "Cutting":
        """The cutting of one of the crew's jobs."""
        return cls(get_object_or_404(Job.objects.for_user(user).select_related("crew"), pk=job_id))

    @cached_property
    def all_runs(self) -> list[Run]:
        """The job's runs."""
        return list(self.job.runs.present())

    def plan_of(self, run: Run) -> Plan:
        """A run's plan as it is now; each is made when it is first asked for."""
        if run.pk not in self._plans:
            self._plans[run.pk] = _plan_for_cutting(run.document, self.limits)
        return self._plans[run.pk]

    def fits(self, cut: Cut) -> bool:
        """Whether the run still has the piece as it is to be cut."""
        return number_of(self.plan_of(cut.run), (cut.start, cut.end)) is not None

    @cached_property
    def _begun(self) -> set[tuple[int, int]]:
        """Runs and pieces that are cut or bent at the bench."""
        begun = Stick.objects.filter(run__in=self.all_runs, live=True, document__isnull=False)
        return set(begun.values_list("run_id", "piece"))

    def _held(self, run: Run) -> tuple[Held, ...]:
        """Pieces that are cut, or reserved and still as planned."""
        mine = [(bar, cut) for bar in self.bars for cut in self.cuts.get(bar.pk, []) if cut.run_id == run.pk]
        held = [
            Held(cut.start, cut.end, bar.name, cut.length, cut.done_at is not None, cut.kerf)
            for bar, cut in mine
            if self.fits(cut)
        ]
        known = {one.start for one in held}
        plan = self.plan_of(run)
        for piece in plan.pieces:
            start, end = lies(plan, piece)
            if (run.pk, piece.number) in self._begun and start not in known:
                # Cut at the bench, from whatever.
                held.append(Held(start, end, None, nearest_sixteenth(piece.length.inches), True))
        return tuple(sorted(held, key=lambda one: one.start))

    @cached_property
    def runs(self) -> list[PlannedRun]:
        """The runs that are not wholly cut."""
        to_cut = {str(run.pk) for run in self.all_runs if run.status in TO_CUT}
        return [run for run in self.all_planned if run.key in to_cut]

    @cached_property
    def all_planned(self) -> list[PlannedRun]:
        """The job's runs as the planner wants them."""
        return [
            PlannedRun(
                str(run.pk),
                str(run.document.get("name", "")),
                self.plan_of(run),
                self._held(run),
                frozenset(run.cut_couplings),
            )
            for run in self.all_runs
        ]

    @cached_property
    def rack(self) -> list[ScrapOnRack]:
        """What can be cut from: free scraps, and the bars of the plan that was taken, as they are now."""
        free = [
            _on_rack(scrap.tag, scrap, scrap.length)
            for scrap in lying(self.job.crew_id)
            if not hasattr(scrap, "reservation")
        ]
        own = []
        for bar in self.bars:
            if not any(cut.done_at is None for cut in self.cuts.get(bar.pk, [])):
                continue
            kind = Kind(bar.material, bar.trade_size)  # type: ignore[arg-type]
            left = bar.left / IN_AN_INCH
            new = ScrapOnRack(bar.name, kind, left, "", ("factory", "factory"), True)
            own.append(_begun(bar, bar.scrap, left) if bar.scrap else new)
        return [*own, *free]

    def digests(self, terms: CutTerms) -> dict[str, str]:
        """What the plan depends on, to tell what changed."""
        if self._digests is None or self._digests[0] != terms:
            self._digests = terms, digests(self.runs, self.rack, terms)
        return self._digests[1]

    def proposal(self, terms: CutTerms) -> Proposal | None:
        """The plan that was found for just this, if any."""
        return Proposal.objects.filter(job=self.job, digest=self.digests(terms)["all"]).first()

    def before(self) -> dict[str, CutChoice]:
        """What was planned last for each kind of pipe, as it was picked: people may have it in mind."""
        last = Proposal.objects.filter(job=self.job).first()
        kinds = [CutKind.model_validate(kind) for kind in last.result["kinds"]] if last else []
        return {kind.kind.name: kind.picked(last.picks if last else {}) for kind in kinds}

    def _known(self, seconds: float) -> list[CutKind]:
        """Plans of single kinds that were searched for as long: what did not change keeps its plan."""
        found = Proposal.objects.filter(job=self.job, seconds__gte=seconds)
        return [CutKind.model_validate(kind) for one in found for kind in one.result["kinds"]]

    def propose(self, terms: CutTerms, seconds: float, clock: Clock, before: dict[str, CutChoice]) -> Proposal:
        """Plan the cuts anew, beginning with the plan `before`, and keep what is found by the job as it was read.

        The work of so many seconds is done; the clock only stops what takes far longer.
        """
        known = self.proposal(terms)
        same = self._known(seconds)
        planner = JointPlanner(clock, seconds)
        clock.follow(planner.meter)
        found = make_cut_list(self.runs, self.rack, terms, planner, same, before)
        return self._kept(terms, found, seconds, known)

    def _kept(self, terms: CutTerms, found: CutList, seconds: float, known: Proposal | None) -> Proposal:
        """Keep a plan that was found; where the one before was as good it stays, with what was picked of it."""
        parts = self.digests(terms)
        now: dict[str, Any] = {"crew": self.job.crew, "parts": parts, "seconds": seconds}
        if not known or is_better(found, CutList.model_validate(known.result), terms.goal):
            now |= {"result": found.model_dump(mode="json"), "picks": {}}
        proposal, _ = Proposal.objects.update_or_create(job=self.job, digest=parts["all"], defaults=now)
        wanted = self.digests(terms_of(self.job))["all"]
        old = Proposal.objects.filter(job=self.job).exclude(digest__in=(wanted, parts["all"]))
        Proposal.objects.filter(pk__in=list(old.values_list("pk", flat=True)[KEPT_PROPOSALS:])).delete()
        return proposal


def _plan_for_cutting(document: AsWritten, limits: Limits) -> Plan:
    """A run's plan; where its sticks are too short for its couplings, that with longer ones, as may be sold.

    Whether one is long enough is then found out with what is really sold and lies on the rack.
    """
    plan = plan_of(document, limits)
    against = {one.code for one in plan.findings if one.severity == "stop"}
    if document.get("longest_piece") or against != {Code.NO_COUPLING_PLACE}:
        return plan
    longer = plan_of({**document, "longest_piece": f'{LONGEST_STICK}"'}, limits)
    return longer if longer.makeable else plan


def _begun(bar: Bar, scrap: Scrap, left: float) -> ScrapOnRack:
    """A reserved scrap as it is now: the end that it is begun on is square, once it is cut, and counted so before."""
    lies = _on_rack(bar.name, scrap, left)
    is_cut = bar.is_squared or bar.left < bar.length
    a, b = lies.ends
    ends: tuple[End, End] = (("cut", b) if bar.begin == "A" else (a, "cut")) if is_cut else lies.ends
    return replace(lies, ends=ends)


def _on_rack(name: str, scrap: Scrap, length: float) -> ScrapOnRack:
    kind = Kind(scrap.material, scrap.trade_size)  # type: ignore[arg-type]
    return ScrapOnRack(name, kind, length, scrap.place, (scrap.end_a, scrap.end_b))  # type: ignore[arg-type]
