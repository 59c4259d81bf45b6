"""Findings about a run that can be laid out: limits, radius, straights (docs/trade.md, Limits)."""

import math
from collections.abc import Iterator
from itertools import accumulate

from conduit.bender import Shoe
from conduit.catalogue import Message, joined, message
from conduit.document import BoxOffsetStep, Head, MeasuredRun, SweepStep, above_axis, step_name
from conduit.findings import Code, Finding, found, taking_out
from conduit.geometry import Vec
from conduit.layout.over_things import over_things
from conduit.layout.run_layout import Layout
from conduit.layout.stagger import kept_for_neighbours
from conduit.layout.stamped import stamped_findings
from conduit.layout.straps import Strapping, unsupported
from conduit.tables import LEAST_RADIUS, LEAST_SWEPT_RADIUS, Limits

ROUGHLY = 1e-6


def limit_findings(layout: Layout, measured: MeasuredRun, shoe: Shoe, strapped: Strapping) -> list[Finding]:
    """Every way in which a layout, strapped so, goes beyond its limits, in the order in which the pipe meets them.

    Degrees between pull points, radius, straights at connectors, closure, support distances, knockouts and couplings
    (docs/trade.md, Limits); those of the far end only where the run comes to it.
    """
    head = measured.head
    findings = [
        *_degrees(layout),
        _radius(head, shoe),
        *_swept_radii(measured),
        _first_straight(layout, measured),
        *_markers(layout),
    ]
    if layout.complete:
        findings += [
            _last_straight(layout, measured),
            _closure(layout, measured),
            *unsupported(strapped, head),
            *stamped_findings(layout.stamps, layout.path, measured, layout.limits),
        ]
        findings += [*_knockouts(measured, shoe), *_couplings(layout, measured, shoe)]
    return [finding for finding in findings if finding]


def degrees_of(layout: Layout) -> float:
    """All bends of the run added up."""
    return math.degrees(sum(bend.angle for bend in layout.path.bends))


def stretches(layout: Layout) -> list[list[int]]:
    """The bends (indices) between two pull points, stretch by stretch."""
    cuts = [layout.marker_position(marker) for marker in layout.markers if marker.kind == "pull_point"]
    parts: list[list[int]] = [[]]
    for index, bend in enumerate(layout.path.bends):
        while cuts and bend.start >= cuts[0]:
            parts.append([])
            cuts.pop(0)
        parts[-1].append(index)
    return parts


def _degrees(layout: Layout) -> list[Finding]:
    findings = []
    for stretch in stretches(layout):
        running = list(accumulate(math.degrees(layout.path.bends[index].angle) for index in stretch))
        over = next((i for i, total in enumerate(running) if total > layout.limits.most_degrees + ROUGHLY), None)
        if over is None:
            continue
        step = layout.owners[stretch[over]]
        over_by = {"degrees": f"{running[-1]:g}", "most": f"{layout.limits.most_degrees:g}", "step": str(step + 1)}
        findings.append(found(Code.TOO_MANY_DEGREES, f"steps.{step}", **over_by))
    return findings


def _markers(layout: Layout) -> list[Finding]:
    """A fixed coupling or pull point must lie on a straight."""
    findings, bent = [], bent_parts(layout)
    for marker in layout.markers:
        s = layout.marker_position(marker)
        far = s + marker.width
        inside = any(start - ROUGHLY < far and s < end + ROUGHLY for start, end in bent)
        if inside or s < ROUGHLY or (layout.complete and far > layout.path.length - ROUGHLY):
            out = taking_out(message(f"fix.take_out.{marker.kind}"), f"steps.{marker.step}")
            called = message("step", number=marker.step + 1, kind=message(f"kind.{marker.kind}.within"))
            findings.append(found(Code.MARKER_IN_BEND, f"steps.{marker.step}.at", out, step=called))
    return findings


def fixed_couplings(layout: Layout, gap: float) -> dict[float, float]:
    """Where steps fix a coupling or put a box, along the straight pipe, and how far on the next piece begins."""
    return {
        layout.marker_position(marker): marker.width if marker.kind == "pull_point" else gap
        for marker in layout.markers
    }


def blocked(layout: Layout) -> list[tuple[float, float]]:
    """Stretches of the straight pipe where no coupling may lie: bends, and what goes over a thing in the way."""
    return sorted([*((bend.start, bend.end) for bend in layout.path.bends), *no_couplings(layout)])


def bent_parts(layout: Layout) -> list[tuple[float, float]]:
    """Stretches of the straight pipe that are bent: each bend, and each sweep from its first shot to its last."""
    shots = [isinstance(layout.steps[owner], SweepStep) for owner in layout.owners]
    single = [bend for bend, shot in zip(layout.path.bends, shots, strict=True) if not shot]
    return [*((bend.start, bend.end) for bend in single), *_sweeps(layout)]


def _sweeps(layout: Layout) -> list[tuple[float, float]]:
    """Each sweep from its first shot to its last."""
    steps = [number for number, step in enumerate(layout.steps) if isinstance(step, SweepStep)]
    return [(own[0].start, own[-1].end) for own in map(layout.bends_of, steps) if own]


def no_couplings(layout: Layout) -> list[tuple[float, float]]:
    """The same besides bends: within sweeps, over a thing in the way, a rack's room for its neighbours' couplings."""
    kept = kept_for_neighbours(layout.path, layout.place) if layout.place else []
    return [*_sweeps(layout), *over_things(layout), *stamped_parts(layout), *kept]


def stamped_parts(layout: Layout) -> list[tuple[float, float]]:
    """Stretches at the ends where a lever tool stamps an offset, with the straight that it keeps."""
    length = layout.path.length
    return [
        (0.0, one.reach) if one.end == "start" else (length - one.reach, length)
        for one in layout.stamps
        if one.end == "start" or layout.complete
    ]


def _couplings(layout: Layout, measured: MeasuredRun, shoe: Shoe) -> list[Finding]:
    """A coupling that was put in place by hand keeps to the limits too."""
    findings = []
    spans, bends, head = over_things(layout), bent_parts(layout), measured.head
    kept = kept_for_neighbours(layout.path, layout.place) if layout.place else []
    for index, s in enumerate(head.couplings):
        inside = any(start < s < end for start, end in bends)
        near = min((max(start - s, s - end) for start, end in bends), default=math.inf)
        if inside or not 0 < s < layout.path.length:
            findings.append(_misplaced(Code.COUPLING_IN_BEND, index, s, "bend" if inside else "beyond", head))
        elif near < shoe.straight_ahead - ROUGHLY:
            needs = head.tape.at_least(shoe.straight_ahead)
            findings.append(_misplaced(Code.COUPLING_IN_BEND, index, s, "no_hold", head, needs))
        elif any(start < s < end for start, end in kept):
            apart = head.tape.shows(layout.place.apart if layout.place else 0.0)
            findings.append(_misplaced(Code.COUPLING_MISPLACED, index, s, "neighbour", head, apart))
        elif any(start < s < end for start, end in spans):
            findings.append(_misplaced(Code.COUPLING_MISPLACED, index, s, "thing", head))
        elif near < layout.limits.clear_of_bend - ROUGHLY:
            least = head.tape.at_least(layout.limits.clear_of_bend)
            findings.append(_misplaced(Code.COUPLING_MISPLACED, index, s, "bend", head, least))
    return findings


def _misplaced(code: Code, index: int, s: float, case: str, head: Head, needs: str = "") -> Finding:
    fix = taking_out(message("fix.own_place"), f"couplings.{index}")
    return found(code, f"couplings.{index}", fix, case=case, at=head.tape.shows(s), needs=needs)


def closure_of(layout: Layout, measured: MeasuredRun) -> Vec | None:
    """The end as laid out less the end box as measured on its own: a surveyor's closure error. Inches."""
    box = measured.end.measured if measured.end else None
    if not box or not layout.complete:
        return None
    return layout.ends_at.minus(Vec(box.right, box.up, box.out))


def closure_words(error: Vec, head: Head) -> list[Message]:
    """Each part of a closure error that a tape would see, in words."""
    words = {("right", "left"): error.x, ("up", "down"): error.y, ("out", "in"): error.z}
    return [
        message(f"off.{pair[value < 0]}", length=head.tape.shows(abs(value)))
        for pair, value in words.items()
        if abs(value) >= 1 / 32
    ]


def _closure(layout: Layout, measured: MeasuredRun) -> Finding | None:
    error = closure_of(layout, measured)
    if error is None or error.length() <= layout.limits.closure:
        return None
    parts, off = joined(closure_words(error, measured.head), ", "), measured.head.tape.shows(error.length())
    return found(Code.CLOSURE, "end.measured", off=off, parts=parts)


def _knockouts(measured: MeasuredRun, shoe: Shoe) -> list[Finding]:
    """A knockout that the pipe on its straps does not meet wants a box offset."""
    findings = []
    for name, box in (("start", measured.start), ("end", measured.end)):
        has_offset = any(isinstance(step, BoxOffsetStep) and step.end == name for step in measured.steps)
        if not box or box.knockout is None or has_offset:
            continue
        off = above_axis(box.knockout, measured.head.stand_off, shoe.diameter)
        if abs(off) > 1 / 8:
            case, by = f"{name}_{'over' if off > 0 else 'under'}", measured.head.tape.shows(abs(off))
            findings.append(found(Code.KNOCKOUT, f"{name}.knockout", case=case, off=by))
    return findings


def _radius(head: Head, shoe: Shoe) -> Finding | None:
    least = LEAST_RADIUS.get(head.trade_size, 0.0)
    if shoe.radius >= least - ROUGHLY:
        return None
    return found(Code.SHORT_RADIUS, "shoe", radius=f"{shoe.radius:.2f}", least=f"{least:g}")


def _swept_radii(measured: MeasuredRun) -> Iterator[Finding]:
    """Sweeps tighter than bends of many shots may be."""
    head, least = measured.head, LEAST_SWEPT_RADIUS.get(measured.head.trade_size, 0.0)
    for index, step in enumerate(measured.steps):
        if isinstance(step, SweepStep) and step.radius < least - ROUGHLY:
            yield found(
                Code.SHORT_RADIUS,
                f"steps.{index}.{'around.radius' if step.around else 'radius'}",
                case="sweep",
                step=step_name(index, step),
                radius=head.tape.shows(step.radius),
                usual=head.tape.shows(least),
                size=head.trade_size,
                least=head.tape.at_least(least),
            )


def _first_straight(layout: Layout, measured: MeasuredRun) -> Finding | None:
    head, start = measured.head, measured.start
    if (
        not layout.path.bends
        or (start and start.open)
        or layout.path.bends[0].straight_before >= layout.limits.straight_at_connector - ROUGHLY
    ):
        return None
    return _too_short(
        layout.path.bends[0].straight_before, "start", f"steps.{layout.owners[0]}.at", head, layout.limits
    )


def _last_straight(layout: Layout, measured: MeasuredRun) -> Finding | None:
    head, end = measured.head, measured.end
    if (
        not layout.path.bends
        or (end and end.open)
        or layout.path.straight_after >= layout.limits.straight_at_connector - ROUGHLY
    ):
        return None
    return _too_short(layout.path.straight_after, "end", "end.at", head, layout.limits)


def _too_short(straight: float, box: str, place: str, head: Head, limits: Limits) -> Finding:
    least = head.tape.at_least(limits.straight_at_connector)
    return found(Code.STRAIGHT_AT_CONNECTOR, place, case=box, straight=head.tape.shows(straight), least=least)
