"""The exact way as arithmetic that a person can follow (docs/trade.md, Each bend): every number can be asked why.

Figures are shown to a thousandth; what is carried is not rounded.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import singledispatch

from conduit.bender import Reference, Shoe
from conduit.catalogue import Message, has_message, message
from conduit.document import AnyPart, AnyStep, KickStep, RaisedPart, RolledStep, Saddle3Step, SlopeStep, SweepStep
from conduit.layout import Layout, PathBend, tangent_length
from conduit.marking.marks import Mark
from conduit.simulation import Arc
from conduit.tables import OUTSIDE_DIAMETER
from conduit.units import format_angle

# Digits of what a small number divides, so that the result comes out as written.
FINE = 7


def n(value: float, digits: int = 3) -> str:
    """A figure to a thousandth (or so many digits), without trailing zeros."""
    text = f"{value:.{digits}f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def shoe_lines(shoe: Shoe) -> list[Message]:
    """How radius and arc offset come from deduct and gain: R = (G - d)/(2 - π/2), a = D - R - d/2."""
    return [
        message(
            "work.radius",
            gain=n(shoe.gain, FINE),
            diameter=n(shoe.diameter, FINE),
            divisor=n(2 - math.pi / 2, FINE),
            radius=n(shoe.radius),
        ),
        message(
            "work.arc_offset",
            deduct=n(shoe.deduct),
            radius=n(shoe.radius),
            half=n(shoe.diameter / 2),
            offset=n(shoe.arc_offset),
        ),
        *_room_lines(shoe),
    ]


def _room_lines(shoe: Shoe) -> list[Message]:
    """The straight pipe that the shoe needs on either side of a bend, and whether that was measured."""
    front, offset = n(shoe.straight_ahead - max(0.0, shoe.arc_offset)), n(max(0.0, shoe.arc_offset))
    hook = message("work.hook_usual" if shoe.front is None else "work.hook_measured")
    heel = message("work.heel_usual" if shoe.heel is None else "work.heel_measured")
    return [
        message("work.ahead", front=front, hook=hook, offset=offset, ahead=n(shoe.straight_ahead)),
        message("work.behind", behind=n(shoe.straight_behind), heel=heel, oval=n(shoe.round_behind)),
    ]


def mark_lines(arc: Arc, mark: Mark, shoe: Shoe, shows: str) -> list[Message]:
    """How a mark comes from its bend's arc on the piece, as sums that a person can redo.

    Arc = radius × angle × π / 180; the arrow lies the shoe's arc offset before the arc's start, or behind its end, by
    the hook; another reference is so much further toward the heel (docs/trade.md, The shoe).
    """
    start, end, angle = arc.start, arc.end, format_angle(math.degrees(arc.angle))
    reference = shoe.references()[mark.reference]
    lines = [message("work.arc", pipe=n(end - start), radius=n(shoe.radius), angle=angle, start=n(start), end=n(end))]
    if mark.hook == "A":
        arrow = start - shoe.arc_offset
        lines.append(message("work.arrow_a", start=n(start), offset=n(shoe.arc_offset), arrow=n(arrow)))
        moved = f"{n(arrow)} + {n(reference)}"
    else:
        arrow = end + shoe.arc_offset
        lines.append(message("work.arrow_b", end=n(end), offset=n(shoe.arc_offset), arrow=n(arrow)))
        moved = f"{n(arrow)} − {n(reference)}"
    if abs(reference) > 1e-9:
        named = reference_name(mark.reference)
        lines.append(message("work.reference", reference=named, distance=n(reference), sum=moved, at=n(mark.at)))
    return [*lines, message("work.tape", at=shows)]


def reference_name(reference: Reference) -> Message:
    """What a reference on the shoe is called: the usual ones by the catalogue, a shoe's own as its owner named it."""
    return message(f"reference.{reference}") if has_message(f"reference.{reference}") else Message(reference)


@dataclass(frozen=True)
class StepArithmetic:
    """The exact way for one step: spacing of its first two bends' middles, shrink, and the sentences. Inches."""

    step: int
    spacing: float | None
    shrink: float | None
    lines: tuple[Message, ...]


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
    arcs = n((first.end - first.start + second.end - second.start) / 2)
    lines.append(message("work.spacing", straight=n(second.start - first.end), arcs=arcs, spacing=n(spacing)))
    if not isinstance(step, RaisedPart):
        return StepArithmetic(index, spacing, None, tuple(lines))
    used = last.end - first.start
    along = last.point(last.angle, shoe.radius).minus(first.entry).dot(first.heading_before)
    lines.append(message("work.shrink", used=n(used), along=n(along), shrink=n(used - along)))
    return StepArithmetic(index, spacing, used - along, tuple(lines))


@singledispatch
def _particulars(step: AnyStep, bends: Sequence[PathBend], shoe: Shoe) -> Iterator[Message]:
    """What is told of a kind before the travel between its corners; of most nothing."""
    return iter(())


@_particulars.register
def _of_sweep(step: SweepStep, bends: Sequence[PathBend], shoe: Shoe) -> Iterator[Message]:
    """How many shots of how much, and where a radius comes from that is not given: the pipe that it goes around."""
    if step.around:
        one = step.around
        theirs = OUTSIDE_DIAMETER[one.material][one.trade_size]
        yield message(
            "work.around",
            pipe=f"{one.trade_size} {one.material}",
            radius=n(one.radius),
            theirs=n(theirs),
            own=n(shoe.diameter),
            gap=n(one.gap),
            sum=n(one.own_radius(shoe.diameter)),
        )
    yield message("work.shots", shots=step.count, each=n(step.each), radius=n(step.radius))


@_particulars.register
def _of_kick(step: KickStep, bends: Sequence[PathBend], shoe: Shoe) -> Iterator[Message]:
    """That a kick and an offset are chosen between, and the kick's angle from rise and setback."""
    yield message("work.kick_or_offset")
    if step.kick_back is not None:
        kick = bends[0] if step.when == "before" else bends[-1]
        angle = format_angle(math.degrees(kick.angle))
        yield message("work.kick", rise=n(step.rise), setback=n(step.kick_back), angle=angle)


@_particulars.register
def _of_slope(step: SlopeStep, bends: Sequence[PathBend], shoe: Shoe) -> Iterator[Message]:
    """How far off its old heading the leg goes on: the one angle less the other."""
    slant = math.degrees(bends[0].heading_before.angle_to(bends[1].heading_after))
    angles = {"angle": format_angle(math.degrees(bends[0].angle)), "back": format_angle(step.second_angle)}
    yield message("work.slope", **angles, off=format_angle(slant))


@singledispatch
def _corner_key(step: AnyPart) -> str | None:
    """The sentence of the travel between a step's first two corners; None of a kind that is not reckoned by it."""
    return None


@_corner_key.register(RaisedPart)
@_corner_key.register(SlopeStep)
def _by_rise(step: AnyPart) -> str:
    return "work.corner"


@_corner_key.register
def _above_the_arc(step: Saddle3Step) -> str:
    return "work.corner_saddle"


def _corner_lines(step: AnyStep, bends: Sequence[PathBend], shoe: Shoe) -> list[Message]:
    """What comes before the spacing: the travel between corners, and what the bends take of it."""
    lines, key = list(_particulars(step, bends, shoe)), _corner_key(step)
    if key and len(bends) > 1:
        first = bends[0]
        travel = bends[1].vertex.minus(first.vertex).length()
        rise = travel * math.sin(first.angle)
        lines.append(message(key, rise=n(rise), angle=format_angle(math.degrees(first.angle)), travel=n(travel)))
        reaches = [tangent_length(shoe.radius, bend.angle) for bend in bends[:2]]
        one, other = map(n, reaches)
        lines.append(message("work.taken", one=one, other=other, straight=n(travel - sum(reaches))))
    return lines


@_particulars.register
def _of_rolled(step: RolledStep, bends: Sequence[PathBend], shoe: Shoe) -> Iterator[Message]:
    """The true rise of both, and toward where it lies."""
    angle = format_angle(math.degrees(math.atan2(step.roll, step.rise)))
    yield message(
        "work.rolled",
        rise=n(step.rise),
        roll=n(step.roll),
        true=n(math.hypot(step.rise, step.roll)),
        angle=angle,
        toward=message(f"way.{step.toward}"),
        aside=message(f"way.{step.roll_toward}"),
    )
    yield message("work.set_rolled", angle=angle)


def _gain_lines(bend: PathBend, shoe: Shoe) -> list[Message]:
    reach, arc = tangent_length(shoe.radius, bend.angle), bend.end - bend.start
    angle = format_angle(math.degrees(bend.angle))
    return [message("work.gain", reach=n(reach), angle=angle, pipe=n(arc), gain=n(2 * reach - arc))]
