"""Every way to do one step of a run: what each takes, and whether it can be made here on this shoe.

The figures of a pair of bends come from the formulas of `alternatives`; whether a way can be made is
found by laying the whole run out with it.
"""

import math
from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from pydantic import Field

from conduit.bender import Shoe
from conduit.catalogue import NOTHING, Message, joined, message
from conduit.document import (
    AnyStep,
    BoxOffsetStep,
    Head,
    KickStep,
    MeasuredRun,
    Obstacle,
    RaisedStep,
    RolledStep,
    Saddle3Step,
    Saddle4Step,
    SweepStep,
    apply_edits,
    rise_of,
)
from conduit.findings import Edit
from conduit.geometry import DIRECTIONS
from conduit.layout import Context, Hindrance, Layout, hindrance
from conduit.plan.alternatives import Alternative, ways_over
from conduit.plan.candidates import Candidate, candidates
from conduit.plan.checked_run import check_run
from conduit.plan.kick_or_offset import kick_or_offset
from conduit.plan.proof import Prover
from conduit.plan.schema import Measure
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import Degrees
from conduit.values import Result

TOUCHING = 1e-6


class Way(Result):
    """One way to do a step, with the step as it would then be written."""

    name: Message
    angle: Degrees
    spacing: Measure | None
    shrink: Measure | None
    room: Measure | None = Field(description="Length needed along the leg.")
    degrees: Degrees
    clearance: Measure | None = Field(description="Least clearance to what it goes over, where that is known.")
    why_not: Message = Field(description="Why it cannot be made here; empty where it can.")
    gentlest: bool = Field(description="The fewest degrees of those that can be made.")
    now: bool = Field(description="Whether the step is done this way as it stands.")
    step: dict[str, Any]
    then: list[Edit] = Field(description="What of the run changes besides the step.")


def ways_of(raw: Mapping[str, Any], number: int, limits: Limits = DEFAULT_LIMITS) -> list[Way]:
    """Every way to do step `number` (from 0); none where it has but one, or cannot be read.

    Raises UnreadableDocument where `raw` is not a run document at all.
    """
    checked = check_run(raw, limits)
    measured, layout, shoe = checked.measured, checked.layout, checked.shoe
    step = measured.steps[number] if 0 <= number < len(measured.steps) else None
    if step is None or not shoe or not layout:
        return []
    written = raw["steps"][number]
    thing = _thing(step, layout, number, shoe, measured)
    tried = [*candidates(step, written, measured.head.tape), *kick_or_offset(measured, raw["steps"], number)]
    found = [_way(raw, number, one, step, thing, shoe, measured.head, limits) for one in tried]
    made = [way.degrees for way in found if not way.why_not]
    return [way.model_copy(update={"gentlest": not way.why_not and way.degrees <= min(made) + 1e-9}) for way in found]


def _thing(step: AnyStep, layout: Layout, number: int, shoe: Shoe, measured: MeasuredRun) -> Hindrance | None:
    """What a saddle goes over as it was measured; where only a rise was, a block as high and as wide."""
    known = next((thing for thing in layout.hindrances if thing.step == number), None)
    if known or not isinstance(step, Saddle4Step) or step.rise is None or number >= len(layout.datums):
        return known
    head, datum = measured.head, layout.datums[number]
    toward = DIRECTIONS[step.toward]
    toward = toward.along(datum.heading, -toward.dot(datum.heading))
    if toward.length() < TOUCHING:
        return None
    block = Obstacle(height=step.rise + head.stand_off, clear=0.0)
    context = Context(number, shoe, head.stand_off, head.tape, None)
    return hindrance(block, datum, toward.unit(), step.near, step.near + step.width, context)


def _way(
    raw: Mapping[str, Any],
    number: int,
    one: Candidate,
    now: AnyStep,
    thing: Hindrance | None,
    shoe: Shoe,
    head: Head,
    limits: Limits,
) -> Way:
    edit = Edit(op="set", place=f"steps.{number}", value=one.written)
    checked = check_run(apply_edits(raw, [edit, *one.then]), limits)
    measured, layout = checked.measured, checked.layout
    step = measured.steps[number]
    stopped = next((finding for finding in checked.findings if finding.severity == "stop"), None)
    why_not = joined((stopped.says, stopped.remedy)) if stopped else NOTHING
    clearance = None
    if layout and layout.complete and not why_not and thing:
        prover = Prover(measured, replace(layout, hindrances=(thing,)), shoe)
        least = prover.judged(prover.exact_settings, with_self=False).cleared[0].clearance
        clearance = _measure(max(least, 0.0), head)
        why_not = message("way.touches") if least < -TOUCHING else NOTHING
    figures = _figures(step, shoe, head) or _laid_figures(layout, number, head)
    same = type(step) is type(now) and abs(_angle_of(step) - _angle_of(now)) < 1e-9
    spacing, shrink, room, degrees = figures
    return Way(
        name=one.name,
        angle=one.angle,
        spacing=spacing,
        shrink=shrink,
        room=room,
        degrees=degrees - one.takes_in,
        clearance=clearance,
        why_not=why_not,
        gentlest=False,
        now=same,
        step=one.written,
        then=list(one.then),
    )


def _angle_of(step: AnyStep | None) -> float:
    if isinstance(step, SweepStep):
        return float(step.count)
    if isinstance(step, KickStep):
        return step.kick_angle or -1.0
    return float(getattr(step, "angle", 0.0))


_Figures = tuple[Measure | None, Measure | None, Measure | None, float]


def _figures(step: AnyStep | None, shoe: Shoe, head: Head) -> _Figures | None:
    """Spacing, shrink, room and degrees of a step with pairs of bends, also where it cannot be made."""
    if not isinstance(step, RaisedStep | BoxOffsetStep) or (isinstance(step, Saddle4Step) and step.beyond):
        return None
    if isinstance(step, BoxOffsetStep) and step.stamped is not None:
        return None
    rise = _rise_of(step, shoe, head)
    way = {Saddle3Step: "saddle3", Saddle4Step: "saddle4"}.get(type(step), "offset")
    width = step.width + 2 * step.margin if isinstance(step, Saddle4Step) else 0.0
    found: list[Alternative] = [one for one in ways_over(rise, shoe, width=width) if one.way == way]
    one = next((one for one in found if abs(one.angle - step.angle) < 1e-9), None)
    if one is None or rise <= 0:
        return None
    return _measure(one.spacing, head), _measure(one.shrink, head), _measure(one.room, head), one.degrees


def _rise_of(step: RaisedStep | BoxOffsetStep, shoe: Shoe, head: Head) -> float:
    if isinstance(step, RolledStep):
        return float((step.rise**2 + step.roll**2) ** 0.5)
    if isinstance(step, BoxOffsetStep):
        return abs(step.drop(shoe.diameter))
    return rise_of(step, head.stand_off)


def _laid_figures(layout: Layout | None, number: int, head: Head) -> _Figures:
    """The same from the run as laid out: distance of the first two bends' middles, and degrees."""
    bends = layout.bends_of(number) if layout else []
    degrees = math.degrees(sum(bend.angle for bend in bends))
    if len(bends) < 2:
        return None, None, None, degrees
    spacing = (bends[1].start + bends[1].end - bends[0].start - bends[0].end) / 2
    room = bends[-1].vertex.minus(bends[0].entry).dot(bends[0].heading_before)
    return _measure(spacing, head), None, _measure(room, head), degrees


def _measure(inches: float, head: Head) -> Measure:
    return Measure.of(inches, head.tape)
