"""The exact way as arithmetic that a person can follow (docs/trade.md, Each bend): every number can be asked why.

Figures are shown to a thousandth; what is carried is not rounded.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from conduit.bender import Shoe
from conduit.document import AnyStep, KickStep, RaisedStep, RolledStep, Saddle3Step, SlopeStep, SweepStep
from conduit.layout import Layout, PathBend, tangent_length
from conduit.marking.marks import Mark
from conduit.simulation import Arc
from conduit.tables import OUTSIDE_DIAMETER
from conduit.units import format_angle


def n(value: float) -> str:
    """A figure to a thousandth, without trailing zeros."""
    text = f"{value:.3f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def shoe_lines(shoe: Shoe) -> list[str]:
    """How radius and arc offset come from deduct and gain: R = (G - d)/(2 - π/2), a = D - R - d/2."""
    return [
        f"Radius of the pipe's centreline: (gain {n(shoe.gain)} − diameter {n(shoe.diameter)}) ÷ 0.429 = "
        f"{n(shoe.radius)}.",
        f"Arrow to where a bend begins: deduct {n(shoe.deduct)} − radius {n(shoe.radius)} − half the diameter "
        f"{n(shoe.diameter / 2)} = {n(shoe.arc_offset)}.",
        *_room_lines(shoe),
    ]


def _room_lines(shoe: Shoe) -> list[str]:
    """The straight pipe that the shoe needs on either side of a bend, and whether that was measured."""
    front, offset = n(shoe.straight_ahead - max(0.0, shoe.arc_offset)), n(max(0.0, shoe.arc_offset))
    hook = "its front edge to the arrow" if shoe.front is not None else "3/8 of the radius, its front not measured"
    heel = "as measured" if shoe.heel is not None else "a diameter of the pipe, its heel not measured"
    return [
        f"Straight pipe that it needs ahead of a bend: {front} ({hook}) + {offset} = {n(shoe.straight_ahead)}.",
        f"Behind a bend: {n(shoe.straight_behind)} ({heel}). Between two bends the lesser of both.",
    ]


def mark_lines(arc: Arc, mark: Mark, shoe: Shoe, shows: str) -> list[str]:
    """How a mark comes from its bend's arc on the piece, as sums that a person can redo.

    Arc = radius × angle × π / 180; the arrow lies the shoe's arc offset before the arc's start, or behind its end, by
    the hook; another reference is so much further toward the heel (docs/trade.md, The shoe).
    """
    start, end, angle = arc.start, arc.end, format_angle(math.degrees(arc.angle))
    reference = shoe.references()[mark.reference]
    lines = [
        f"The bend takes {n(end - start)} of pipe: radius {n(shoe.radius)} × {angle} × π ÷ 180. "
        f"It begins at {n(start)} and ends at {n(end)}."
    ]
    if mark.hook == "A":
        arrow = start - shoe.arc_offset
        lines.append(f"Arrow, hook toward A: {n(start)} − {n(shoe.arc_offset)} = {n(arrow)}.")
        moved = f"{n(arrow)} + {n(reference)}"
    else:
        arrow = end + shoe.arc_offset
        lines.append(f"Arrow, hook toward B: {n(end)} + {n(shoe.arc_offset)} = {n(arrow)}.")
        moved = f"{n(arrow)} − {n(reference)}"
    if abs(reference) > 1e-9:
        lines.append(f"The {mark.reference} is {n(reference)} further toward the heel: {moved} = {n(mark.at)}.")
    return [*lines, f"On your tape {shows}."]


@dataclass(frozen=True)
class StepArithmetic:
    """The exact way for one step: spacing of its first two bends' middles, shrink, and the sentences. Inches."""

    step: int
    spacing: float | None
    shrink: float | None
    lines: tuple[str, ...]


def exact_way(layout: Layout, steps: Sequence[AnyStep | None], shoe: Shoe) -> list[StepArithmetic]:
    """The exact way for every step that was laid out and has bends."""
    found = []
    for index, step in enumerate(steps):
        bends = layout.bends_of(index)
        if step is not None and bends:
            found.append(_of_step(index, step, bends, shoe))
    return found


def _of_step(index: int, step: AnyStep, bends: Sequence[PathBend], shoe: Shoe) -> StepArithmetic:
    lines = _corner_lines(step, bends, shoe)
    if len(bends) == 1:
        return StepArithmetic(index, None, None, (*lines, *_gain_lines(bends[0], shoe)))
    first, second, last = bends[0], bends[1], bends[-1]
    spacing = (second.start + second.end - first.start - first.end) / 2
    lines.append(
        f"Between the marks of its first two bends: straight {n(second.start - first.end)} + half of both arcs "
        f"{n((first.end - first.start + second.end - second.start) / 2)} = {n(spacing)}."
    )
    if not isinstance(step, RaisedStep):
        return StepArithmetic(index, spacing, None, tuple(lines))
    used = last.end - first.start
    along = last.point(last.angle, shoe.radius).minus(first.entry).dot(first.heading_before)
    lines.append(f"Shrink: pipe used {n(used)} − room along the leg {n(along)} = {n(used - along)}.")
    return StepArithmetic(index, spacing, used - along, tuple(lines))


def _around(step: SweepStep, shoe: Shoe) -> Iterator[str]:
    """Where a radius comes from that is not given: the pipe that the sweep goes around."""
    if step.around:
        one = step.around
        theirs = OUTSIDE_DIAMETER[one.material][one.trade_size]
        yield (
            f"Around the {one.trade_size} {one.material}: its radius {n(one.radius)} + half of both diameters, "
            f"({n(theirs)} + {n(shoe.diameter)}) ÷ 2, + the gap {n(one.gap)} = {n(one.own_radius(shoe.diameter))}."
        )


def _corner_lines(step: AnyStep, bends: Sequence[PathBend], shoe: Shoe) -> list[str]:
    """What comes before the spacing: the travel between corners, and what the bends take of it."""
    first = bends[0]
    shows = format_angle(math.degrees(first.angle))
    lines: list[str] = []
    if isinstance(step, SweepStep):
        lines += _around(step, shoe)
        lines.append(f"{step.count} shots of {n(step.each)}° on a radius of {n(step.radius)}.")
    if isinstance(step, RolledStep):
        roll = math.degrees(math.atan2(step.roll, step.rise))
        lines.append(
            f"True rise: √({n(step.rise)}² + {n(step.roll)}²) = {n(math.hypot(step.rise, step.roll))}; "
            f"rolled by the angle whose tangent is roll {n(step.roll)} ÷ rise {n(step.rise)}: {format_angle(roll)} "
            f"from {step.toward} toward {step.roll_toward}."
        )
        lines.append(
            "To set it: a finder against both legs reads 0 while the offset lies the way of its rise; "
            f"turn the pipe until it reads {format_angle(roll)}."
        )
    if isinstance(step, KickStep):
        lines.append(
            "A kick serves where the 90 stands at the edge of the new level. To lie flat on it for a stretch take an "
            "offset: one bend more."
        )
    if isinstance(step, KickStep) and step.kick_back is not None:
        kick = bends[0] if step.when == "before" else bends[-1]
        lines.append(
            f"Kick: the angle whose tangent is rise {n(step.rise)} ÷ setback {n(step.kick_back)}: "
            f"{format_angle(math.degrees(kick.angle))}."
        )
    if isinstance(step, SlopeStep):
        slant = math.degrees(first.heading_before.angle_to(bends[1].heading_after))
        back, off = format_angle(step.second_angle), format_angle(slant)
        lines.append(f"It turns by {shows}, back by {back}, and goes on {off} off the old leg.")
    if isinstance(step, RaisedStep | SlopeStep) and len(bends) > 1:
        travel = bends[1].vertex.minus(first.vertex).length()
        rise = travel * math.sin(first.angle)
        lines.append(f"Corner to corner: {n(rise)} ÷ sin {shows} = {n(travel)}.")
        if isinstance(step, Saddle3Step):
            lines[-1] += " The corner stands higher than the pipe's middle there, as the bend cuts it."
        reaches = [tangent_length(shoe.radius, bend.angle) for bend in bends[:2]]
        lines.append(
            f"The bends take {n(reaches[0])} and {n(reaches[1])} of that (radius × tan of half the angle); "
            f"straight between them: {n(travel - sum(reaches))}."
        )
    return lines


def _gain_lines(bend: PathBend, shoe: Shoe) -> list[str]:
    reach, arc = tangent_length(shoe.radius, bend.angle), bend.end - bend.start
    angle = format_angle(math.degrees(bend.angle))
    return [
        f"Around the corner the tape would measure 2 × {n(reach)}; the bend of {angle} uses {n(arc)} of pipe."
        f" It saves {n(2 * reach - arc)}."
    ]
