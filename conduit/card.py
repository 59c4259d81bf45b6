"""The card way: marks by rule of thumb, as a person does the sums, each with its arithmetic as a sentence.

Source: handbook, Trade §4 and Figures. The card counts corners as sharp, knows no radius, and adds up
from the pipe's end; what it leaves out (shrink of a kick, of a box offset) is left out here too.
Inches and degrees.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import singledispatch

from conduit.shoe import Hook, Reference, Shoe
from conduit.steps import (
    AnyStep,
    BendStep,
    BoxOffsetStep,
    KickStep,
    OffsetStep,
    RolledStep,
    Saddle3Step,
    Saddle4Step,
    SweepStep,
)
from conduit.tables import CARD_OFFSETS, CARD_SADDLES
from conduit.units import format_angle, format_length


@dataclass(frozen=True)
class CardMark:
    """A mark by the card: from the pipe's end A, with reference, hook and angle."""

    at: float
    reference: Reference
    hook: Hook
    angle: float


@dataclass(frozen=True)
class CardStep:
    """What the card gives for one step: marks along the pipe, and the arithmetic as sentences.

    `shrink` and `spacing` where the card has them. No marks: the card does not know this step.
    """

    step: int
    marks: tuple[CardMark, ...]
    lines: tuple[str, ...]
    spacing: float | None = None
    shrink: float | None = None


@dataclass
class Tally:
    """Where the person's sum stands: `base` plus a measure on this leg is a place on the pipe."""

    shoe: Shoe
    stand_off: float
    push_through: bool = False
    base: float = 0.0
    turned: bool = False
    lines: list[str] = field(default_factory=list)

    def says(self, sentence: str) -> None:
        """One more line of arithmetic."""
        self.lines.append(sentence)

    def turn(self, at: float) -> None:
        """After a 90 with its back at `at`: the next leg is hooked behind it, and the gain comes off."""
        self.says(f"Next leg: legs so far {_in(self.base + at)} less gain {_in(self.shoe.gain)}.")
        self.base += at - self.shoe.gain
        self.turned = True


def card_way(
    steps: Sequence[AnyStep], shoe: Shoe, stand_off: float = 0.0, push_through: bool = False
) -> list[CardStep]:
    """The card's marks for every step that it knows, on a pipe measured from its end A.

    `push_through`: saddles with all hooks the same way and marks in order, no turning end for end.
    """
    tally = Tally(shoe, stand_off, push_through)
    done: list[CardStep] = []
    for index, step in enumerate(steps):
        tally.lines = []
        marks, spacing, shrink = on_card(step, tally)
        done.append(CardStep(index, tuple(marks), tuple(tally.lines), spacing, shrink))
    return done


Answer = tuple[list[CardMark], float | None, float | None]


def _in(inches: float) -> str:
    return format_length(inches)


def _figures(angle: float) -> tuple[float, float]:
    """The card's multiplier and shrink per inch; between its lines, those of the nearest."""
    nearest = min(CARD_OFFSETS, key=lambda line: abs(line - angle))
    return CARD_OFFSETS[nearest]


def _rise_of(step: OffsetStep | Saddle3Step | Saddle4Step, tally: Tally) -> float:
    if step.over is None:
        return step.rise or 0.0
    rise = step.over.height + step.over.clear - tally.stand_off
    tally.says(f"Rise: height {_in(step.over.height)} + clearance {_in(step.over.clear)} = {_in(rise)}.")
    return rise


@singledispatch
def on_card(step: AnyStep, tally: Tally) -> Answer:
    """What the card gives for one step. The card knows no fixed couplings or pull points."""
    return [], None, None


@on_card.register
def _(step: BendStep, tally: Tally) -> Answer:
    if abs(step.angle - 90) > 0.5:
        tally.says("The card has no figures for a single bend that is no 90.")
        tally.base += step.at
        return [], None, None
    half = tally.shoe.diameter / 2
    at = {"back": step.at, "centre": step.at + half, "wall": step.at - step.stand_off}[step.to]
    if tally.turned:
        mark = CardMark(tally.base + at, "star", "B", 90)
        tally.says(
            f"Back to back: from the back of the last 90 measure {_in(at)}, star on the mark, hook the other way."
        )
    else:
        mark = CardMark(tally.base + at - tally.shoe.deduct, "arrow", "A", 90)
        tally.says(
            f"Mark: height {_in(tally.base + at)} less deduct {_in(tally.shoe.deduct)} = {_in(mark.at)}, on the arrow."
        )
    tally.turn(at)
    return [mark], None, None


def _offset(rise: float, angle: float, tally: Tally) -> tuple[float, float]:
    multiplier, per_inch = _figures(angle)
    spacing, shrink = rise * multiplier, rise * per_inch
    tally.says(f"Spacing: rise {_in(rise)} × {multiplier:g} = {_in(spacing)}.")
    tally.says(f"Shrink: rise {_in(rise)} × {_in(per_inch)} = {_in(shrink)}.")
    return spacing, shrink


def _placed(ref: str, at: float, angle: float, spacing: float, shrink: float, tally: Tally) -> list[CardMark]:
    if ref == "raised_by":
        far = tally.base + at + shrink
        tally.says(f"Mark nearest the face: {_in(tally.base + at)} + shrink {_in(shrink)} = {_in(far)}, on the star.")
        tally.says(f"Other mark: one spacing back, {_in(far - spacing)}, on the star.")
        return [CardMark(far - spacing, "star", "A", angle), CardMark(far, "star", "A", angle)]
    first = tally.base + at if ref == "starts_at" else tally.base + at + shrink / 2 - spacing / 2
    tally.says(f"First mark {_in(first)}, second one spacing on {_in(first + spacing)}, both on the arrow, same hook.")
    return [CardMark(first, "arrow", "A", angle), CardMark(first + spacing, "arrow", "A", angle)]


@on_card.register
def _(step: OffsetStep, tally: Tally) -> Answer:
    rise = _rise_of(step, tally)
    spacing, shrink = _offset(rise, step.angle, tally)
    marks = _placed(step.ref, step.at, step.angle, spacing, shrink, tally)
    tally.base += shrink
    return marks, spacing, shrink


@on_card.register
def _(step: RolledStep, tally: Tally) -> Answer:
    rise = (step.rise**2 + step.roll**2) ** 0.5
    tally.says(f"True rise: square root of {_in(step.rise)}² + {_in(step.roll)}² = {_in(rise)}.")
    spacing, shrink = _offset(rise, step.angle, tally)
    marks = _placed(step.ref, step.at, step.angle, spacing, shrink, tally)
    tally.base += shrink
    return marks, spacing, shrink


@on_card.register
def _(step: BoxOffsetStep, tally: Tally) -> Answer:
    rise = abs(step.knockout - step.stand_off - tally.shoe.diameter / 2)
    if step.end == "end":
        tally.says("A box offset at the far end is done last, after trimming to length.")
        return [], None, None
    multiplier, _ = _figures(step.angle)
    spacing = rise * multiplier
    tally.says(f"Box offset: rise {_in(rise)} × {multiplier:g} = {_in(spacing)} between the marks; shrink is ignored.")
    first = tally.base + step.straight
    return (
        [CardMark(first, "arrow", "A", step.angle), CardMark(first + spacing, "arrow", "A", step.angle)],
        spacing,
        0.0,
    )


@on_card.register
def _(step: Saddle3Step, tally: Tally) -> Answer:
    rise = _rise_of(step, tally)
    multiplier, per_inch = CARD_SADDLES[min(CARD_SADDLES, key=lambda line: abs(line - step.angle))]
    spacing, shrink = rise * multiplier, rise * per_inch
    centre = tally.base + step.at + shrink
    tally.says(f"Shrink to the centre: rise {_in(rise)} × {_in(per_inch)} = {_in(shrink)}.")
    tally.says(
        f"Centre mark: {_in(tally.base + step.at)} + {_in(shrink)} = {_in(centre)}, notch, {format_angle(step.angle)}."
    )
    tally.says(f"Outer marks: rise {_in(rise)} × {multiplier:g} = {_in(spacing)} either side, on the arrow.")
    hook: Hook = "A" if tally.push_through else "B"
    tally.says(
        "All hooks the same way, marks in order."
        if tally.push_through
        else "Centre first; outer hooks face the centre."
    )
    tally.base += 2 * shrink
    outer = step.angle / 2
    return (
        [
            CardMark(centre - spacing, "arrow", hook, outer),
            CardMark(centre, "notch", "A", step.angle),
            CardMark(centre + spacing, "arrow", "A", outer),
        ],
        spacing,
        shrink,
    )


@on_card.register
def _(step: Saddle4Step, tally: Tally) -> Answer:
    rise = _rise_of(step, tally)
    spacing, shrink = _offset(rise, step.angle, tally)
    near = tally.base + step.near - step.margin + shrink
    far = tally.base + step.near + step.width + step.margin + shrink
    tally.says(
        f"Inner mark: near edge {_in(step.near)} - margin {_in(step.margin)} + shrink {_in(shrink)} = {_in(near)}."
    )
    tally.says(f"Far inner mark: far edge plus margin plus the first offset's shrink = {_in(far)}.")
    tally.says("Outer marks one spacing out; turn the shoe round for the second pair: the hook faces the thing.")
    tally.base += 2 * shrink
    toward: Hook = "A" if tally.push_through else "B"
    places = ((near - spacing, toward), (near, toward), (far, "A"), (far + spacing, "A"))
    return [CardMark(at, "arrow", hook, step.angle) for at, hook in places], spacing, 2 * shrink  # type: ignore[arg-type]


@on_card.register
def _(step: KickStep, tally: Tally) -> Answer:
    half = tally.shoe.diameter / 2
    at = step.at + (0.0 if step.to == "back" else half)
    # By hand the kick is bent until the tape reads the rise, which makes just the angle of rise and setback.
    tally.says("Bend the 90 first; then kick until the tape reads the rise. The kick's shrink is left out.")
    ninety = CardMark(tally.base + at - tally.shoe.deduct, "arrow", "A", 90)
    tally.says(f"90: {_in(tally.base + at)} less deduct {_in(tally.shoe.deduct)} = {_in(ninety.at)}, on the arrow.")
    if step.kick_back is None:
        tally.turn(at)
        return [ninety], None, None
    angle = math.degrees(math.atan2(step.rise, step.kick_back))
    base = tally.base + at
    tally.turn(at)
    if step.when == "after":
        return [ninety, CardMark(tally.base + step.kick_back, "notch", "A", angle)], None, None
    return [CardMark(base - half - step.kick_back, "notch", "A", angle), ninety], None, None


@on_card.register
def _(step: SweepStep, tally: Tally) -> Answer:
    at = step.at + (0.0 if step.to == "back" else tally.shoe.diameter / 2)
    length = 1.571 * step.radius
    gaps = step.shots if step.spacing == "exact" else step.shots - 1
    spacing = length / gaps
    first = tally.base + at - tally.shoe.diameter / 2 - step.radius + (spacing / 2 if step.spacing == "exact" else 0.0)
    tally.says(f"Developed length: 1.571 × radius {_in(step.radius)} = {_in(length)}.")
    tally.says(f"{step.shots} shots of {90 / step.shots:g}°, {_in(spacing)} apart ({gaps} gaps).")
    marks = [CardMark(first + spacing * i, "notch", "A", 90 / step.shots) for i in range(step.shots)]
    tally.base += at - (2 * step.radius + tally.shoe.diameter - length)
    tally.turned = True
    return marks, spacing, None
