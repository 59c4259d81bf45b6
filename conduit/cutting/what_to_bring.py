"""What to bring for a job: sticks, couplings, connectors, straps and boxes, by kind and size."""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from types import MappingProxyType
from typing import Any, Literal, NamedTuple, get_args

from conduit.catalogue import NOTHING, Message, message
from conduit.cutting.given import PlannedRun
from conduit.cutting.model import Kind
from conduit.document import read_length, tape_in
from conduit.tables import TRADE_SIZES, Joint
from conduit.units import TOLERANCE, Tape, format_length
from conduit.values import Result

What = Literal["stick", "coupling", "connector", "bushing", "strap", "strut", "box"]
WHAT: tuple[What, ...] = get_args(What)
BRING_COLUMNS = ("what", "trade size", "material", "length", "count", "for")


class StrutNeeded(NamedTuple):
    """A strut of so much length; the note says for which rack, and where the pipes sit on it."""

    length: str
    note: Message


NO_STRUTS: Mapping[StrutNeeded, int] = MappingProxyType({})


# A kind of pipe, and how it is joined.
Joined = tuple[Kind, Joint]


class BringLine(Result):
    """So many of one thing. `size` and `material` are empty where they do not matter."""

    what: What
    trade_size: str
    material: str
    length: str
    count: int
    note: Message


def bring_list(
    runs: Sequence[PlannedRun],
    documents: Mapping[str, Mapping[str, Any]],
    sticks: Mapping[tuple[Kind, float], int],
    couplings: Mapping[Joined, int],
    struts: Mapping[StrutNeeded, int] = NO_STRUTS,
) -> list[BringLine]:
    """What the runs need besides what lies on the rack. `sticks`: to be bought, by kind and length.

    `struts`: those of the job's racks, by length and where the straps sit on them.

    Pipe with threads (IMC, rigid) comes with a coupling on each new stick, which is not ordered again where it serves.
    A box where several runs end is one box. A pipe end takes a connector at a box, a bushing where it stays open.
    """
    needed = [run for run in runs if run.plan.makeable]
    ends = [end for run in needed for end in _ends_of(run, documents[run.key])]
    lines = [
        *_sticks(sticks),
        *_couplings(couplings, sticks),
        *_at_ends(ends),
        *_straps(needed, documents),
        *(
            BringLine(what="strut", trade_size="", material="", length=one.length, count=count, note=one.note)
            for one, count in struts.items()
        ),
        *_boxes(ends),
    ]
    return sorted((line for line in lines if line.count), key=_place)


def _sticks(sticks: Mapping[tuple[Kind, float], int]) -> Iterator[BringLine]:
    """The sticks to be bought, the shortest first."""
    for (kind, length), count in sorted(sticks.items(), key=lambda one: one[0][1]):
        yield _line("stick", kind, count, length=format_length(length))


def _couplings(couplings: Mapping[Joined, int], sticks: Mapping[tuple[Kind, float], int]) -> Iterator[BringLine]:
    """The couplings, less those that come on new sticks with threads."""
    bought = Counter[Kind]()
    for (kind, _), count in sticks.items():
        bought[kind] += count
    for (kind, joint), count in couplings.items():
        with_sticks = bought[kind] if joint == "threaded" else 0
        note = message("bring.more_come", joint=joint, count=with_sticks) if with_sticks else Message(joint)
        yield _line("coupling", kind, max(0, count - with_sticks), note)


class _PipeEnd(NamedTuple):
    """An end of pipe: of which run, and at which box; without one it stays open."""

    run: PlannedRun
    box: str | None


def _ends_of(run: PlannedRun, document: Mapping[str, Any]) -> Iterator[_PipeEnd]:
    """The ends of a run's pipe: two at each box on the way, and its own."""
    for piece, coupling in zip(run.plan.pieces, run.plan.couplings, strict=False):
        if coupling.box:
            yield from (_PipeEnd(run, str(piece.end_b)) for _ in range(2))
    for end in ("start", "end"):
        part = document.get(end)
        said: Mapping[str, Any] = part if isinstance(part, Mapping) else {}
        name = str(said.get("name") or "").strip()
        called = name or message(f"bring.{end}_of", run=run.name or message("bring.a_run"))
        yield _PipeEnd(run, None if said.get("open") else called)


def _at_ends(ends: Sequence[_PipeEnd]) -> Iterator[BringLine]:
    """A connector for each end at a box, a bushing for each that stays open."""
    for (kind, joint), count in Counter(joined(one.run) for one in ends if one.box is not None).items():
        yield _line("connector", kind, count, Message(joint))
    for kind, count in Counter(one.run.kind for one in ends if one.box is None).items():
        yield _line("bushing", kind, count)


def _straps(runs: Sequence[PlannedRun], documents: Mapping[str, Mapping[str, Any]]) -> Iterator[BringLine]:
    straps = Counter[tuple[Kind, Message]]()
    for run in runs:
        straps[run.kind, _strap_kind(documents[run.key])] += len(run.plan.supports)
    yield from (_line("strap", kind, count, note) for (kind, note), count in straps.items())


def _boxes(ends: Sequence[_PipeEnd]) -> Iterator[BringLine]:
    """Each box once, with the runs that end in it."""
    boxes: dict[str, list[str]] = {}
    for one in ends:
        if one.box is not None:
            boxes.setdefault(one.box, []).append(one.run.name)
    yield from (_box(name, into) for name, into in boxes.items())


def joined(run: PlannedRun) -> Joined:
    """What its couplings and connectors must fit."""
    return run.kind, run.plan.joints


def _strap_kind(document: Mapping[str, Any]) -> Message:
    """Which straps hold a run: tight to the surface, or standing off."""
    tape = tape_in(document)
    off = read_length("stand_off", document.get("stand_off") or 0.0, tape) or 0.0
    return message("bring.standing_off", off=Tape(tape).shows(off)) if off > TOLERANCE else message("bring.tight")


def _place(line: BringLine) -> tuple[int, str, int]:
    """By what it is, then by material and size; boxes as they are met."""
    size = TRADE_SIZES.index(line.trade_size) if line.trade_size in TRADE_SIZES else 0
    return WHAT.index(line.what), line.material, size


def _line(what: What, kind: Kind, count: int, note: Message = NOTHING, length: str = "") -> BringLine:
    return BringLine(
        what=what, trade_size=kind.trade_size, material=kind.material, length=length, count=count, note=note
    )


def _box(name: str, into: list[str]) -> BringLine:
    runs = ", ".join(dict.fromkeys(run for run in into if run))
    note = message("bring.box", box=name, runs=runs) if runs else Message(name)
    return BringLine(what="box", trade_size="", material="", length="", count=1, note=note)
