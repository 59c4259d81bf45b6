"""A bar of a plan as people cut it: the end that is hooked, each piece along it, what is left, what is threaded."""

from collections.abc import Mapping
from dataclasses import dataclass

from conduit.catalogue import message
from conduit.cutting.bar_ends import TRUE_ENDS, BarEnds
from conduit.cutting.given import PlannedRun, ScrapOnRack
from conduit.cutting.model import IN_AN_INCH, Cut, Source, Terms
from conduit.cutting.on_the_run import named_boxes
from conduit.cutting.schema import ListedCut, ListedSource, reading
from conduit.cutting.terms import nearest_sixteenth, whole_sixteenths
from conduit.plan import Measure


@dataclass(frozen=True)
class SourceLister:
    """What sources are listed by. `kerfs`: of pieces (run, start) that were reserved for another blade."""

    runs: Mapping[str, PlannedRun]
    rack: Mapping[str, ScrapOnRack]
    terms: Terms
    square: int
    kerfs: Mapping[tuple[str, int], int]

    def ends_of(self, bar: ScrapOnRack) -> BarEnds:
        """How a bar's ends are cut."""
        return BarEnds.of(bar.ends, bar.kind.material, self.square)

    def listed(self, source: Source, number: int) -> ListedSource:
        """A source with its cuts in order; `number`: of all there are."""
        bar = self.rack.get(source.tag or "")
        # A scrap is cut as if it ended at its last whole sixteenth, and told as it was measured.
        inches = bar.length if bar else source.length / IN_AN_INCH
        ends = self.ends_of(bar or ScrapOnRack("", source.kind, inches, ends=("factory", "factory")))
        cuts, sawn, used = list[ListedCut](), 0, 0
        for cut in source.cuts:
            cuts.append(self._cut(cut, sawn))
            used = sawn + cut.length
            sawn += cut.length + self.kerfs.get((cut.run, cut.start), self.terms.kerf)
        left = max(0, whole_sixteenths(inches) - ends.square - sawn)
        to_the_end = ends.far in TRUE_ENDS and used >= whole_sixteenths(inches) - ends.square
        fresh = [2] * len(source.cuts)
        fresh[0] -= ends.begin in ("factory", "threaded")
        fresh[-1] -= ends.far in ("factory", "threaded") and to_the_end
        threads = [self.runs[cut.run].plan.joints == "threaded" for cut in source.cuts]
        return ListedSource(
            key=source.tag or f"new {number}",
            scrap=source.tag if bar and not bar.bought else None,
            bought=source.tag if bar and bar.bought else None,
            place=bar.place if bar else "",
            length=Measure.of(inches),
            begin=ends.mark,
            square=reading(ends.square) if ends.is_squared else None,
            cuts=cuts,
            left=Measure.of(max(0.0, inches - (ends.square + sawn) / IN_AN_INCH)),
            keep=left - ends.off_far >= self.terms.keep,
            saw_cuts=len(source.cuts) - to_the_end + ends.is_squared,
            ream=sum(fresh),
            threads=sum(count for count, is_threaded in zip(fresh, threads, strict=True) if is_threaded),
        )

    def _cut(self, cut: Cut, at: int) -> ListedCut:
        """A piece as it is listed, `at` sixteenths from its bar's end."""
        run = self.runs[cut.run]
        pieces = len(run.plan.pieces)
        ends = run.plan.pieces[0].end_a, run.plan.pieces[pieces - 1].end_b
        named = {nearest_sixteenth(one.at.inches): name for one, name in named_boxes(run.plan)}
        last = cut.end == nearest_sixteenth(run.plan.developed_length.inches if run.plan.developed_length else 0)
        return ListedCut(
            run=cut.run,
            run_name=run.name,
            piece=cut.number,
            end_a=ends[0] if cut.start == 0 else named.get(cut.start, message("end.coupling", number=cut.number - 1)),
            end_b=ends[1] if last else named.get(cut.end, message("end.coupling", number=cut.number)),
            length=reading(cut.length),
            start=reading(at),
            end=reading(at + cut.length),
            from_coupling=cut.start,
            to_coupling=cut.end,
        )
