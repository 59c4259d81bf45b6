"""A plan as a person reads it at a terminal: what to cut, where the marks stand, what is bent in which order."""

import textwrap
from collections.abc import Iterator

from conduit.bender import Way
from conduit.bending import Bencher, Sheet, SheetBend
from conduit.racks import RackPlan

LEAST_WIDE, MOST_WIDE = 40, 100

WHERE: dict[Way, str] = {
    "floor": "on the floor",
    "edge": "over an edge",
    "air": "in the air",
    "machine": "in the machine",
}


def in_words(bencher: Bencher, rack: RackPlan | None, columns: int) -> str:
    """The plan in lines of at most so many columns (held to 40 to 100)."""
    width = min(max(columns, LEAST_WIDE), MOST_WIDE)
    return "\n".join(line for told in _told(bencher, rack) for line in _wrapped(told, width)) + "\n"


def _wrapped(told: str, width: int) -> list[str]:
    """A line broken at the width, what follows hanging under its first word."""
    inset = len(told) - len(told.lstrip())
    return textwrap.wrap(told, width, subsequent_indent=" " * (inset + 3), break_long_words=False) or [""]


def _told(bencher: Bencher, rack: RackPlan | None) -> Iterator[str]:
    plan = bencher.plan
    name = bencher.measured.head.name or "The run"
    shoe = f" on {plan.shoe.name} (deduct {plan.shoe.deduct.reads}, gain {plan.shoe.gain.reads})" if plan.shoe else ""
    yield f"{name}: {plan.trade_size} {plan.material}{shoe}."
    if not plan.makeable:
        yield "It cannot be bent as it is measured; what stands against it is told beside this."
    elif plan.developed_length:
        straps = ", ".join(one.reads for one in plan.supports)
        yield f"Can be bent. Pipe {plan.developed_length.reads} in all" + (f", straps at {straps}." if straps else ".")
        for piece in plan.pieces:
            yield from _piece(bencher.sheet(piece.number))
    if rack:
        yield from _rack(rack)


def _piece(sheet: Sheet) -> Iterator[str]:
    yield ""
    yield f"PIECE {sheet.piece} of {sheet.of_pieces}: {sheet.end_a or 'end A'} to {sheet.end_b or 'end B'}"
    yield from (f"  {line}" for line in sheet.cutting)
    if not sheet.bends:
        return
    yield "  Mark from end A:"
    for bend in sorted(sheet.bends, key=lambda one: one.use.at.inches):
        yield f"    {bend.use.at.reads:>9}  bend {bend.number}, {bend.use.reference}, hook {bend.use.hook}"
    yield "  Bend:"
    for number, bend in enumerate(sheet.bends, 1):
        yield from _bend(number, bend)
    yield from (f"    {line}" for line in sheet.stamps)


def _bend(number: int, bend: SheetBend) -> Iterator[str]:
    dial = "" if bend.dial_reads == bend.angle_reads else f" (dial {bend.dial_reads})"
    flip = "Turn it end for end. " if bend.end_for_end else ""
    use = bend.use
    yield (
        f"    {number}. Bend {bend.number}, {WHERE[bend.where]}: {use.at.reads} on the {use.reference}, "
        f"hook {use.hook}, to {bend.angle_reads}{dial}. {flip}{bend.turn_says}".rstrip()
    )
    if bend.checks:
        yield "       Then: " + "; ".join(f"{check.says} {check.reads}" for check in bend.checks) + "."


def _rack(rack: RackPlan) -> Iterator[str]:
    yield ""
    yield "RACK"
    for pipe in rack.pipes:
        length = f", pipe {pipe.developed_length.reads}" if pipe.developed_length else ""
        state = "place left free" if pipe.free else "can be bent" if pipe.makeable else "cannot be bent yet"
        yield f"  {pipe.number}. {pipe.name or 'the lead'}: {pipe.trade_size} {pipe.material}{length}; {state}."
    for gap in rack.gaps:
        yield f"  Least gap, pipes {gap.first} and {gap.second}: {gap.least.reads}."
