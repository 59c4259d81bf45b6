"""What would do against a clash: each way is tried, and told only where both runs then keep clear.

A leg that lies between two parallel ones can be moved aside by making the one so much longer and the other shorter: the
run still ends where it did. Where two runs cross on one surface, either can go over the other with a saddle.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import combinations, islice

from conduit.catalogue import Message, joined, message
from conduit.document import apply_edits
from conduit.findings import Edit, stops
from conduit.geometry import DIRECTIONS
from conduit.layout import closure_words
from conduit.plan import Leg, Measure, legs_of
from conduit.space.clashes import Meeting, MeetingThing, Met, SameSide, least_between
from conduit.space.planner import Placed
from conduit.space.schema import SpaceRemedy
from conduit.space.standing import StandingRun

MOST_TRIES, MOST_TOLD = 24, 4
PARALLEL = 1 - 1e-6
# Of the way that a leg is moved, so much at least must be away from the other run.
AWAY = 0.5
SADDLE_ANGLES = ("45", "60", "30")


@dataclass(frozen=True)
class _Change:
    """A change to a run that might do."""

    run: StandingRun
    says: Message
    edits: tuple[Edit, ...]
    costs: float
    is_saddle: bool = False


def remedies_for(placed: Placed, one: str, other: str, fixed: frozenset[str] = frozenset()) -> list[SpaceRemedy]:
    """What does away with the clash of two runs, cheapest first; `fixed`: runs that are cut or bent, and stay as is.

    Each was tried: the run can be made, closes as well as before, and comes too near to nothing that it kept clear of.
    """
    here, there = placed.standing.get(one), placed.standing.get(other)
    if not here or not there:
        return []
    asked = placed.limits.between_runs
    meeting = least_between(here, there)
    if meeting.least >= asked:
        return []
    ways = [
        way
        for met in (meeting, meeting.turned())
        if met.one.given.key not in fixed and met.one.given.lead is None and not met.one.given.document.get("rack")
        for way in _ways(met, asked)
    ]
    return list(islice(_good(sorted(ways, key=lambda way: way.costs)[:MOST_TRIES], placed, meeting), MOST_TOLD))


def _good(ways: Sequence[_Change], placed: Placed, meeting: Meeting) -> Iterator[SpaceRemedy]:
    """Those that do, when they are tried; of a run's saddles the first is enough."""
    keys = meeting.one.given.key, meeting.other.given.key
    before = {key: _Stands.of(placed, key) for key in keys}
    saddled = set[str]()
    for way in ways:
        key = way.run.given.key
        if way.is_saddle and key in saddled:
            continue
        good = _tried(way, placed, before[key], keys)
        if good:
            yield good
            saddled |= {key} if way.is_saddle else set()


def _ways(met: Meeting, asked: float) -> Iterator[_Change]:
    yield from _shifts(met, asked)
    yield from _saddles(met, asked)


def _shifts(met: Meeting, asked: float) -> Iterator[_Change]:
    """Its leg at the clash moved aside: each two of its measures along parallel ways, the one longer, the other not."""
    run, layout = met.one, met.one.checked.layout
    away = run.frame.own(met.one.point_at(met.first).minus(met.other.point_at(met.second)))
    if not layout or away.length() < 1e-6:
        return
    away, head = away.unit(), run.checked.measured.head
    for first, last in combinations(legs_of(layout, run.checked.measured), 2):
        share, parallel = first.heading.dot(away), first.heading.dot(last.heading)
        if abs(parallel) < PARALLEL or abs(share) < AWAY:
            continue
        by = math.copysign(_up_to_eighth((asked - met.least) / abs(share)), share)
        moves = ((first, by), (last, -by * parallel))
        if any(leg.at + move <= 0 for leg, move in moves):
            continue
        edits = tuple(Edit(op="set", place=leg.place, value=head.tape.written(leg.at + move)) for leg, move in moves)
        yield _Change(run, _moved_words(run, first, last, by), edits, abs(by))


def _up_to_eighth(inches: float) -> float:
    """So much, or the next eighth above it."""
    return math.ceil(inches * 8 - 1e-6) / 8


def _moved_words(run: StandingRun, first: Leg, last: Leg, by: float) -> Message:
    head = run.checked.measured.head
    told = joined(closure_words(first.heading.times(by), head), ", ")
    return message("space.move", run=run.name, by=told, first=first.called, last=last.called)


def _saddles(met: Meeting, asked: float) -> Iterator[_Change]:
    """A three-bend saddle over the other run, where this one crosses it on the surface that it faces."""
    run, checked = met.one, met.one.checked
    layout, head = checked.layout, checked.measured.head
    index = _step_after(run, met.first)
    if not layout or index is None:
        return
    datum = layout.datums[index]
    here, there = (run.frame.seen_from(one.point_at(s)) for one, s in ((run, met.first), (met.other, met.second)))
    heading = run.bent.pose_at(met.first).heading
    crossing = abs(run.frame.own(met.other.frame.turned(met.other.bent.pose_at(met.second).heading)).dot(heading))
    out = DIRECTIONS["out"]
    if abs(heading.dot(out)) > 1e-6 or heading.dot(datum.heading) < PARALLEL or crossing > AWAY:
        return
    height = there.z + met.other.diameter / 2 - (here.z - run.diameter / 2 - head.stand_off)
    at = there.minus(datum.point).dot(datum.heading)
    if height <= 0 or at <= 0:
        return
    for angle in SADDLE_ANGLES:
        over = {
            "shape": "round",
            "name": met.other.name,
            "height": head.tape.written(_up_to_eighth(height)),
            "clear": head.tape.written(asked),
        }
        step = {"kind": "saddle3", "toward": "out", "over": over, "angle": angle, "at": head.tape.written(at)}
        says = message("space.saddle", run=run.name, other=met.other.name, at=head.tape.shows(at), angle=angle)
        yield _Change(run, says, (Edit(op="insert", place=f"steps.{index}", value=step),), 100.0, is_saddle=True)


def _step_after(run: StandingRun, s: float) -> int | None:
    """The step that ends the leg on which a place along the pipe lies; after the last one where none does."""
    layout = run.checked.layout
    if not layout or any(bend.start <= s <= bend.end for bend in layout.path.bends):
        return None
    before = sum(bend.end < s for bend in layout.path.bends)
    if before == len(layout.owners):
        return len(layout.steps)
    # Between the bends of one step there is no room for another.
    within = before > 0 and layout.owners[before - 1] == layout.owners[before]
    return None if within else layout.owners[before]


@dataclass(frozen=True)
class _Stands:
    """How it stands with a run: by how much it misses its box, and with whom it clashes, and how."""

    misses: float
    pairs: frozenset[tuple[str, frozenset[str]]]

    @classmethod
    def of(cls, placed: Placed, key: str) -> "_Stands":
        """As it stands where these are placed."""
        misses = (one.misses.length() for one in placed.closings() if one.run.given.key == key)
        return cls(max(misses, default=0.0), frozenset(map(_pair, placed.meetings(only=key))))


def _tried(way: _Change, placed: Placed, before: _Stands, keys: tuple[str, str]) -> SpaceRemedy | None:
    """The way if it does; `keys`: of the two runs that clash."""
    run = way.run.given
    after = placed.instead(replace(run, document=apply_edits(run.document, way.edits)))
    here, there = (after.standing.get(key) for key in keys)
    if not here or not there or stops(after.checked[run.key].findings):
        return None
    now = _Stands.of(after, run.key)
    if now.misses > max(before.misses, 1 / 32) or not now.pairs <= before.pairs - {("runs", frozenset(keys))}:
        return None
    least = least_between(here, there).least
    return SpaceRemedy(
        run=run.key, called=way.run.name, says=way.says, edits=way.edits, least=Measure.of(least, way.run.tape)
    )


def _pair(met: Met) -> tuple[str, frozenset[str]]:
    if isinstance(met, SameSide):
        return "knockout", frozenset((met.first.given.key, met.second.given.key))
    if isinstance(met, MeetingThing):
        return "thing", frozenset((met.run.given.key, met.owner.given.key))
    return "runs", frozenset((met.one.given.key, met.other.given.key))
