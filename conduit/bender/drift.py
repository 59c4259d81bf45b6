"""What a shoe teaches over time: its figures from the bends that were logged (docs/trade.md, The shoe).

A 90 whose back was taped from end A, hook toward A, shows the deduct: reading less the mark. The
distance between two backs, both hooks toward A, shows the gain: reading less the distance of the marks.
Inches, degrees, days.
"""

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass

from pydantic import Field

from conduit.bender.calibration import fit_dial
from conduit.bender.shoe import Dial, NoSuchShoe, Shoe
from conduit.catalogue import Message, message
from conduit.units import Degrees, format_length
from conduit.values import Result

# So many bends before a figure is proposed, and so much that it must differ by.
ENOUGH_BENDS, WORTH_TELLING, WORTH_TELLING_DEGREES = 3, 1 / 32, 0.4
LEAST_DAYS = 7.0
DIALS = (30.0, 45.0, 90.0)


@dataclass(frozen=True)
class LoggedBend:
    """A bend as logged: the day, dial and finder, and the deduct or gain that its tape reading shows."""

    day: float
    dial: Degrees
    angle: Degrees
    deduct: float | None = None
    gain: float | None = None


class Seen(Result):
    """One bend's showing of a figure."""

    day: float
    value: float


class FittedFigure(Result):
    """A figure as the log shows it, beside the one in use."""

    in_use: float
    mean: float | None
    spread: float = Field(description="One standard deviation.")
    bends: int
    drift: float | None = Field(description="Inches in thirty days; null where a week is not spanned.")
    proposed: float | None
    says: Message
    seen: list[Seen]


class FittedDial(Result):
    """The dial line as the log shows it: true angle = factor × dial + constant, degrees."""

    factor: float
    constant: Degrees
    spread: float
    bends: int
    proposed: bool
    says: Message
    seen: list[tuple[float, float]]


class Learned(Result):
    """All that the log shows of a shoe."""

    deduct: FittedFigure
    gain: FittedFigure
    dial: FittedDial | None


def learn(shoe: Shoe, log: Sequence[LoggedBend]) -> Learned:
    """What the logged bends of a shoe show of its deduct, gain and dial, and which figure had better be changed.

    Means and their spread; a change is proposed from `ENOUGH_BENDS` on where it is larger than can be chance (twice
    the mean's standard error) and worth telling. Drift is the slope of a regression over the days; the dial's line is
    fitted by least squares (docs/trade.md, The shoe). Inches, degrees.
    """
    return Learned(
        deduct=_figure("deduct", shoe.deduct, [(one.day, one.deduct) for one in log if one.deduct is not None]),
        gain=_figure("gain", shoe.gain, [(one.day, one.gain) for one in log if one.gain is not None]),
        dial=_dial(shoe.dial, [(one.dial, one.angle) for one in log]),
    )


def _figure(name: str, in_use: float, seen: Sequence[tuple[float, float]]) -> FittedFigure:
    values = [value for _, value in seen]
    mean = statistics.fmean(values) if values else None
    spread = statistics.stdev(values) if len(values) > 1 else 0.0
    # Twice the mean's own uncertainty: less than that may be chance.
    sure = max(WORTH_TELLING, 2 * spread / math.sqrt(len(values) or 1))
    propose = mean is not None and len(values) >= ENOUGH_BENDS and abs(mean - in_use) > sure
    return FittedFigure(
        in_use=in_use,
        mean=mean,
        spread=spread,
        bends=len(values),
        drift=_drift(seen),
        proposed=mean if propose else None,
        says=_says(name, in_use, mean, len(values), propose),
        seen=[Seen(day=day, value=value) for day, value in seen],
    )


def _says(name: str, in_use: float, mean: float | None, bends: int, propose: bool) -> Message:
    figure = message(f"figure.{name}")
    if mean is None:
        return message("learned.none", figure=figure)
    told = {"mean": format_length(mean, "1/32"), "in_use": format_length(in_use, "1/32")}
    return message("learned.in_use" if propose else "learned.stands", count=bends, figure=figure, **told)


def _drift(seen: Sequence[tuple[float, float]]) -> float | None:
    days = [day for day, _ in seen]
    if len(seen) < ENOUGH_BENDS or max(days) - min(days) < LEAST_DAYS:
        return None
    return 30 * statistics.linear_regression(days, [value for _, value in seen]).slope


def _dial(in_use: Dial, pairs: Sequence[tuple[float, float]]) -> FittedDial | None:
    try:
        fit = fit_dial(pairs)
    except NoSuchShoe:
        return None
    off = max(abs(fit.dial.true(dial) - in_use.true(dial)) for dial in _spanned(pairs))
    propose = len(pairs) >= ENOUGH_BENDS and off > max(WORTH_TELLING_DEGREES, 2 * fit.spread / math.sqrt(len(pairs)))
    line = {"factor": f"{fit.dial.factor:.3f}", "constant": f"{round(fit.dial.constant, 1) + 0.0:+.1f}"}
    key = "learned.dial_off" if propose else "learned.dial_stands"
    return FittedDial(
        factor=fit.dial.factor,
        constant=fit.dial.constant,
        spread=fit.spread,
        bends=len(pairs),
        proposed=propose,
        says=message(key, count=len(pairs), off=f"{off:.1f}", **line),
        seen=list(pairs),
    )


def _spanned(pairs: Sequence[tuple[float, float]]) -> list[float]:
    """The usual dial angles within those that were bent, so that no line is judged far from its bends."""
    dials = [dial for dial, _ in pairs]
    return [dial for dial in DIALS if min(dials) - 5 <= dial <= max(dials) + 5] or dials
