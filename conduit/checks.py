"""Findings about a run that can be laid out: limits, radius, straights (handbook, Figures, Limits)."""

import math

from conduit.document import Head
from conduit.layout import Layout
from conduit.problems import Problem
from conduit.shoe import Shoe
from conduit.tables import LEAST_RADIUS, Rules
from conduit.units import format_at_least, format_length

ROUGHLY = 1e-6


def check(layout: Layout, head: Head, shoe: Shoe, rules: Rules) -> list[Problem]:
    """Every finding, in the order in which the pipe meets them."""
    found = [_degrees(layout, rules), _radius(head, shoe), _first_straight(layout, head, rules)]
    if layout.complete:
        found.append(_last_straight(layout, head, rules))
    return [problem for problem in found if problem]


def degrees_of(layout: Layout) -> float:
    """All bends of the run added up."""
    return math.degrees(sum(bend.angle for bend in layout.path.bends))


def _degrees(layout: Layout, rules: Rules) -> Problem | None:
    total = degrees_of(layout)
    if total <= rules.most_degrees + ROUGHLY:
        return None
    over = next(
        owner
        for i, owner in enumerate(layout.owners)
        if math.degrees(sum(bend.angle for bend in layout.path.bends[: i + 1])) > rules.most_degrees + ROUGHLY
    )
    return Problem(
        code="too_many_degrees",
        severity="caution",
        place=f"steps.{over}",
        says=f"The bends add up to {total:g}°, over the {rules.most_degrees:g}° allowed between pull points.",
        remedy=f"Use flatter offsets, or put a pull box before step {over + 1}. Check your local code.",
    )


def _radius(head: Head, shoe: Shoe) -> Problem | None:
    least = LEAST_RADIUS.get(head.trade_size, 0.0)
    if shoe.radius >= least:
        return None
    return Problem(
        code="short_radius",
        severity="caution",
        place="shoe",
        says=f"This shoe bends to a radius of {shoe.radius:.2f}, under the usual least of {least:g} for this size.",
        remedy="Check the shoe's figures with a test bend in scrap, and your local code.",
    )


def _first_straight(layout: Layout, head: Head, rules: Rules) -> Problem | None:
    if not layout.path.bends or layout.path.bends[0].straight_before >= rules.straight_at_connector - ROUGHLY:
        return None
    return _too_short(
        layout.path.bends[0].straight_before, "start", f"steps.{layout.owners[0]}.at", "starts", head, rules
    )


def _last_straight(layout: Layout, head: Head, rules: Rules) -> Problem | None:
    if not layout.path.bends or layout.path.straight_after >= rules.straight_at_connector - ROUGHLY:
        return None
    return _too_short(layout.path.straight_after, "end", "end.at", "ends", head, rules)


def _too_short(straight: float, box: str, place: str, verb: str, head: Head, rules: Rules) -> Problem:
    least = format_at_least(rules.straight_at_connector, head.tape, head.feet)
    return Problem(
        code="straight_at_connector",
        severity="caution",
        place=place,
        says=f"Only {format_length(straight, head.tape, head.feet)} of straight pipe where the run {verb}; "
        "it may not seat in the connector.",
        remedy=f"Keep {least} or more straight at the {box} box.",
    )
