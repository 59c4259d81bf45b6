"""The run documents of a rack's pipes: what would have been measured of each, worked out from the lead."""

from collections.abc import Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from conduit.catalogue import message
from conduit.document import (
    MOST_TURN,
    AnyStep,
    MeasuredRack,
    RackPipe,
    StepLeftOut,
    read_document,
    read_rack,
)
from conduit.findings import Code, Finding, found
from conduit.geometry import DIRECTIONS, ORIGIN, Vec, parts_of
from conduit.plan import CheckedRun, check_run, shoe_for
from conduit.racks.following import Followed, LeadCourse, follow
from conduit.tables import DEFAULT_LIMITS, OUTSIDE_DIAMETER, Limits, Material, TradeSize
from conduit.units import Tape, parse_angle

Raw = Mapping[str, Any]
# What a server has an answer for within some seconds.
MOST_IN_A_RACK = 600


@dataclass(frozen=True)
class Member:
    """One pipe of a rack: its number (the lead is 1), where its end A stands from the lead's, its own run document.

    `beside`: from the lead's centre to its own, in inches. `taken`: what it makes of the lead's steps, one for one;
    `later`: how much further along than the lead's each lies; `leaves`: it goes on with steps of its own. `free`: its
    place is left free. `stopped`: why it does not go on, at a place in the lead's document.
    """

    number: int
    name: str
    material: Material
    trade_size: TradeSize
    beside: float
    origin: Vec
    raw: Raw
    taken: tuple[AnyStep, ...]
    later: tuple[float, ...] = ()
    leaves: bool = False
    free: bool = False
    stopped: Finding | None = None

    @property
    def diameter(self) -> float:
        """The pipe's outside diameter in inches."""
        return OUTSIDE_DIAMETER[self.material][self.trade_size]


@dataclass(frozen=True)
class Members:
    """A rack's pipes in order from the lead, the lead as it was checked, and what is found against the rack itself."""

    lead: CheckedRun
    rack: MeasuredRack
    pipes: tuple[Member, ...]
    findings: tuple[Finding, ...]


def members_of(raw: Raw, limits: Limits = DEFAULT_LIMITS) -> Members | None:
    """Every pipe of a document's rack, or None where it has none.

    Each next pipe lies the gap (or the spacing of centres) beside the one before; it takes each of the lead's steps so
    that its legs stay parallel to the lead's (`alongside`). A pipe goes as far as it can, with a finding that says why
    it stops. Raises UnreadableDocument where `raw` is not a run document at all.
    """
    rack = read_rack(raw)
    if rack is None:
        return None
    alone = {key: value for key, value in raw.items() if key != "rack"}
    lead = check_run(raw, limits)
    head = lead.measured.head
    own = tuple(step for step in lead.measured.steps if step is not None)
    first = Member(1, head.name, head.material, head.trade_size, 0.0, ORIGIN, raw, own)
    findings = [*rack.findings, *_misplaced(rack, lead), *_too_many(raw, rack, lead)]
    if not rack.layout or not lead.layout or not lead.shoe or len(findings) > len(rack.findings):
        return Members(lead, rack, (first,), tuple(findings))
    course = LeadCourse(lead.measured, lead.layout, lead.shoe)
    places = list(_places(rack, first))
    pipes = [first, *(_Maker(rack, course, alone, *place).member(_written(raw, place[0])) for place in places)]
    return Members(lead, rack, tuple(pipes), (*findings, *_too_close(rack, pipes, head.tape)))


def _written(raw: Raw, at: int) -> Raw:
    """A pipe of the rack as it was typed."""
    pipe = raw["rack"]["pipes"][at]
    return pipe if isinstance(pipe, Mapping) else {}


def _too_many(raw: Raw, rack: MeasuredRack, lead: CheckedRun) -> Iterator[Finding]:
    """More bends in all than are planned at once: each pipe's of the lead, and those of its own steps."""
    followed = len(lead.layout.path.bends) if lead.layout else 0
    own = [step for at in range(len(rack.pipes)) for step in _listed(_written(raw, at).get("steps"))]
    count = followed * len(rack.pipes) + sum(map(_bends_at_most, own))
    if count > MOST_IN_A_RACK:
        yield found(Code.TOO_MANY_BENDS, "rack.pipes", case="rack", bends=f"{count:,}", most=MOST_IN_A_RACK)


def _bends_at_most(step: object) -> int:
    """The bends of a step as it was typed, read or not."""
    written = step if isinstance(step, Mapping) else {}
    shots = written.get("shots")
    if (each := written.get("shot_angle")) is not None:
        with suppress(ValueError):
            shots = parts_of(MOST_TURN, max(parse_angle(each), 1.0))
    return max(4, shots) if isinstance(shots, int) else 4


def _listed(value: object) -> Sequence[Any]:
    return value if isinstance(value, list) else ()


def _misplaced(rack: MeasuredRack, lead: CheckedRun) -> Iterator[Finding]:
    """What keeps the pipes from being placed at all."""
    layout, start = rack.layout, lead.measured.start
    if not layout or not start:
        return
    if (layout.gap is None) == (layout.spacing is None):
        yield found(Code.RACK_SPACING, "rack.gap", case="one_of")
    for field, word in (("side", layout.side), ("strut", layout.strut)):
        if word and abs(DIRECTIONS[word].dot(DIRECTIONS[start.heading])) > 0.5:
            yield found(Code.ALONG_HEADING, f"rack.{field}", case="rack", way=message(f"way.{word}"))
    if layout.strut and abs(DIRECTIONS[layout.strut].dot(DIRECTIONS[layout.side])) > 0.5:
        yield found(Code.ALONG_HEADING, "rack.strut", case="strut")


def _too_close(rack: MeasuredRack, pipes: Sequence[Member], tape: Tape) -> Iterator[Finding]:
    """A spacing that the pipes' own thickness takes up."""
    spacing = rack.layout.spacing if rack.layout else None
    for one, other in pairwise(pipes):
        between = (one.diameter + other.diameter) / 2
        if spacing is not None and spacing < between:
            yield found(
                Code.RACK_SPACING,
                "rack.spacing",
                case="too_close",
                pipes=message("part.pipes", one=one.number, other=other.number),
                spacing=tape.shows(spacing),
                touching=tape.at_least(between),
            )
            return


Place = tuple[int, RackPipe, Material, TradeSize, float, float]


def _places(rack: MeasuredRack, lead: Member) -> Iterator[Place]:
    """Where each pipe beside the lead lies: its number in the list, itself, its kind, its diameter, how far beside."""
    layout, before, beside = rack.layout, lead.diameter, 0.0
    for at, pipe in enumerate(rack.pipes):
        pipe = pipe or RackPipe(left_out=True)
        material, size = pipe.material or lead.material, pipe.trade_size or lead.trade_size
        diameter = OUTSIDE_DIAMETER[material].get(size, before)
        if layout and layout.spacing is not None:
            beside += layout.spacing
        else:
            beside += (before + diameter) / 2 + ((layout and layout.gap) or 0.0)
        before = diameter
        yield at, pipe, material, size, diameter, beside


class _Maker:
    """Makes one pipe's document from what it follows, and from what is its own once it has left."""

    def __init__(
        self,
        rack: MeasuredRack,
        lead: LeadCourse,
        alone: Raw,
        at: int,
        pipe: RackPipe,
        material: Material,
        size: TradeSize,
        diameter: float,
        beside: float,
    ) -> None:
        self.rack, self.lead, self.alone, self.at, self.pipe = rack, lead, alone, at, pipe
        self.material, self.size, self.diameter, self.beside = material, size, diameter, beside

    def member(self, written: Raw) -> Member:
        """The pipe as a member of the rack; `written`: as it was typed."""
        head = self._head(written)
        given, _ = shoe_for(read_document({**head, "start": {}, "end": {}}).head, ())
        shoe = given or self.lead.shoe
        origin, until = self._origin(), len(self.lead.measured.steps)
        leaves = self.pipe.leaves is not None
        if self.pipe.leaves is not None:
            until = min(until, self.pipe.leaves)
        followed = follow(self.lead, shoe, origin, self.beside, self.pipe.ends, until)
        whole = len(followed.steps) == until
        own = _listed(written.get("steps")) if leaves and whole else []
        end = self._own_end(written) if leaves and whole else self._end(followed, whole)
        document = {
            **head,
            **self._apart(origin),
            "start": self._start(),
            "steps": [*map(_dumped, followed.steps), *own],
            "end": end,
        }
        name = str(head.get("name", ""))
        stopped = followed.stopped or self._too_late()
        return Member(
            self.at + 2,
            name,
            self.material,
            self.size,
            self.beside,
            origin,
            document,
            followed.steps,
            followed.later,
            leaves,
            self.pipe.left_out,
            stopped,
        )

    def _head(self, written: Raw) -> dict[str, Any]:
        """The lead's settings, with the pipe's own kind and shoe."""
        kept = {key: value for key, value in self.alone.items() if key not in ("start", "steps", "end", "couplings")}
        lead = self.lead.measured.head
        alike = (self.material, self.size) == (lead.material, lead.trade_size)
        shoe = written.get("shoe") or (kept.get("shoe") if alike else None)
        name = self.pipe.name or f"{lead.name or 'Pipe'} {self.at + 2}"
        return {**kept, "name": name, "material": self.material, "trade_size": self.size, "shoe": shoe}

    def _apart(self, origin: Vec) -> dict[str, Any]:
        """Its place, where couplings of neighbours are to be apart."""
        apart = self.rack.layout.stagger if self.rack.layout else 0.0
        place = {"number": self.at + 2, "right": origin.x, "up": origin.y, "out": origin.z, "apart": apart}
        return {"in_rack": place} if apart else {}

    def _origin(self) -> Vec:
        layout, heading = self.rack.layout, self.lead.layout.path.heading
        if not layout:
            return ORIGIN
        on_strut = (self.lead.shoe.diameter - self.diameter) / 2 if layout.strut else 0.0
        aside = DIRECTIONS[layout.side].times(self.beside).along(DIRECTIONS[layout.strut or "up"], on_strut)
        return aside.along(heading, self.pipe.starts)

    def _start(self) -> dict[str, Any]:
        start = self.lead.measured.start
        own = start.model_dump(exclude_none=True) if start else {}
        # Another pipe's knockout lies on another height, unless it stands on the same strap.
        own = own if self.diameter == self.lead.shoe.diameter else {**own, "knockout": None}
        # Its legs are worked out from where it seats.
        own.pop("connector", None)
        return {**own, "name": self.pipe.start_name or own.get("name", "")}

    def _end(self, followed: Followed, whole: bool) -> dict[str, Any]:
        """Where the lead ends, measured along the pipe's own last leg; nothing where it does not come so far."""
        end, layout = self.lead.measured.end, self.lead.layout
        if not end or not layout.complete or not whole:
            return {"at": None}
        heading = followed.datum.heading
        place = layout.ends_at.along(heading, self.pipe.ends).minus(followed.datum.point).dot(heading)
        kept = end.model_dump(exclude={"measured", "connector"}, exclude_none=True)
        kept = kept if self.diameter == self.lead.shoe.diameter else {**kept, "knockout": None}
        name = self.pipe.end_name or kept.get("name", "")
        return {**kept, "name": name, **({} if end.at is None else {"at": place})}

    def _own_end(self, written: Raw) -> Any:
        end = written.get("end")
        named = {"name": self.pipe.end_name} if self.pipe.end_name else {}
        return {**named, **end} if isinstance(end, Mapping) else {"at": None}

    def _too_late(self) -> Finding | None:
        """A pipe that is to leave after more steps than the lead has."""
        steps, leaves = len(self.lead.measured.steps), self.pipe.leaves
        if leaves is None or leaves <= steps:
            return None
        place, told = f"rack.pipes.{self.at}.leaves", {"pipe": self.at + 2, "step": leaves, "steps": steps}
        return found(Code.NOT_IN_RACK, place, case="leaves", **told)


def _dumped(step: AnyStep) -> dict[str, Any]:
    """A step as it is written in a document: figures in inches."""
    if isinstance(step, StepLeftOut):
        return {"kind": "coupling", "at": 0.0, "muted": True}
    # The lead's window is not theirs: their measures follow from the one that was taken for it. And what it goes over
    # reaches to each side of its own leg, not of theirs.
    left_out: dict[str, bool | set[str]] = {"at_least": True, "at_most": True, "over": {"reach"}}
    return {"kind": step.kind, **step.model_dump(exclude_defaults=True, exclude=left_out)}


def mapped(place: str, member: Member) -> str:
    """A place in a pipe's own document as one in the lead's: a step that it follows, or one of its own."""
    first, _, rest = place.partition(".")
    if member.number == 1:
        return place
    if first == "steps" and rest:
        number, _, field = rest.partition(".")
        if int(number) < len(member.taken):
            return f"steps.{number}"
        own = f"rack.pipes.{member.number - 2}.steps.{int(number) - len(member.taken)}"
        return f"{own}.{field}" if field else own
    if member.leaves and first == "end":
        return f"rack.pipes.{member.number - 2}.{place}"
    return f"rack.pipes.{member.number - 2}"
