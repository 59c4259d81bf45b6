"""A stick bent on another shoe than its run was planned for: the run laid out anew, joined at the same places."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from conduit.bender import NoSuchShoe, Shoe
from conduit.document import AnyStep, ShoeFigures, SlopeStep, read_document
from conduit.layout import Layout, first_corner_by_radius, lay_out, point_at
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
    shoe = _shoe(checked, figures)
    if not shoe or not checked.shoe:
        return document
    document["steps"] = _in_place(checked.measured.steps, raw["steps"], checked.shoe.radius - shoe.radius)
    here, there = checked.layout, lay_out(read_document(document), shoe, checked.limits)
    if not here or len(here.path.bends) != len(there.path.bends):
        return document
    own = [place for place in checked.couplings if place not in checked.fixed]
    # Whether a piece is longer than a stick is asked of the one that is bent, not of all.
    couplings = [f'{_carried_over(place, here, there):.5f}"' for place in own]
    return {**document, "couplings": couplings, "longest_piece": f'{LONGEST_STICK}"'}


def _shoe(checked: CheckedRun, figures: ShoeFigures) -> Shoe | None:
    """The other shoe; None where the figures are of none for this pipe, which its plan tells."""
    try:
        return given_shoe(replace(checked.measured.head, shoe=figures))
    except NoSuchShoe:
        return None


def _in_place(steps: Sequence[AnyStep | None], written: Sequence[Any], smaller: float) -> list[Any]:
    """The steps as written, slopes measured so that their corners stay where they are on a radius so much smaller.

    What is measured to where an arc begins or ends moves a corner with the radius. Of other steps it moves along a leg
    that goes on in its line; behind a slope the whole run would come to lie beside itself.
    """
    return [
        {**one, "at": f'{_moved(step, smaller):.5f}"'} if isinstance(step, SlopeStep) else one
        for step, one in zip(steps, written, strict=True)
    ]


def _moved(step: SlopeStep, smaller: float) -> float:
    return step.at + smaller * first_corner_by_radius(step)


def _carried_over(place: float, here: Layout, there: Layout) -> float:
    """Where a place on a straight of one layout lies along the pipe of the other."""
    leg = sum(1 for bend in here.path.bends if bend.end <= place + TOLERANCE)
    return there.along_leg(leg, point_at(here.path, place)[0])
