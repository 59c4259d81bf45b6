"""Every way to do one step of a run: what each takes, and whether it can be made here on this shoe.

The figures of a pair of bends come from the formulas of `alternatives`; whether a way can be made is
found by laying the whole run out with it.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import singledispatch
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
    OffsetStep,
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
from conduit.plan.alternatives import ways_over
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


@singledispatch
def _angle_of(step: AnyStep | None) -> float:
    """What tells one way of a kind from another: of most the angle in degrees."""
    return float(getattr(step, "angle", 0.0))


@_angle_of.register
def _shots_of(step: SweepStep) -> float:
    return float(step.count)


@_angle_of.register
def _kicks_angle(step: KickStep) -> float:
    return step.kick_angle or -1.0


_Figures = tuple[Measure | None, Measure | None, Measure | None, float]


@dataclass(frozen=True)
class _Pairs:
    """A step with pairs of bends, as the card's figures take it: its way, its rise and how wide a thing is. Inches."""

    way: str
    rise: float
    angle: Degrees
    width: float = 0.0


@singledispatch
def _pairs_in(step: AnyStep | None, shoe: Shoe, head: Head) -> _Pairs | None:
    """The pairs of bends of a step; None of a kind that has none of one angle."""
    return None


@_pairs_in.register
def _in_offset(step: OffsetStep, shoe: Shoe, head: Head) -> _Pairs | None:
    return _Pairs("offset", rise_of(step, head.stand_off), step.angle)


@_pairs_in.register
def _in_rolled(step: RolledStep, shoe: Shoe, head: Head) -> _Pairs | None:
    return _Pairs("offset", math.hypot(step.rise, step.roll), step.angle)


@_pairs_in.register
def _in_box_offset(step: BoxOffsetStep, shoe: Shoe, head: Head) -> _Pairs | None:
    return _Pairs("offset", abs(step.drop(shoe.diameter)), step.angle) if step.stamped is None else None


@_pairs_in.register
def _in_three_bends(step: Saddle3Step, shoe: Shoe, head: Head) -> _Pairs | None:
    return _Pairs("saddle3", rise_of(step, head.stand_off), step.angle)


@_pairs_in.register
def _in_four_bends(step: Saddle4Step, shoe: Shoe, head: Head) -> _Pairs | None:
    wide = step.width + 2 * step.margin
    return _Pairs("saddle4", rise_of(step, head.stand_off), step.angle, wide) if not step.beyond else None


def _figures(step: AnyStep | None, shoe: Shoe, head: Head) -> _Figures | None:
    """Spacing, shrink, room and degrees of a step with pairs of bends, also where it cannot be made."""
    pairs = _pairs_in(step, shoe, head)
    if not pairs or pairs.rise <= 0:
        return None
    found = (one for one in ways_over(pairs.rise, shoe, width=pairs.width) if one.way == pairs.way)
    one = next((one for one in found if abs(one.angle - pairs.angle) < 1e-9), None)
    if one is None:
        return None
    return _measure(one.spacing, head), _measure(one.shrink, head), _measure(one.room, head), one.degrees


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
