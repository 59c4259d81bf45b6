"""What is to be brought, with a crew's prices."""

import math
from collections.abc import Sequence

from pydantic import Field

from conduit.catalogue import NOTHING
from conduit.cutting import BringLine
from conduit.estimate.price_list import Price, price_of
from conduit.values import Result


class PricedLine(Result):
    """A line of what to bring, with what one costs and what all do; null where the list has no price."""

    line: BringLine
    each: float | None
    total: float | None


class Materials(Result):
    """What is to be brought, and what it comes to as far as there are prices."""

    lines: list[PricedLine]
    total: float
    unpriced: int = Field(description="Lines that the price list says nothing of.")


def materials_of(lines: Sequence[BringLine], prices: Sequence[Price]) -> Materials:
    """What is to be brought, priced; boxes, which differ by their names alone, in one line."""
    boxes = [line for line in lines if line.what == "box"]
    others = [line for line in lines if line.what != "box"]
    together = (
        [boxes[0].model_copy(update={"count": sum(box.count for box in boxes), "note": NOTHING})] if boxes else []
    )
    priced = [_priced(line, prices) for line in (*others, *together)]
    return Materials(
        lines=priced,
        total=math.fsum(one.total or 0.0 for one in priced),
        unpriced=sum(one.total is None for one in priced),
    )


def _priced(line: BringLine, prices: Sequence[Price]) -> PricedLine:
    price = price_of(line, prices)
    if price is None:
        return PricedLine(line=line, each=None, total=None)
    return PricedLine(line=line, each=price.price, total=price.price * line.count)
