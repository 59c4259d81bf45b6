"""What to bring for a job: sticks, couplings, connectors, straps and boxes, by kind and size."""

from collections import Counter
from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import Any, NamedTuple

from conduit.cutting.cut_list import PlannedRun
from conduit.cutting.model import Kind
from conduit.tables import TRADE_SIZES
from conduit.units import format_length
from conduit.values import Result

WHAT = ("stick", "coupling", "connector", "bushing", "strap", "strut", "box")
BRING_COLUMNS = ("what", "trade size", "material", "length", "count", "for")


class StrutNeeded(NamedTuple):
    """A strut of so much length; the note says for which rack, and where the pipes sit on it."""

    length: str
    note: str


NO_STRUTS: Mapping[StrutNeeded, int] = MappingProxyType({})


class BringLine(Result):
    """So many of one thing. `size` and `material` are empty where they do not matter."""

    what: str
    trade_size: str
    material: str
    length: str
    count: int
    note: str


def bring_list(
    runs: Sequence[PlannedRun],
    documents: Mapping[str, Mapping[str, Any]],
    sticks: Mapping[tuple[Kind, float], int],
    couplings: Mapping[Kind, int],
    struts: Mapping[StrutNeeded, int] = NO_STRUTS,
) -> list[BringLine]:
    """What the runs need besides what lies on the rack. `sticks`: to be bought, by kind and length.

    `struts`: those of the job's racks, by length and where the straps sit on them.

    Threaded pipe (IMC, rigid) comes with a coupling on each new stick, which is not ordered again. A box where
    several runs end is one box. A pipe end takes a connector at a box, a bushing where it stays open.
    """
    in_order = sorted(sticks.items(), key=lambda one: one[0][1])
    lines = [_line("stick", kind, count, length=format_length(length)) for (kind, length), count in in_order]
    bought = Counter[Kind]()
    for (kind, _), count in sticks.items():
        bought[kind] += count
    for kind, count in couplings.items():
        with_sticks = bought[kind] if kind.material != "EMT" else 0
        note = f"{with_sticks} more come on the new sticks" if with_sticks else ""
        lines.append(_line("coupling", kind, max(0, count - with_sticks), note))
    connectors, bushings = Counter[Kind](), Counter[Kind]()
    straps = Counter[tuple[Kind, str]]()
    boxes: dict[str, list[str]] = {}
    for run in (run for run in runs if run.plan.makeable):
        straps[run.kind, _strap_kind(documents[run.key])] += len(run.plan.supports)
        for name in (piece.end_b for piece, one in zip(run.plan.pieces, run.plan.couplings, strict=False) if one.box):
            connectors[run.kind] += 2
            boxes.setdefault(name, []).append(run.name)
        for end in ("start", "end"):
            part = documents[run.key].get(end)
            said: Mapping[str, Any] = part if isinstance(part, Mapping) else {}
            if said.get("open"):
                bushings[run.kind] += 1
                continue
            connectors[run.kind] += 1
            name = str(said.get("name") or "").strip() or f"{end} of {run.name or 'a run'}"
            boxes.setdefault(name, []).append(run.name)
    for what, counts in (("connector", connectors), ("bushing", bushings)):
        lines += [_line(what, kind, count) for kind, count in counts.items()]
    lines += [_line("strap", kind, count, note) for (kind, note), count in straps.items()]
    lines += [
        BringLine(what="strut", trade_size="", material="", length=one.length, count=count, note=one.note)
        for one, count in struts.items()
    ]
    lines += [_box(name, into) for name, into in boxes.items()]
    return sorted((line for line in lines if line.count), key=_place)


def _strap_kind(document: Mapping[str, Any]) -> str:
    """Which straps hold a run: tight to the surface, or standing off."""
    off = str(document.get("stand_off") or "0").strip()
    return "one-hole, tight" if off in ("0", "0.0") else f"standing off {off}"


def _place(line: BringLine) -> tuple[int, str, int]:
    """By what it is, then by material and size; boxes as they are met."""
    size = TRADE_SIZES.index(line.trade_size) if line.trade_size in TRADE_SIZES else 0
    return WHAT.index(line.what), line.material, size


def _line(what: str, kind: Kind, count: int, note: str = "", length: str = "") -> BringLine:
    return BringLine(
        what=what, trade_size=kind.trade_size, material=kind.material, length=length, count=count, note=note
    )


def _box(name: str, into: list[str]) -> BringLine:
    runs = ", ".join(dict.fromkeys(run for run in into if run))
    return BringLine(
        what="box", trade_size="", material="", length="", count=1, note=f"{name}: {runs}" if runs else name
    )
