"""A pipe taken along the lead, step by step: what it makes of each, and where it then stands."""

from dataclasses import dataclass

from conduit.bender import Shoe
from conduit.document import AnyStep, MeasuredRun, step_name
from conduit.findings import Code, Finding, found
from conduit.geometry import Vec
from conduit.layout import Context, Datum, Layout, StepPlacement, place_step
from conduit.racks.alongside import Alongside, NotInRack, taken


@dataclass(frozen=True)
class Followed:
    """The steps that a pipe took, where the tape hooks after them, and why it stopped there, if it did.

    `later`: for each step how much further along its leg than the lead's it lies, in inches.
    """

    steps: tuple[AnyStep, ...]
    later: tuple[float, ...]
    datum: Datum
    stopped: Finding | None = None


@dataclass(frozen=True)
class LeadCourse:
    """What a pipe follows: the lead as measured and laid out, and the shoe that it is bent on."""

    measured: MeasuredRun
    layout: Layout
    shoe: Shoe


def follow(lead: LeadCourse, shoe: Shoe, start: Vec, beside: float, ends: float, until: int) -> Followed:
    """Take a pipe along the lead from `start`, for at most `until` of its steps, bent on a shoe of its own.

    `beside`: how far from the lead it begins, centre to centre; `ends`: how much further along than the lead it ends.
    It stops where the lead stops, or at a step that it cannot take, which is a finding at that step of the lead.
    """
    own = Datum(start, lead.layout.path.heading)
    steps: list[AnyStep] = []
    later: list[float] = []
    for index, (before, after) in enumerate(zip(lead.layout.datums, lead.layout.datums[1:], strict=False)):
        step = lead.measured.steps[index]
        if index >= until or step is None:
            break
        end = lead.layout.ends_at.along(after.heading, ends)
        bends = lead.layout.bends_of(index)
        at = Alongside(own, before, after, bends, lead.shoe, shoe, beside, end, lead.measured.head.tape)
        try:
            mine = taken(step, at)
        except NotInRack as no:
            told = {"step": step_name(index, step), "why": no.says, "remedy": no.remedy}
            stopped = found(Code.NOT_IN_RACK, f"steps.{index}.{no.field}", **told)
            return Followed(tuple(steps), tuple(later), own, stopped)
        head = lead.measured.head
        placed = place_step(mine, own, Context(index, shoe, head.stand_off, head.tape, at.along(end)))
        if isinstance(placed, Finding):
            return Followed(tuple(steps), tuple(later), own, placed)
        steps.append(mine)
        later.append(_later(at, placed))
        own = placed.datum
    return Followed(tuple(steps), tuple(later), own)


def _later(at: Alongside, placed: StepPlacement) -> float:
    """By how much its first vertex, or after a turn the turn's back, lies further along the leg than the lead's."""
    turns = at.after.heading.minus(at.heading).length() > 0.1
    if turns or not placed.corners or not at.bends:
        return placed.datum.point.minus(at.after.point).dot(at.heading)
    return placed.corners[0].point.minus(at.bends[0].vertex).dot(at.heading)
