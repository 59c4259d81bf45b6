"""Runs that journeymen bend every day, made up from a seed: one shape or many, in all materials and sizes.

Whoever measures them chooses as a person does: an angle that the shoe can make, legs with room for it, figures in
whole, half and quarter inches or in 5 mm.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from random import Random
from typing import Any

from conduit.bender import Shoe, typical_shoe
from conduit.tables import CARD_ANGLES, CARD_SADDLES, DEFAULT_LIMITS, LEAST_RADIUS, TRADE_SIZES, Material, TradeSize
from conduit.units import MM_PER_INCH

Step = dict[str, Any]
TURNS = {"right": "up down", "left": "up down", "up": "right left", "down": "right left"}
OPPOSITE = {"right": "left", "left": "right", "up": "down", "down": "up", "out": "in", "in": "out"}
# Straight that a person leaves between an offset's bends, in diameters; and beyond a bend, in inches, for the shoe.
BETWEEN, BEYOND = 1.5, 3.0


@dataclass(frozen=True)
class Stock:
    """Pipe of one kind and what it is bent on."""

    material: Material
    trade_size: TradeSize
    machine: bool = False

    @property
    def called(self) -> str:
        """As a table's row is called."""
        return f"{self.trade_size} {self.material}{' by machine' if self.machine else ''}"

    @property
    def figures(self) -> dict[str, Any] | None:
        """The shoe of a machine that bends a size which hands bend too; else the typical one serves."""
        hand = typical_shoe(self.material, self.trade_size)
        if not self.machine or not hand or hand.is_machine:
            return None
        return {"machine": True}

    @property
    def has_box_offsets(self) -> bool:
        """Whether a pipe of this size is offset into a box: a large one stands on struts."""
        return self.trade_size in TRADE_SIZES[:4]

    @property
    def shoe(self) -> Shoe:
        """What it is bent on, as far as room goes."""
        typical = typical_shoe(self.material, self.trade_size)
        assert typical
        return typical


BY_HAND = [Stock("EMT", size) for size in TRADE_SIZES[:4]]
BY_HAND += [Stock(material, size) for material in ("rigid", "IMC") for size in TRADE_SIZES[:3]]
BY_MACHINE = [Stock(material, size, True) for material in ("rigid", "IMC") for size in TRADE_SIZES[:4]]
BY_MACHINE += [Stock("EMT", size, True) for size in TRADE_SIZES[4:] if size in LEAST_RADIUS]
STOCKS = [*BY_HAND, *BY_MACHINE]


class _Measurer:
    """Makes up one run's figures, as they are read off a tape."""

    def __init__(self, stock: Stock, luck: Random) -> None:
        self.luck, self.stock = luck, stock
        self.radius, self.diameter = stock.shoe.radius, stock.shoe.diameter
        self.metric = luck.random() < 0.2
        self.divisions = luck.choice([1, 1, 2, 4])

    def written(self, least: float, most: float) -> str:
        """A figure between two, in inches."""
        if self.metric:
            return f"{5 * math.ceil(self.luck.uniform(least, most) * MM_PER_INCH / 5)}"
        parts = math.ceil(self.luck.uniform(least, most) * self.divisions)
        whole, rest = divmod(parts, self.divisions)
        return f"{whole} {rest}/{self.divisions}" if rest else f"{whole}"

    def inches(self, written: str) -> float:
        """What was written, in inches."""
        if self.metric:
            return float(written) / MM_PER_INCH
        whole, _, part = written.partition(" ")
        over, _, under = part.partition("/")
        return float(whole) + (float(over) / float(under) if part else 0.0)

    def leg(self, most: float = 48.0) -> str:
        """From the back of a 90 to that of the next."""
        least = 2 * self.radius + 2 * self.diameter + BEYOND
        return self.written(least, max(most, least + 24))

    def stub(self) -> str:
        """From an end to the back of the first 90, or from the last to an end."""
        least = self.radius + self.diameter + self.stock.shoe.straight_ahead + BEYOND
        return self.written(least, max(40.0, least + 24))

    def rise(self) -> str:
        """How far an offset goes."""
        return self.written(2, 8) if self.diameter < 2 else self.written(4, 16)

    def angle_for(self, rise: float, angles: tuple[float, ...] = CARD_ANGLES) -> float | None:
        """An angle at which an offset's bends stand apart, seldom the gentlest."""
        fits = [angle for angle in angles if self.between(rise, angle) > BETWEEN * self.diameter]
        usual = [angle for angle in fits if 22 < angle < 46]
        return self.luck.choice(usual or fits) if fits else None

    def between(self, rise: float, angle: float, centre: float = 0.0) -> float:
        """Straight between two bends; `centre`: the angle of the other, where it is another."""
        half = math.radians((angle + (centre or angle)) / 4)
        sine = math.sin(math.radians(angle))
        return rise / sine - 2 * self.radius * math.tan(half)

    def across(self, heading: str) -> str:
        """A side of a run along a wall."""
        return self.luck.choice([side for side in OPPOSITE if side not in (heading, OPPOSITE[heading])])


def _offset(m: _Measurer, heading: str, at: float) -> list[Step]:
    rise = m.rise()
    angle = m.angle_for(m.inches(rise)) or 10.0
    where = m.written(at + m.inches(rise) / math.tan(math.radians(angle)) + m.radius, at + 40)
    step = {"kind": "offset", "toward": m.across(heading), "rise": rise, "angle": f"{angle:g}", "at": where}
    return [{**step, "ref": "raised_by"}]


def _saddle3(m: _Measurer, heading: str, at: float) -> list[Step]:
    rise = m.written(1.5, 4) if m.diameter < 2 else m.written(3, 8)
    makes = [centre for centre in CARD_SADDLES if m.between(m.inches(rise), centre / 2, centre) > BETWEEN * m.diameter]
    if not makes:
        return []
    centre = max(makes) if 45.0 not in makes else m.luck.choice([45.0, 45.0, max(makes)])
    along = m.inches(rise) / math.tan(math.radians(centre / 2)) + m.radius
    where = m.written(at + along, at + along + 30)
    return [{"kind": "saddle3", "toward": m.across(heading), "rise": rise, "angle": f"{centre:g}", "at": where}]


def _saddle4(m: _Measurer, heading: str, at: float) -> list[Step]:
    rise = m.rise()
    angle = m.angle_for(m.inches(rise), (15.0, 22.5, 30.0, 45.0))
    if angle is None:
        return []
    along = m.inches(rise) / math.tan(math.radians(angle)) + 2 * m.radius
    step = {"kind": "saddle4", "toward": m.across(heading), "rise": rise, "angle": f"{angle:g}", "margin": "1"}
    return [{**step, "near": m.written(at + along, at + along + 30), "width": m.written(2 * m.radius, 30 + m.radius)}]


SHAPES: dict[str, Callable[[_Measurer, str, float], list[Step]]] = {
    "offset": _offset,
    "Three-bend saddle": _saddle3,
    "Four-bend saddle": _saddle4,
}


def _ninety(m: _Measurer, turn: str, at: str) -> Step:
    return {"kind": "bend", "turn": turn, "at": at}


def _taken(m: _Measurer, step: Step) -> float:
    """How far along its leg a step without a turn reaches, at the most."""
    far = ("near", "width") if step["kind"] == "saddle4" else ("at",)
    end = sum(m.inches(step[one]) for one in far)
    angle = math.radians(float(step["angle"])) / (2 if step["kind"] == "saddle3" else 1)
    return end + (m.inches(step["rise"]) / math.tan(angle) if step["kind"] != "offset" else 0) + 2 * m.radius


BENDS = {"offset": 2, "saddle3": 3, "saddle4": 4}


def _degrees(step: Step) -> float:
    """What an offset or a saddle adds to the bends of a run."""
    return float(step["angle"]) * (2 if step["kind"] == "saddle3" else BENDS[step["kind"]])


def _chain(m: _Measurer, bends: int) -> tuple[str, list[Step], str]:
    """A run of some bends in three directions: its first heading, its steps, its end."""
    ways = [m.luck.choice(pair) for pair in (("up", "up", "down"), ("right", "left"), ("out", "in"))]
    heading = first = m.luck.choice(ways[:2])
    steps: list[Step] = []
    count, turned, clear = 0, 0.0, m.stock.shoe.straight_ahead + BEYOND
    while count < bends and turned + 90 <= DEFAULT_LIMITS.most_degrees:
        left = bends - count
        between: list[Step] = []
        if left > 1 and m.luck.random() < 0.4:
            shape = SHAPES[m.luck.choice([name for name in SHAPES if left > 3 or name == "offset"])]
            between = shape(m, heading, clear)
        if between and turned + _degrees(between[0]) > DEFAULT_LIMITS.most_degrees:
            break
        count += BENDS[between[0]["kind"]] if between else 0
        turned += _degrees(between[0]) if between else 0.0
        steps += between
        reached = _taken(m, between[0]) if between else 0.0
        if count < bends or not between:
            # On and on in its three directions: a run goes somewhere, and not round.
            turn = m.luck.choice([way for way in ways if way != heading])
            if reached:
                at = m.written(reached + m.radius + 2 * m.diameter + BEYOND, reached + m.radius + 40)
            else:
                at = m.leg() if steps else m.stub()
            steps.append(_ninety(m, turn, at))
            heading, count, turned = turn, count + 1, turned + 90
            clear = m.radius + 2 * m.diameter + BEYOND
        else:
            return first, steps, m.written(reached + clear, reached + clear + 30)
    return first, steps, m.stub()


def _plain_shape(name: str, m: _Measurer) -> tuple[str, list[Step], str]:
    heading, clear = m.luck.choice(["up", "right", "left"]), m.stock.shoe.straight_ahead + BEYOND
    if name in SHAPES:
        steps = SHAPES[name](m, heading, clear)
        return heading, steps, m.written(_taken(m, steps[0]) + clear, _taken(m, steps[0]) + 50) if steps else ""
    turn = m.luck.choice(TURNS[heading].split())
    legs = [m.stub(), m.leg(), m.stub()]
    if name == "stub":
        return heading, [_ninety(m, turn, legs[0])], m.written(20 + m.radius, 80)
    if name == "kick":
        rise = m.written(1, 5)
        back = m.written(3 * m.inches(rise) + 2 * m.radius, 3 * m.inches(rise) + 2 * m.radius + 8)
        at = m.written(m.inches(back) + m.radius + clear, m.inches(back) + m.radius + clear + 40)
        kick = {"kind": "kick90", "turn": turn, "at": at, "toward": m.luck.choice(["out", "in"]), "rise": rise}
        return heading, [{**kick, "kick_back": back}], legs[2]
    if name == "box offsets":
        boxes = [
            {"kind": "box_offset", "surface": "in", "knockout": m.written(1, 1.5), "straight": "2", "end": end}
            for end in ("start", "end")
        ]
        if m.metric:
            boxes = [{**box, "straight": "50"} for box in boxes]
        return heading, [boxes[0], _ninety(m, turn, m.written(30 + m.radius, 60)), boxes[1]], m.written(30, 60)
    back = {"U": OPPOSITE[heading], "Z": heading, "three ways": m.luck.choice(["out", "in"])}[name]
    return heading, [_ninety(m, turn, legs[0]), _ninety(m, back, legs[1])], legs[2]


ONE_SHAPE = ("stub", "U", "Z", "three ways", "kick", "box offsets", *SHAPES)


def everyday_run(stock: Stock, seed: int) -> dict[str, Any]:
    """A run document: one shape in three of five, else a chain of 3 to 12 bends (fewer on large pipe)."""
    luck = Random(f"{stock.called} {seed}")
    while True:
        m = _Measurer(stock, luck)
        if luck.random() < 0.6:
            kinds = ONE_SHAPE if stock.has_box_offsets else [one for one in ONE_SHAPE if one != "box offsets"]
            heading, steps, end = _plain_shape(luck.choice(kinds), m)
        else:
            heading, steps, end = _chain(m, luck.randint(3, 12 if m.diameter < 2 else 6))
        if steps:
            break
    tape = {"tape": "1 mm"} if m.metric else {}
    shoe = {"shoe": stock.figures} if stock.figures else {}
    run = {"material": stock.material, "trade_size": stock.trade_size, "start": {"heading": heading}, "steps": steps}
    return {**run, "end": {"at": end}, **tape, **shoe}
