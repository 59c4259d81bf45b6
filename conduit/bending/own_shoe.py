"""A stick bent on another shoe than its run was planned for: the run laid out anew, joined at the same places."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from conduit.bender import NoSuchShoe
from conduit.document import ShoeFigures
from conduit.layout import Layout, lay_out, point_at
from conduit.plan import CheckedRun, given_shoe
from conduit.tables import LONGEST_STICK
from conduit.units import TOLERANCE


def document_on(raw: Mapping[str, Any], checked: CheckedRun, figures: ShoeFigures) -> dict[str, Any]:
    """The run's document for another shoe, with each coupling at the same place in space; inches.

    Every leg keeps its line, so that a coupling's place on it is its distance from where the bend before ends, which
    lies elsewhere with another radius (docs/trade.md, A stick on a shoe of its own). Couplings that a step fixes are
    found by that step again.
    """
    document = {**raw, "shoe": figures.model_dump(mode="json", exclude_defaults=True)}
    here, there = checked.layout, _laid_out(checked, figures)
    if not here or not there or len(here.path.bends) != len(there.path.bends):
        return document
    own = [place for place in checked.couplings if place not in checked.fixed]
    # Whether a piece is longer than a stick is asked of the one that is bent, not of all.
    couplings = [f'{_carried_over(place, here, there):.5f}"' for place in own]
    return {**document, "couplings": couplings, "longest_piece": f'{LONGEST_STICK}"'}


def _laid_out(checked: CheckedRun, figures: ShoeFigures) -> Layout | None:
    """The run laid out on the other shoe; None where the figures are of none for this pipe, which its plan tells."""
    try:
        shoe = given_shoe(replace(checked.measured.head, shoe=figures))
    except NoSuchShoe:
        return None
    return lay_out(checked.measured, shoe, checked.limits)


def _carried_over(place: float, here: Layout, there: Layout) -> float:
    """Where a place on a straight of one layout lies along the pipe of the other."""
    leg = sum(1 for bend in here.path.bends if bend.end <= place + TOLERANCE)
    return there.along_leg(leg, point_at(here.path, place)[0])
