"""Which known mistake somebody's marks look like.

Each mistake of the trade (docs/trade.md, Mistakes) is tried on the run: the marks that it would have given
are worked out and compared with the marks that were laid. How well one explains them is the part of
the squared differences that it takes away.
"""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import singledispatch

from conduit.bender import Hook, Reference, Shoe
from conduit.catalogue import Message, message
from conduit.document import (
    AnyStep,
    BendStep,
    BoxOffsetStep,
    KickStep,
    MeasuredRun,
    Obstacle,
    OffsetStep,
    RolledStep,
    Saddle3Step,
    Saddle4Step,
)
from conduit.layout import Layout, lay_out
from conduit.marking import mark_of_arc
from conduit.tables import TYPICAL_SHOE, Limits
from conduit.units import Degrees

SIXTEENTH = 1 / 16
GOOD_EXPLANATION = 0.8


@dataclass(frozen=True)
class PencilMark:
    """A mark as someone laid it: inches from end A of the run's pipe, and how they mean to set and bend it.

    Degrees; `turned`: rolled so far off the plan, right-handed toward B.
    """

    at: float
    reference: Reference = ""
    hook: Hook | None = None
    angle: Degrees | None = None
    turned: Degrees = 0.0


@dataclass(frozen=True)
class Explanation:
    """A mistake that the marks look like, at which step (from 0; None: the whole run), and how well it explains."""

    code: str
    says: Message
    step: int | None
    explains: float


class MarksDoNotMatch(ValueError):
    """There is not one mark for each bend; the message says how many are wanted."""


@dataclass(frozen=True)
class Case:
    """All that the mistakes are tried on."""

    measured: MeasuredRun
    layout: Layout
    shoe: Shoe
    limits: Limits
    laid: tuple[PencilMark, ...]

    def at(self, layout: Layout, index: int) -> float:
        """The exact mark of a bend of `layout`, for the reference and hook that were laid."""
        mark = self.laid[index]
        bend = layout.path.bends[index]
        return mark_of_arc(bend.start, bend.end, self.shoe, mark.reference, mark.hook or "A").at

    def exact(self, layout: Layout | None = None) -> list[float]:
        """All exact marks of `layout` (of this run, where it is left out)."""
        return [self.at(layout or self.layout, index) for index in range(len(self.laid))]

    def shrink(self, step: int) -> float:
        """What a step really shrinks the run by: pipe used less distance along the leg."""
        first, last = self.layout.indices_of(step)[0], self.layout.indices_of(step)[-1]
        bends, radius = self.layout.path.bends, self.layout.path.radius
        start, end = bends[first], bends[last]
        along = end.point(end.angle, radius).minus(start.entry).dot(start.heading_before)
        return end.end - start.start - along


def within_a_sixteenth(off: float) -> bool:
    """Whether a mark that is `off` inches off counts as right."""
    return abs(off) <= SIXTEENTH + 1e-9


def best_mistake(case: Case, should: list[float]) -> Explanation | None:
    """The known mistake whose marks are nearest to those laid (least squares), where it explains most of what is off.

    `should`: the right marks, in inches from end A. Each mistake of docs/trade.md (Mistakes) is made on the run, and
    its marks compared; None where none explains `GOOD_EXPLANATION` of the squares that are off.
    """
    laid = [mark.at for mark in case.laid]
    whole = _squares(laid, should)
    best: Explanation | None = None
    for code, says, step, marks in _mistakes(case, should):
        explains = 1 - _squares(laid, marks) / whole
        if explains > (best.explains + 0.02 if best else GOOD_EXPLANATION):
            best = Explanation(code, says, step, explains)
    return best


def _squares(some: Sequence[float], others: Sequence[float]) -> float:
    return sum((a - b) ** 2 for a, b in zip(some, others, strict=True))


Mistake = tuple[str, Message, int | None, list[float]]


def _mistakes(case: Case, should: list[float]) -> Iterator[Mistake]:
    """Every mistake that this run allows, with the marks it would have given. The likeliest first."""
    for step, met in enumerate(case.measured.steps):
        if met is None:
            continue
        yield from _mistakes_in(met, case, should, step)
    yield from _setting_mistakes(case, should)
    yield from _deduct_mistakes(case, should)
    yield from _slips(case, should)


def _moved(should: list[float], by: float, indices: Sequence[int]) -> list[float]:
    return [at + (by if index in indices else 0.0) for index, at in enumerate(should)]


@singledispatch
def _mistakes_in(met: AnyStep, case: Case, should: list[float], step: int) -> Iterator[Mistake]:
    """What can be done wrong of a step that was met, by its kind; of what has no bend nothing. `step`: its number."""
    return iter(())


@_mistakes_in.register
def _in_rolled(met: RolledStep, case: Case, should: list[float], step: int) -> Iterator[Mistake]:
    yield from _not_carried(case, should, step, case.shrink(step))
    yield from _offset_unshrunk(met, case, should, step)


@_mistakes_in.register
def _in_offset(met: OffsetStep, case: Case, should: list[float], step: int) -> Iterator[Mistake]:
    yield from _not_carried(case, should, step, case.shrink(step))
    yield from _offset_unshrunk(met, case, should, step)
    yield from _clearance_mistakes(met, met.over, case, step)


@_mistakes_in.register
def _in_three_bend_saddle(met: Saddle3Step, case: Case, should: list[float], step: int) -> Iterator[Mistake]:
    half = case.shrink(step) / 2
    yield from _not_carried(case, should, step, half)
    yield "unshrunk", message("mistake.unshrunk.three"), step, _moved(should, -half, case.layout.indices_of(step))
    yield _shrink_in_spacing(case, should, step)
    yield from _clearance_mistakes(met, met.over, case, step)


@_mistakes_in.register
def _in_four_bend_saddle(met: Saddle4Step, case: Case, should: list[float], step: int) -> Iterator[Mistake]:
    bends, half = case.layout.indices_of(step), case.shrink(step) / 2
    yield from _not_carried(case, should, step, half)
    far = _moved(should, -half, bends[2:])
    yield "unshrunk", message("mistake.unshrunk.four"), step, _moved(_moved(should, -half, bends), -half, bends[2:])
    yield "far_unshrunk", message("mistake.far_unshrunk"), step, far
    yield _shrink_in_spacing(case, should, step)
    yield from _clearance_mistakes(met, met.over, case, step)


def _not_carried(case: Case, should: list[float], step: int, own: float) -> Iterator[Mistake]:
    """The shrink of a step forgotten in all that comes after it; alone, and with `own` forgotten in the step itself."""
    bends, shrink, later = case.layout.indices_of(step), case.shrink(step), case.layout.indices_after(step)
    if later:
        yield "shrink_not_carried", message("mistake.shrink_not_carried"), step, _moved(should, -shrink, later)
        marks = _moved(_moved(should, -own, bends), -shrink, later)
        yield "unshrunk_carried", message("mistake.unshrunk_carried"), step, marks


def _offset_unshrunk(met: OffsetStep | RolledStep, case: Case, should: list[float], step: int) -> Iterator[Mistake]:
    bends, shrink = case.layout.indices_of(step), case.shrink(step)
    if met.ref == "raised_by":
        yield "unshrunk", message("mistake.unshrunk.offset"), step, _moved(should, -shrink, bends)
        says = message("mistake.shrink_in_spacing")
        yield "shrink_in_spacing", says, step, _moved(should, -shrink, bends[:1])
    yield _shrink_in_spacing(case, should, step)


def _shrink_in_spacing(case: Case, should: list[float], step: int) -> Mistake:
    marks = _moved(should, case.shrink(step), case.layout.indices_of(step)[1:2])
    return "shrink_in_spacing", message("mistake.shrink_in_spacing"), step, marks


def _clearance_mistakes(met: AnyStep, over: Obstacle | None, case: Case, step: int) -> Iterator[Mistake]:
    """The clearance above what it goes over forgotten, or added twice."""
    for factor, code in ((0, "clearance_forgotten"), (2, "clearance_twice")) if over else ():
        changed = over and over.model_copy(update={"clear": over.clear * factor})
        marks = _marks_of_changed(case, step, met.model_copy(update={"over": changed}))
        if marks:
            yield code, message(f"mistake.{code}"), step, marks


def _marks_of_changed(case: Case, step: int, instead: AnyStep) -> list[float] | None:
    steps = (*case.measured.steps[:step], instead, *case.measured.steps[step + 1 :])
    layout = lay_out(replace(case.measured, steps=steps), case.shoe, case.limits)
    return case.exact(layout) if len(layout.owners) == len(case.laid) else None


@_mistakes_in.register
def _in_turn(met: BendStep | KickStep, case: Case, should: list[float], step: int) -> Iterator[Mistake]:
    """A 90's gain forgotten in all that comes after it, or its deduct."""
    after = case.layout.indices_after(step)
    if after:
        says = message("mistake.no_gain")
        yield "no_gain", says, step, _moved(should, case.shoe.gain, after)
    says = message("mistake.no_deduct")
    yield "no_deduct", says, step, _moved(should, case.shoe.deduct, case.layout.indices_of(step))


@_mistakes_in.register
def _in_box_offset(met: BoxOffsetStep, case: Case, should: list[float], step: int) -> Iterator[Mistake]:
    """The straight that goes into the box forgotten."""
    if met.end == "start" and met.straight > SIXTEENTH and met.stamped is None:
        marks = _marks_of_changed(case, step, met.model_copy(update={"straight": 0.0}))
        if marks:
            yield "no_straight", message("mistake.no_straight"), step, marks


def _setting_mistakes(case: Case, should: list[float]) -> Iterator[Mistake]:
    """Hook reversed, one reference taken for another, the notch for a centre that is no 45: for one bend or all."""
    everything = tuple(range(len(should)))
    groups = [everything] if len(should) > 1 else []
    groups += [(index,) for index in everything]
    for group in groups:
        step = case.layout.owners[group[0]] if len(group) == 1 else None
        for code, key, swap in _SWAPS:
            laid = tuple(swap(mark) if index in group else mark for index, mark in enumerate(case.laid))
            yield code, message(f"mistake.{key}"), step, replace(case, laid=laid).exact()
    for index, mark in enumerate(case.laid):
        bend = case.layout.path.bends[index]
        if mark.reference == "notch" and abs(math.degrees(bend.angle) - 45) > 0.5:
            middle = (bend.start + bend.end) / 2
            says = message("mistake.notch_not_45")
            yield "notch_not_45", says, case.layout.owners[index], [*should[:index], middle, *should[index + 1 :]]
    other_end = [case.layout.path.length - at for at in should]
    yield "other_end", message("mistake.other_end"), None, other_end
    for index in everything:
        says = message("mistake.both_ends", mark=index + 1)
        yield "both_ends", says, case.layout.owners[index], [*should[:index], other_end[index], *should[index + 1 :]]


def _other_hook(mark: PencilMark) -> PencilMark:
    return replace(mark, hook="B" if mark.hook == "A" else "A")


def _for(reference: Reference) -> Callable[[PencilMark], PencilMark]:
    return lambda mark: replace(mark, reference=reference)


_SWAPS: tuple[tuple[str, str, Callable[[PencilMark], PencilMark]], ...] = (
    ("hook_reversed", "hook_reversed", _other_hook),
    ("wrong_reference", "star", _for("star")),
    ("wrong_reference", "arrow", _for("arrow")),
)


def _deduct_mistakes(case: Case, should: list[float]) -> Iterator[Mistake]:
    nineties = [i for i, bend in enumerate(case.layout.path.bends) if abs(math.degrees(bend.angle) - 90) < 0.5]
    for size, (deduct, _) in TYPICAL_SHOE.items():
        if abs(deduct - case.shoe.deduct) > 1 / 4:
            says = message("mistake.wrong_size", size=size)
            yield "wrong_size", says, None, _moved(should, case.shoe.deduct - deduct, nineties)


def _slips(case: Case, should: list[float]) -> Iterator[Mistake]:
    """The arithmetic itself: one mark alone is off, or all from one bend on by the same."""
    off = [mark.at - right for mark, right in zip(case.laid, should, strict=True)]
    for index, by in enumerate(off):
        step = case.layout.owners[index]
        says = message("mistake.arithmetic", mark=index + 1)
        yield "arithmetic", says, step, _moved(should, by, [index])
    for index, by in enumerate(off[:-1]):
        says = message("mistake.arithmetic_from", mark=index + 1)
        yield "arithmetic_from", says, case.layout.owners[index], _moved(should, by, range(index, len(off)))
