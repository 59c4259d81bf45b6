"""The card way: marks by rule of thumb, as a person does the sums, each as a sentence that can be done again.

Source: docs/trade.md, By the card. The card counts corners as sharp, knows no radius, and adds up from the pipe's
end; what it leaves out (shrink of a kick, of a box offset) is left out here too. Every measure is read off the tape
first, and every result is put on the tape before it is used again. Inches and degrees.
"""

import math
from collections.abc import Sequence
from functools import singledispatch

from conduit.bender import CENTRE, Hook, Reference, Shoe
from conduit.catalogue import Message, message
from conduit.document import (
    AnyStep,
    BendStep,
    BoxOffsetStep,
    CouplingStep,
    KickStep,
    OffsetStep,
    PullPointStep,
    RolledStep,
    Saddle3Step,
    Saddle4Step,
    SlopeStep,
    StepLeftOut,
    SweepStep,
)
from conduit.marking.sums import Sums
from conduit.marking.tally import CardMark, CardRun, CardStep, Tally
from conduit.tables import CARD_OFFSETS, CARD_SADDLES
from conduit.units import INCH_TAPE, Degrees, Tape, format_angle

# Radius to developed length of a quarter turn, as the card has it.
QUARTER = 1.571
# Degrees off 90 that the card forgives.
SURELY_NINETY = 0.5


def card_way(
    steps: Sequence[AnyStep],
    shoe: Shoe,
    stand_off: float = 0.0,
    tape: Tape = INCH_TAPE,
    end: float | None = None,
    connectors: tuple[float, float] = (0.0, 0.0),
) -> CardRun:
    """The card's way for a whole run, as one person does the sums: marks, their sentences, and the length to cut.

    `stand_off` and `end` (how long the last leg is measured) in inches; `connectors`: what they take of the first leg
    and of the last, where those are measured to the boxes' faces. Every measure is read off `tape` first, every result
    put on it before it is used again (docs/trade.md, By the card). After a bend that the card has no figures for no
    length is told.
    """
    sums = Sums(tape)
    tally = Tally(shoe, sums.read(stand_off), sums, half=sums.read(shoe.diameter / 2))
    if connectors[0]:
        tally.so_far = -sums.read(connectors[0])
    done: list[CardStep] = []
    for index, step in enumerate(steps):
        tally.own = []
        spacing, shrink, lines = on_card(step, tally)
        done.append(CardStep(index, tuple(tally.own), tuple(lines), tuple(sums.taken()), spacing, shrink))
    if end is None or not tally.known:
        return CardRun(tuple(done), None, ())
    cut = tally.at("cut", "last_leg", end, *([("connector", -connectors[1])] if connectors[1] else []))
    return CardRun(tuple(done), cut, tuple(sums.taken()))


# Spacing, shrink, and the sentences that come before those of any way.
Answer = tuple[float | None, float | None, Sequence[Message]]


def _figures(angle: Degrees, tally: Tally) -> tuple[float, float]:
    """The card's multiplier and shrink per inch of rise for an angle.

    Between its lines those of the nearest are taken, and it is told. csc θ and tan(θ/2), rounded as cards print them.
    """
    nearest = min(CARD_OFFSETS, key=lambda line: abs(line - angle))
    _own_line(angle, nearest, tally)
    return CARD_OFFSETS[nearest]


def _own_line(angle: Degrees, nearest: float, tally: Tally) -> None:
    if abs(nearest - angle) > 1e-9:
        tally.sums.says("card.not_on_it", angle=format_angle(angle), line=format_angle(nearest))


def _rise_of(step: OffsetStep | Saddle3Step | Saddle4Step, tally: Tally) -> float:
    if step.over is None:
        return tally.sums.read(step.rise or 0.0)
    own = step.over.stand_off
    stands = tally.stand_off if own is None else tally.sums.read(own)
    off = [("stand_off", -stands)] if stands else []
    return tally.sums.add("rise", ("height", step.over.height), ("clearance", step.over.clear), *off)


@singledispatch
def on_card(step: AnyStep, tally: Tally) -> Answer:
    """What the card gives for one step: spacing and shrink (inches, None where there are none) and its first sentences.

    Marks, ways and the pipe taken up so far go to the tally. One function a kind (docs/trade.md, By the card).
    """
    raise TypeError(f"no such step: {step}")


@on_card.register
def _no_card(step: CouplingStep | PullPointStep | StepLeftOut, tally: Tally) -> Answer:
    """No bend, so no card."""
    return None, None, ()


def _to_back(step: BendStep | KickStep | SweepStep, tally: Tally) -> float:
    """A turn's measure, to its back."""
    if step.to == "centre":
        return tally.sums.add("to_back", ("centre", step.at), ("half_diameter", tally.half))
    if step.to == "wall" and step.stand_off:
        return tally.sums.add("to_back", ("wall", step.at), ("stand_off", -step.stand_off))
    return tally.sums.read(step.at)


def _ninety(back: float, tally: Tally) -> CardMark:
    if tally.turned:
        at = tally.at("star_b", "to_back", back)
        return CardMark(at, "star", "B", 90)
    deduct = tally.sums.read(tally.shoe.deduct)
    at = tally.at("arrow_a", "to_back", back, ("deduct", -deduct))
    return CardMark(at, "arrow", "A", 90)


def _no_figures(what: Message, at: float, tally: Tally) -> Answer:
    tally.sums.says("card.no_figures", what=what)
    tally.known, tally.turned = False, True
    tally.so_far = tally.at("next_leg", "to_bend", at)
    return None, None, ()


@on_card.register
def _ninety_on_card(step: BendStep, tally: Tally) -> Answer:
    """A 90 on the arrow, at the back less the shoe's deduct; after the first turn on the star, from end B.

    The pipe taken up by later marks is the back less the gain. Other angles have no figures on a card.
    """
    if abs(step.angle - 90) > SURELY_NINETY:
        return _no_figures(message("card.no_ninety"), step.at, tally)
    back = _to_back(step, tally)
    lines = tally.sums.taken()
    tally.way("ninety", _ninety(back, tally))
    tally.turn(back, tally.sums.read(tally.shoe.gain), step.next_from == "centre")
    return None, None, lines


def _spacing(rise: float, angle: Degrees, tally: Tally) -> tuple[float, float]:
    multiplier, per_inch = _figures(angle, tally)
    return (
        tally.sums.times("spacing", "rise", rise, multiplier),
        tally.sums.times("shrink", "rise", rise, per_inch),
    )


def _offset(ref: str, at: float, rise: float, angle: Degrees, tally: Tally) -> Answer:
    spacing, shrink = _spacing(rise, angle, tally)
    lines = tally.sums.taken()
    if ref == "raised_by":
        far = tally.at("nearest_face", "face", at, ("shrink", shrink))
        near = tally.sums.add("other_back", ("", far), ("spacing", -spacing))
        tally.way("star", *(CardMark(one, "star", "A", angle) for one in (near, far)))
        tally.sums.says("card.as_centres")
    else:
        near = _first_mark(ref, at, spacing, shrink, tally)
        far = tally.sums.add("second_mark", ("", near), ("spacing", spacing))
        tally.way("arrow", *(CardMark(one, "arrow", "A", angle) for one in (near, far)))
        tally.sums.says("card.as_centres")
    tally.way("notch", *(CardMark(one, "notch", "B", angle) for one in (near, far)))
    tally.shrunk(shrink)
    return spacing, shrink, lines


def _first_mark(ref: str, at: float, spacing: float, shrink: float, tally: Tally) -> float:
    if ref == "starts_at":
        return tally.at("first_mark", "start", at)
    halves = (("half_shrink", tally.sums.half(shrink)), ("half_spacing", -tally.sums.half(spacing)))
    return tally.at("first_mark", "centre", at, *halves)


@on_card.register
def _offset_on_card(step: OffsetStep, tally: Tally) -> Answer:
    """An offset by multiplier and shrink per inch of rise."""
    return _offset(step.ref, step.at, _rise_of(step, tally), step.angle, tally)


@on_card.register
def _slope_on_card(step: SlopeStep, tally: Tally) -> Answer:
    """An offset of two angles has no figures on a card."""
    return _no_figures(message("card.slope"), step.at, tally)


@on_card.register
def _rolled_on_card(step: RolledStep, tally: Tally) -> Answer:
    """A rolled offset: true rise √(rise² + roll²), then as any offset."""
    rise = tally.sums.hypotenuse("true_rise", step.rise, step.roll)
    return _offset(step.ref, step.at, rise, step.angle, tally)


@on_card.register
def _box_offset_on_card(step: BoxOffsetStep, tally: Tally) -> Answer:
    """A box offset: rise = knockout - strap - half the diameter, spacing by the multiplier, shrink ignored.

    At the far end it has no marks: it is bent last, after trimming to length.
    """
    if step.stamped is not None:
        tally.sums.says("card.stamped")
        return None, None, tally.sums.taken()
    off = step.drop(tally.shoe.diameter)
    signs = 1 if off >= 0 else -1
    parts = (("knockout", step.knockout), ("strap", -step.stand_off), ("half_diameter", -tally.half))
    ordered = parts if signs > 0 else parts[::-1]
    rise = tally.sums.add("rise", *((word, signs * value) for word, value in ordered if value))
    if step.end == "end":
        tally.sums.says("card.far_box_offset")
        return None, None, tally.sums.taken()
    multiplier, _ = _figures(step.angle, tally)
    spacing = tally.sums.times("spacing", "rise", rise, multiplier, then=message("then.shrink_ignored"))
    lines = tally.sums.taken()
    first = tally.at("first_mark", "straight", step.straight)
    second = tally.sums.add("second_mark", ("", first), ("spacing", spacing))
    tally.way("arrow", *(CardMark(at, "arrow", "A", step.angle) for at in (first, second)))
    return spacing, 0.0, lines


@on_card.register
def _three_bend_saddle_on_card(step: Saddle3Step, tally: Tally) -> Answer:
    """A three-bend saddle: the centre mark a shrink beyond the obstruction's centre, outer ones a spacing away.

    Both by the card's factors per inch of rise; two ways to turn the hooks.
    """
    rise = _rise_of(step, tally)
    nearest = min(CARD_SADDLES, key=lambda line: abs(line - step.angle))
    _own_line(step.angle, nearest, tally)
    multiplier, per_inch = CARD_SADDLES[nearest]
    shrink = tally.sums.times("shrink_to_centre", "rise", rise, per_inch)
    spacing = tally.sums.times("centre_to_outer", "rise", rise, multiplier)
    centre = tally.at("centre_mark", "centre", step.at, ("shrink", shrink))
    near = tally.sums.add("outer_before", ("", centre), ("spacing", -spacing))
    far = tally.sums.add("outer_after", ("", centre), ("spacing", spacing))
    lines = tally.sums.taken()
    outer = step.angle / 2
    middle, last = CardMark(centre, "notch", "A", step.angle), CardMark(far, "arrow", "A", outer)
    tally.sums.says("card.centre_first")
    tally.way("facing_centre", CardMark(near, "arrow", "B", outer), middle, last)
    tally.sums.says("card.one_way")
    tally.way("pushed", CardMark(near, "arrow", "A", outer), middle, last)
    tally.shrunk(2 * shrink, "both_shrinks")
    return spacing, shrink, lines


@on_card.register
def _four_bend_saddle_on_card(step: Saddle4Step, tally: Tally) -> Answer:
    """A four-bend saddle as two offsets: inner marks a margin and a shrink from the edges, the others a spacing away.

    Three ways: hooks facing the obstruction, marks as bend centres on the notch, all pushed through.
    """
    rise = _rise_of(step, tally)
    spacing, shrink = _spacing(rise, step.angle, tally)
    near = tally.at("near_inner", "near_edge", step.near, ("margin", -step.margin), ("shrink", shrink))
    width = (("width", step.width), ("margin", step.margin), ("shrink", shrink))
    far = tally.at("far_inner", "near_edge", step.near, *width)
    first = tally.sums.add("near_outer", ("", near), ("spacing", -spacing))
    down, back = spacing, shrink
    if step.beyond:
        fall = tally.sums.add("fall", ("rise", rise), ("higher_beyond", -step.beyond))
        down, back = _spacing(fall, step.angle, tally)
    last = tally.sums.add("far_outer", ("", far), ("spacing", down))
    lines = tally.sums.taken()
    places = (first, near, far, last)
    ways: tuple[tuple[str, str, Reference, tuple[Hook, ...]], ...] = (
        ("facing_thing", "card.turn_round", "arrow", ("B", "B", "A", "A")),
        ("notch", "card.are_centres", "notch", ("B", "B", "A", "A")),
        ("pushed", "card.one_way_four", "arrow", ("A", "A", "A", "A")),
    )
    for name, says, reference, hooks in ways:
        tally.sums.says(says)
        tally.way(name, *(CardMark(at, reference, hook, step.angle) for at, hook in zip(places, hooks, strict=True)))
    tally.shrunk(shrink + back, "both_shrinks")
    return spacing, shrink + back, lines


@on_card.register
def _kick_on_card(step: KickStep, tally: Tally) -> Answer:
    """A kick by feel: the 90 first, then bent at the setback until the tape reads the rise; its shrink is left out.

    The angle that makes the rise is atan(rise / setback).
    """
    back = _to_back(step, tally)
    tally.sums.says("card.kick")
    lines = tally.sums.taken()
    ninety, gain = _ninety(back, tally), tally.sums.read(tally.shoe.gain)
    if step.kick_back is None:
        tally.turn(back, gain)
        return None, None, lines
    # Bent until the tape reads the rise it makes just the angle of rise and setback.
    angle = math.degrees(math.atan2(step.rise, step.kick_back))
    if step.when == "after":
        tally.turn(back, gain)
        kick = tally.at("kick", "setback", step.kick_back)
        tally.way("setback", ninety, CardMark(kick, CENTRE, "A", angle))
        return None, None, lines
    before = (("half_diameter", -tally.half), ("setback", -step.kick_back))
    kick = tally.at("kick", "to_back", back, *before)
    tally.way("setback", CardMark(kick, CENTRE, "A", angle), ninety)
    tally.turn(back, gain)
    return None, None, lines


@on_card.register
def _sweep_on_card(step: SweepStep, tally: Tally) -> Answer:
    """A sweep: developed length radius × π/2, divided over N gaps (exact) or N - 1 (ends), marked a gap apart.

    Set as bend centres or on the arrow; later measures lose 2 × radius + diameter - length. Only of 90°: the card has
    no figures for another.
    """
    if abs(step.angle - 90) > SURELY_NINETY:
        return _no_figures(message("card.sweep", angle=format_angle(step.angle)), step.at, tally)
    back, sums = _to_back(step, tally), tally.sums
    length = sums.times("developed", "radius", sums.read(step.radius), QUARTER)
    exact = step.spacing == "exact"
    gaps = step.count if exact else step.count - 1
    spacing = sums.divided("between_marks", "length", length, gaps)
    half = [("half_space", sums.half(spacing))] if exact else []
    before = (("half_diameter", -tally.half), ("radius", -step.radius))
    first = tally.at(
        "first_mark", "to_back", back, *before, *half, then=message("then.more_shots", shots=step.count - 1)
    )
    lines = sums.taken()
    marks = [first + spacing * shot for shot in range(step.count)]
    for name, reference in (("shot_centres", CENTRE), ("arrow_on_marks", "arrow")):
        tally.way(name, *(CardMark(at, reference, "A", step.each) for at in marks))
    twice = (("radius", step.radius), ("radius", step.radius), ("diameter", tally.shoe.diameter))
    gain = sums.add("sweep_gain", *twice, ("length", -length))
    tally.turn(back, gain)
    return spacing, None, lines
