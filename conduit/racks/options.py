"""Every way in which a rack's pipes can take one step, with what it costs."""

from collections.abc import Iterator, Mapping
from typing import Any

from pydantic import Field

from conduit.catalogue import NOTHING, Message
from conduit.document import RACK_WAYS, AnyStep, BendStep, HowInRack, RackWay, StepLeftOut, read_document
from conduit.findings import stops
from conduit.geometry import DIRECTIONS, Direction
from conduit.plan import Measure, check_run
from conduit.racks.planner import Check, make_rack_plan
from conduit.racks.schema import RackPlan
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import Tape
from conduit.values import Result

# Of a way that was tried only where the others lie afterwards is chosen for it.
Tried = tuple[HowInRack, Direction | None]


class RackOption(Result):
    """A way for the whole rack to take a step, as all of it then comes out."""

    how: HowInRack
    after: Direction | None = Field(description="Kicks: on which side of the lead the others lie from there on.")
    now: bool
    makeable: bool
    bent: int = Field(description="How many of its pipes can be bent.")
    gaps_kept: bool
    least_gap: Measure | None = Field(description="Between neighbours, along all of the rack; null: they touch.")
    pipe: Measure | None = Field(description="Of all pipes together; null where one cannot be bent.")
    why_not: Message


def rack_options(
    raw: Mapping[str, Any], index: int, limits: Limits = DEFAULT_LIMITS, check: Check = check_run
) -> list[RackOption]:
    """Each way of a step, tried on the whole rack; empty where there is no rack, no such step, or no choice.

    Kicks are tried to either side across the new heading. Raises UnreadableDocument where `raw` is not a run document.
    """
    measured = read_document(raw)
    step = measured.steps[index] if index < len(measured.steps) else None
    if step is None or isinstance(step, StepLeftOut) or not raw.get("rack") or step.kind not in RACK_WAYS:
        return []
    now = step.rack or RackWay(how=RACK_WAYS[step.kind][0])
    told = []
    for how, after in _ways(step):
        is_now = (now.how, now.after) == (how, after)
        plan = make_rack_plan(raw if is_now else _with_way(raw, index, how, after), limits, check)
        if plan:
            told.append(_told(plan, (how, after), is_now, measured.head.tape))
    return told


def _ways(step: AnyStep) -> Iterator[Tried]:
    for how in RACK_WAYS[step.kind]:
        if how != "kicks":
            yield how, None
        elif isinstance(step, BendStep):
            turn = DIRECTIONS[step.turn]
            yield from ((how, word) for word, side in DIRECTIONS.items() if abs(side.dot(turn)) < 0.5)


def _with_way(raw: Mapping[str, Any], index: int, how: HowInRack, after: Direction | None) -> dict[str, Any]:
    way = {"how": how, "after": after}
    steps = list(raw["steps"])
    return {**raw, "steps": [*steps[:index], {**steps[index], "rack": way}, *steps[index + 1 :]]}


def _told(plan: RackPlan, tried: Tried, is_now: bool, tape: Tape) -> RackOption:
    pipes = [pipe for pipe in plan.pipes if not pipe.free]
    lengths = [pipe.developed_length.inches for pipe in pipes if pipe.developed_length and pipe.makeable]
    least = min((gap.least.inches for gap in plan.gaps if gap.asked), default=None)
    stop = next((one.says for one in plan.all_findings() if stops([one])), NOTHING)
    return RackOption(
        how=tried[0],
        after=tried[1],
        now=is_now,
        makeable=plan.makeable,
        bent=len(lengths),
        gaps_kept=plan.gaps_kept,
        least_gap=None if least is None or least < 0 else Measure.of(least, tape),
        pipe=Measure.of(sum(lengths), tape) if len(lengths) == len(pipes) else None,
        why_not=NOTHING if plan.makeable else stop,
    )
