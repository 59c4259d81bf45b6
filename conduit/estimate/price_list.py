"""A crew's price list: read from CSV, line by line, and looked up for what is to be brought."""

import csv
from collections.abc import Iterator, Mapping, Sequence
from typing import get_args

from pydantic import Field

from conduit.catalogue import Message, message
from conduit.cutting import WHAT, BringLine, What
from conduit.tables import JOINTS, TRADE_SIZES
from conduit.units import UnreadableLength, parse_length
from conduit.values import Given, Result

PRICE_COLUMNS = ("what", "trade size", "material", "length", "price")
MOST_PRICES, LONGEST_LIST = 1000, 100_000
MOST_PRICE = 1_000_000.0
# Lengths that differ by less are one, in inches.
SAME = 1 / 64


class Price(Given):
    """What one of something costs. What is left empty is any: a price for couplings of 3/4, whatever the material."""

    what: What
    trade_size: str = Field("", max_length=8)
    material: str = Field("", max_length=12)
    length: str = Field("", max_length=20)
    price: float = Field(gt=0, le=MOST_PRICE)

    @property
    def narrowness(self) -> int:
        """How much of it is said; the narrowest price counts."""
        return sum(bool(one) for one in (self.trade_size, self.material, self.length))

    def is_of(self, line: BringLine) -> bool:
        """Whether it is a price of that."""
        return (
            self.what == line.what
            and self.trade_size in ("", line.trade_size)
            and self.material in ("", line.material)
            and (not self.length or _same_length(self.length, line.length))
        )


class PriceFault(Result):
    """A line of a list that could not be read: its number, from 1, and why."""

    line: int
    says: Message


def price_of(line: BringLine, prices: Sequence[Price]) -> Price | None:
    """The narrowest price of a line of what to bring; of several as narrow the last."""
    return max((one for one in reversed(prices) if one.is_of(line)), key=lambda one: one.narrowness, default=None)


def read_prices(text: str) -> tuple[list[Price], list[PriceFault]]:
    """The prices that a CSV names, and the lines that cannot be read; one fault and nothing counts.

    Columns by their names in the first line, in any order: `what` and `price`, and if wanted `trade size`, `material`
    and `length`; others are passed over, so that the list of what to bring can have a column added. Read in time
    linear in its length.
    """
    rows = csv.reader(text.splitlines())
    header = [name.strip().casefold() for name in next(rows, [])]
    missing = [name for name in ("what", "price") if name not in header]
    if missing:
        return [], [PriceFault(line=1, says=message("price.no_column", columns=", ".join(missing)))]
    prices: list[Price] = []
    faults: list[PriceFault] = []
    for number, row in enumerate(rows, 2):
        cells = dict(zip(header, (cell.strip() for cell in row), strict=False))
        # So a size is given out, that a spreadsheet makes no date of it.
        cells["trade size"] = cells.get("trade size", "").removesuffix('"').rstrip()
        if not any(cells.values()):
            continue
        wrong = next(_faults(cells), None)
        if wrong or len(prices) >= MOST_PRICES:
            faults.append(PriceFault(line=number, says=wrong or message("price.too_many", most=MOST_PRICES)))
            if len(prices) >= MOST_PRICES:
                break
        # A line without a price says only that there is none.
        elif cells["price"]:
            prices.append(_price(cells))
    return prices, faults


def _price(cells: Mapping[str, str]) -> Price:
    return Price(
        what=cells["what"].casefold(),  # type: ignore[arg-type]
        trade_size=cells.get("trade size", ""),
        material=_material(cells),
        length=cells.get("length", ""),
        price=_amount(cells["price"]),
    )


def _material(cells: Mapping[str, str]) -> str:
    given = cells.get("material", "")
    return next((one for one in JOINTS if one.casefold() == given.casefold()), given)


def _faults(cells: Mapping[str, str]) -> Iterator[Message]:
    if cells.get("what", "").casefold() not in WHAT:
        yield message("price.what", given=cells.get("what", "")[:40], choices=", ".join(get_args(What)))
    if cells.get("trade size", "") not in ("", *TRADE_SIZES):
        yield message("price.size", given=cells["trade size"][:40])
    if _material(cells) not in ("", *JOINTS):
        yield message("price.material", given=cells["material"][:40])
    if cells.get("length") and _inches(cells["length"]) is None:
        yield message("price.length", given=cells["length"][:40])
    try:
        amount = _amount(cells.get("price", "") or "1")
    except ValueError:
        amount = 0.0
    if not 0 < amount <= MOST_PRICE:
        yield message("price.amount", given=cells["price"][:40])


def _amount(text: str) -> float:
    """An amount, its decimals after a point, or after a comma where there is no point."""
    return float(text.replace(",", "" if "." in text else "."))


def _inches(text: str) -> float | None:
    try:
        return parse_length(text)
    except UnreadableLength:
        return None


def _same_length(one: str, other: str) -> bool:
    first, second = _inches(one), _inches(other)
    return first is not None and second is not None and abs(first - second) < SAME
