"""The cut list of several runs: couplings and sources planned together, as people read and cut it."""

import math
from collections.abc import Iterable, Mapping, Sequence
from hashlib import sha256
from types import MappingProxyType

from conduit.catalogue import NOTHING, Message, message
from conduit.cutting.given import PlannedRun, ScrapOnRack
from conduit.cutting.listed_sources import SourceLister
from conduit.cutting.model import (
    IN_AN_INCH,
    Before,
    CutPlan,
    Held,
    KindPlan,
    MakePlan,
    Needed,
    ScrapBar,
    Source,
    is_bent,
)
from conduit.cutting.on_the_run import boxes_of, gap_at
from conduit.cutting.pins import couplings_pinned
from conduit.cutting.schema import (
    CutChoice,
    CutKind,
    CutList,
    RunCouplings,
    RunLeftOut,
    reading,
    stop_settings,
)
from conduit.cutting.terms import CutTerms, nearest_sixteenth, whole_sixteenths
from conduit.cutting.verify import faults
from conduit.cutting.wording import labels_of, plan_says, price_says, stayed_says
from conduit.layout import free_windows

# In money, what costs no more than this above what is proved to be the least costs the least.
A_CENT = 0.01


def make_cut_list(
    runs: Sequence[PlannedRun],
    rack: Sequence[ScrapOnRack],
    terms: CutTerms,
    planner: MakePlan,
    known: Sequence[CutKind] = (),
    before: Mapping[str, CutChoice] = MappingProxyType({}),
) -> CutList:
    """Plan the cuts of every makeable run from `rack` (oldest first) and new sticks, each kind of pipe by the planner.

    A kind of pipe for which nothing changed keeps its plan of those that are `known`; of one that changed, pieces of
    the choice that was planned `before` (by the kind's name) stay where it costs little.
    Raises AssertionError if the verifier finds the plan wrong, which would be a fault in this program.
    """
    terms, crowded = with_room_for(terms, rack)
    out = not_makeable(runs)
    makeable = [run for run in runs if run.plan.makeable]
    kinds, digest = list[CutKind](), digests(runs, rack, terms)
    total = sum(max(1, len(run.plan.pieces)) for run in makeable)
    for kind in dict.fromkeys(run.kind for run in makeable):
        of_kind = [run for run in makeable if run.kind == kind]
        pieces = sum(max(1, len(run.plan.pieces)) for run in of_kind)
        lister = _Lister(of_kind, [bar for bar in rack if bar.kind == kind], terms)
        same = next((one for one in known if one.digest == digest[kind.name]), None)
        share = pieces / max(1, total)
        kinds.append(same or lister.listed(planner, share, digest[kind.name], before.get(kind.name)))
        total -= pieces
        out += lister.left_out
        for key in kinds[-1].impossible:
            says = message(f"left_out.{lister.why_not(key, kinds[-1].crowded_out)}")
            out.append(RunLeftOut(run=key, run_name=lister.runs[key].name, says=says))
    return CutList(kinds=kinds, left_out=out, kerf=reading(terms.blade), crowded=crowded)


def digests(runs: Sequence[PlannedRun], rack: Sequence[ScrapOnRack], terms: CutTerms) -> dict[str, str]:
    """Digests of what the plan depends on: each run (by key), `rack`, `terms`, each kind of pipe, and `all`.

    Where one is the same, its plan would be the same.
    """
    parts: dict[str, object] = {"rack": list(rack), "terms": terms.model_dump()}
    terms, _ = with_room_for(terms, rack)
    for run in runs:
        plan = run.plan
        arcs = [(bend.start.inches, bend.end.inches) for bend in plan.bends]
        couplings = [(one.at.inches, one.step, one.pinned) for one in plan.couplings]
        length = plan.developed_length and plan.developed_length.inches
        names = [(piece.end_a, piece.end_b) for piece in plan.pieces]
        whole = (
            run.name,
            plan.makeable,
            run.kind,
            length,
            arcs,
            couplings,
            names,
            plan.coupling_gap.inches,
            plan.limits,
        )
        parts[run.key] = (*whole, run.held, sorted(run.free), *(("as laid out",) if run.as_laid_out else ()))
    for kind in dict.fromkeys(run.kind for run in runs):
        keys = [run.key for run in runs if run.kind == kind]
        bars = [bar for bar in rack if bar.kind == kind]
        tried = (terms.doubt, terms.square, terms.use_scrap, sorted(terms.excluded), terms.couplings, terms.pieces)
        parts[kind.name] = ([parts[key] for key in keys], bars, terms.for_kind(kind), tried)
    found = {name: sha256(repr(part).encode()).hexdigest() for name, part in parts.items()}
    return {**found, "all": sha256(repr(sorted(found.items())).encode()).hexdigest()}


def with_room_for(terms: CutTerms, rack: Sequence[ScrapOnRack]) -> tuple[CutTerms, Message]:
    """The terms as they are with so much on the rack: where it holds too many, an offcut is worth no more than waste,
    and fetching a scrap costs nothing; with that in words, else nothing.
    """
    lying = sum(not bar.bought for bar in rack)
    if terms.rack_most is None or lying <= terms.rack_most:
        return terms, NOTHING
    says = message("rack.crowded", lying=f"{lying:,}", most=f"{terms.rack_most:,}")
    return terms.model_copy(update={"offcut": 0.0, "fetch": 0.0}), says


def along_the_pile(tag: str, place: str | None) -> tuple[bool, str, int, str]:
    """What sources are sorted by to walk along the pile once: by place, then by tag; sticks (no place) after it."""
    return place is None, place or "", len(tag), tag


class _Lister:
    """The runs of one kind, their rack and terms, and their plan in words."""

    def __init__(self, runs: Sequence[PlannedRun], rack: Sequence[ScrapOnRack], terms: CutTerms) -> None:
        self.runs = {run.key: run for run in runs}
        self.rack = {bar.tag: bar for bar in rack}
        self.terms, self.own = terms.for_kind(runs[0].kind), terms
        self.left_out: list[RunLeftOut] = []
        self.needed = [self._needed(run) for run in runs]
        held = {one.source for run in self.needed for one in run.held}
        use = [bar for bar in rack if bar.bought or bar.tag in held or self._usable(bar)]
        self.kerfs = {(run.key, one.start): one.kerf for run in self.needed for one in run.held if one.kerf is not None}
        square = -whole_sixteenths(-self.own.square)
        self.sources = SourceLister(self.runs, self.rack, self.terms, square, self.kerfs)
        self.lying = [ScrapBar(bar.tag, bar.kind, self._length_of(bar), bar.bought) for bar in use]

    def _length_of(self, bar: ScrapOnRack) -> int:
        """How long the planner takes a bar for, which has one kerf for all: what is left beside its pieces is true.

        A piece that was reserved for another blade keeps that blade's kerf.
        """
        mine = [one for run in self.needed for one in run.held if one.source == bar.tag and not one.done]
        own, kerf = [one.kerf for one in mine if one.kerf is not None], self.terms.kerf
        # What is reserved was measured when it was cut for; of the rest one may not be so sure.
        doubt = 0 if mine or bar.bought else -whole_sixteenths(-self.own.doubt)
        ends = self.sources.ends_of(bar)
        least = sum(one.cut for one in mine) + kerf * (len(mine) - 1)
        length = whole_sixteenths(bar.length) - doubt - ends.square - ends.off_far
        return max(0, least, length + sum(kerf - one for one in own))

    def _usable(self, bar: ScrapOnRack) -> bool:
        return self.own.use_scrap and bar.tag not in self.own.excluded

    def _needed(self, run: PlannedRun) -> Needed:
        plan = run.plan
        length = nearest_sixteenth(plan.developed_length.inches if plan.developed_length else 0)
        arcs = [(bend.start.inches, bend.end.inches) for bend in plan.bends]
        spans = free_windows(length / IN_AN_INCH, [*arcs, *plan.no_couplings], plan.limits)
        windows = tuple((-whole_sixteenths(-low), whole_sixteenths(high)) for low, high in spans)
        settled = [one for one in plan.couplings if one.step is not None or one.pinned is not None]
        own = [one.at.inches for one in (plan.couplings if run.as_laid_out else settled)]
        places = {nearest_sixteenth(at) for at in own} - run.free
        pinned, refused = couplings_pinned(
            [nearest_sixteenth(one.at) for one in self.own.couplings if one.run == run.key], windows, places
        )
        places |= pinned
        for place in refused:
            says = message("pin.no_coupling_there", at=reading(place).reads)
            self.left_out.append(RunLeftOut(run=run.key, run_name=run.name, says=says, whole=False))
        held = list(run.held)
        for pin in (pin for pin in self.own.pieces if pin.run == run.key):
            held += self._pinned(run, nearest_sixteenth(pin.start), nearest_sixteenth(pin.end), pin.scrap, held, length)
        return Needed(
            run.key,
            run.kind,
            length,
            tuple((whole_sixteenths(a), -whole_sixteenths(-b)) for a, b in arcs),
            windows,
            tuple(sorted(place for place in places if 0 < place < length)),
            tuple(held),
            nearest_sixteenth(run.plan.coupling_gap.inches),
            tuple((nearest_sixteenth(one.at.inches), nearest_sixteenth(one.gap)) for one in boxes_of(plan)),
        )

    def _pinned(
        self, run: PlannedRun, start: int, end: int, scrap: str | None, held: Iterable[Held], length: int
    ) -> list[Held]:
        """The pinned piece as one that is held; nothing, and it is told, where that cannot be."""
        begin = start + gap_at(run.plan, start) if start else 0
        bends = [(bend.start.inches * IN_AN_INCH, bend.end.inches * IN_AN_INCH) for bend in run.plan.bends]
        need = end - begin + (self.terms.spare if is_bent(bends, begin, end) else 0)
        bar = self.rack.get(scrap) if scrap else None
        if not 0 <= start < end <= length or any(start < one.end and one.start < end for one in held):
            why = "pin.not_on_run"
        elif scrap and not bar:
            why = "pin.not_on_rack"
        elif need > (whole_sixteenths(bar.length) if bar else max(one.length for one in self.terms.sold)):
            why = "pin.too_long"
        else:
            return [Held(start, end, scrap, need)]
        says = message(why, start=reading(start).reads, end=reading(end).reads, scrap=scrap or "")
        self.left_out.append(RunLeftOut(run=run.key, run_name=run.name, says=says, whole=False))
        return []

    def why_not(self, key: str, crowded_out: Sequence[str]) -> str:
        """Why a run cannot be cut."""
        if any(run.key == key and not run.has_pipe_between for run in self.needed):
            return "no_pipe_between"
        return "taken" if key in crowded_out else "none_long_enough"

    def listed(self, planner: MakePlan, share: float, digest: str, before: CutChoice | None = None) -> CutKind:
        """The plans of this kind of pipe, each verified independently, with the bounds that are proved.

        Raises AssertionError where a plan is not right by the verifier, or beats a bound: then nothing is shown.
        `before`: the plan that was chosen last, whose pieces stay where it pays.
        """
        found = planner(self.needed, self.lying, self.terms, share, _pieces_before(before))
        makeable = [run for run in self.needed if run.key not in found.impossible]
        for plan in found.plans:
            wrong = faults(makeable, self.lying, self.terms, plan)
            wrong += _beyond(plan, found)
            if wrong:
                raise AssertionError("; ".join(wrong))
        kind = found.kind
        labels = labels_of(found.plans)
        return CutKind(
            material=kind.material,
            trade_size=kind.trade_size,
            chosen=found.chosen,
            choices=[self._choice(plan, label, found) for plan, label in zip(found.plans, labels, strict=True)],
            sticks_at_least=found.at_least,
            couplings_at_least=found.joints_at_least,
            cost_at_least=math.floor(found.cost_at_least * 10**4 + 1e-3) / 10**4,
            priced=self.terms.is_priced,
            price_says=price_says(self.terms),
            impossible=list(found.impossible),
            crowded_out=list(found.crowded_out),
            looked_at=self._looked_at(found),
            stayed=stayed_says(found) if before else NOTHING,
            seconds=round(found.seconds, 3),
            digest=digest,
        )

    def _looked_at(self, found: KindPlan) -> Message:
        if found.looked_at == len(self.lying):
            return NOTHING
        return message("looked_at", some=f"{found.looked_at:,}", all=f"{len(self.lying):,}")

    @property
    def _trifle(self) -> float:
        """Costs that differ by less are the same: a sixteenth of pipe; in money also a cent."""
        sixteenth = self.terms.of_a_sixteenth
        return max(A_CENT, sixteenth) if self.terms.is_priced else sixteenth

    def _choice(self, plan: CutPlan, label: Message, found: KindPlan) -> CutChoice:
        order = sorted(plan.sources, key=self._walk)
        proved = plan.sticks <= found.at_least
        worth = self.terms.lost(plan.waste, plan.kept)
        sources = [self.sources.listed(source, number) for number, source in enumerate(order)]
        bill, waste_worth = round(plan.cost - worth, 2), round(worth, 2)
        return CutChoice(
            label=label,
            sticks=plan.sticks,
            couplings=plan.joints,
            waste=reading(plan.waste),
            cost=round(bill + waste_worth, 2),
            bill=bill,
            waste_worth=waste_worth,
            proved=proved,
            cheapest=plan.cost - found.cost_at_least < self._trifle,
            says=plan_says(plan, found),
            sources=sources,
            stop=stop_settings([(found.kind, cut.length) for source in sources for cut in source.cuts]),
            places=[
                RunCouplings(run=key, at=[place / IN_AN_INCH for place in at]) for key, at in plan.couplings.items()
            ],
        )

    def _walk(self, source: Source) -> tuple[bool, str, int, str]:
        bar = self.rack.get(source.tag or "")
        return along_the_pile(source.tag or "", bar.place if bar and not bar.bought else None)


def not_makeable(runs: Sequence[PlannedRun]) -> list[RunLeftOut]:
    """The runs that cannot be bent as they are, so that nothing is cut for them, and why."""
    return [_left_out(run) for run in runs if not run.plan.makeable]


def _left_out(run: PlannedRun) -> RunLeftOut:
    stops = [finding.says for finding in run.plan.findings if finding.severity == "stop"]
    return RunLeftOut(run=run.key, run_name=run.name, says=stops[0] if stops else message("left_out.unfinished"))


def _pieces_before(choice: CutChoice | None) -> list[Before]:
    """The pieces of an earlier choice."""
    return [
        Before(
            cut.run,
            cut.from_coupling,
            cut.to_coupling,
            source.scrap or source.bought or source.key,
            None if source.scrap or source.bought else nearest_sixteenth(source.length.inches),
        )
        for source in (choice.sources if choice else [])
        for cut in source.cuts
    ]


def _beyond(plan: CutPlan, found: KindPlan) -> list[str]:
    """What is better than was proved to be possible: a fault in this program."""
    figures = {
        "sticks": (plan.sticks, found.at_least),
        "couplings": (plan.joints, found.joints_at_least),
        "couplings with so few sticks": (plan.joints, found.joints_with_sticks if plan.sticks <= found.at_least else 0),
        "cost": (plan.cost, found.cost_at_least),
    }
    return [
        f"less {what} than was proved to be needed: {got}, not {least}"
        for what, (got, least) in figures.items()
        if got < least - 1e-6
    ]
