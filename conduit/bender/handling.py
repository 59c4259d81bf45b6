"""How a crew bends pipe: the ways that it has, and what is heavy for hands (docs/trade.md, Ways of bending)."""

import math
from dataclasses import dataclass
from typing import Literal, Self

from conduit.tables import DEFAULT_LIMITS, Limits, Material, TradeSize, heavy_from
from conduit.units import Radians

# On the floor; over an edge, what is bent hanging free of it; in the air, shoe up; in a machine.
Way = Literal["floor", "edge", "air", "machine"]


@dataclass(frozen=True)
class Handling:
    """What a crew has to bend with. Lengths in inches.

    `edge_height`: how far bent pipe may hang free of a step, bench or tailgate, 0 where there is none; `knuckles`:
    what a hand around the handle takes beyond its tube; `machine_height`: of pipe in a machine over the floor;
    `heavy_from`: bends of this pipe from so many radians on are heavy in the air.
    """

    air: bool = DEFAULT_LIMITS.air
    edge_height: float = DEFAULT_LIMITS.edge_height
    helper: bool = DEFAULT_LIMITS.helper
    knuckles: float = DEFAULT_LIMITS.knuckles
    machine_height: float = DEFAULT_LIMITS.machine_height
    heavy_from: Radians = math.inf

    @classmethod
    def by(cls, limits: Limits, material: Material, size: TradeSize) -> Self:
        """As a crew's limits have it, for pipe of this kind."""
        return cls(
            limits.air,
            limits.edge_height,
            limits.helper,
            limits.knuckles,
            limits.machine_height,
            math.radians(heavy_from(material, size)),
        )
