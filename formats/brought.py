"""What is brought in: how a file is meant, and what was understood of it."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from conduit.catalogue import Message
from formats.refusal import Refusal

MOST_BYTES, MOST_RUNS, MOST_POINTS = 32 * 2**20, 400, 20_000
# Inches in each unit that a drawing may be in.
UNITS = {"in": 1.0, "ft": 12.0, "mm": 1 / 25.4, "cm": 1 / 2.54, "m": 1000 / 25.4}


class UnreadableFile(Refusal):
    """Nothing of it can be read; the message says why. `asks`: what is to be said of it first."""

    def __init__(self, says: Message, asks: Literal["", "unit"] = "") -> None:
        super().__init__(says)
        self.asks = asks


@dataclass(frozen=True)
class Meant:
    """How a file is meant, where it does not say: the pipe, a drawing's layer, how many inches its unit is, its up.

    `things`: whether what lies in the way in a model comes along.
    """

    trade_size: str = "3/4"
    material: str = "EMT"
    layer: str = ""
    inches: float | None = None
    up: str | None = None
    things: bool = False


AS_IT_SAYS = Meant()


@dataclass(frozen=True)
class BroughtRun:
    """A run as it was read; `told`: what to look at."""

    document: Mapping[str, Any]
    told: tuple[Message, ...] = ()

    @property
    def name(self) -> str:
        """As it is called."""
        return str(self.document.get("name") or "")


@dataclass(frozen=True)
class Brought:
    """What a file says; `passed_over`: what was not understood, each by where it stands, with why."""

    runs: tuple[BroughtRun, ...]
    passed_over: tuple[tuple[str, Message], ...] = ()
    boxes: tuple[Mapping[str, Any], ...] = ()
