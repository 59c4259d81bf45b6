"""Sideways of a leg: which way and how far a step leaves it, and what stands under it. Inches; unit vectors."""

from conduit.catalogue import message
from conduit.document import AnyStep, Obstacle, OffsetStep, Saddle3Step, Saddle4Step, rise_of
from conduit.findings import Code, Finding
from conduit.geometry import DIRECTIONS, Direction, Vec
from conduit.layout.placement import Context, Datum, Hindrance

SLACK = 1e-6


def across_leg(word: Direction, heading: Vec) -> Vec | None:
    """The part of a direction that lies across the heading, or None where they run together."""
    direction = DIRECTIONS[word]
    part = direction.along(heading, -direction.dot(heading))
    return part.unit() if part.length() > 0.1 else None


def runs_along(step: AnyStep, field: str, word: Direction, context: Context) -> Finding:
    """Why a step cannot turn toward a direction: the pipe runs along it already."""
    return context.finding(
        Code.ALONG_HEADING,
        field,
        step,
        *(context.setting(field, other, message("fix.turn", way=message(f"way.{other}"))) for other in _others(word)),
        way=message(f"way.{word}"),
    )


def _others(word: Direction) -> list[Direction]:
    """The four directions that do not run along a word's own line."""
    return [other for other, way in DIRECTIONS.items() if abs(way.dot(DIRECTIONS[word])) < SLACK]


def rise_wanted(step: OffsetStep | Saddle3Step | Saddle4Step, context: Context) -> float | Finding:
    """The rise as written, or worked out from what is to be got over: height + clearance - present stand-off.

    Inches; a finding where both are given, or neither, or nothing is to be risen.
    """
    if (step.rise is None) == (step.over is None):
        return context.finding(Code.NO_RISE, "rise", step, case="one_of")
    rise = rise_of(step, context.stand_off)
    if rise < SLACK:
        return context.finding(Code.NO_RISE, "rise", step)
    return rise


def sideways(
    step: OffsetStep | Saddle3Step | Saddle4Step, datum: Datum, context: Context
) -> tuple[Vec, float] | Finding:
    """Which way a step leaves the leg, and by how much; or why it cannot."""
    toward = across_leg(step.toward, datum.heading)
    if not toward:
        return runs_along(step, "toward", step.toward, context)
    rise = rise_wanted(step, context)
    return rise if isinstance(rise, Finding) else (toward, rise)


def hindrance(over: Obstacle, datum: Datum, toward: Vec, near: float, far: float, context: Context) -> Hindrance:
    """The thing that is got over, standing on the surface under the present leg.

    `near` and `far`: from where to where along the leg it reaches (inches from the datum; infinity where it goes on);
    `toward`: away from the surface. The surface lies half the pipe and the stand-off under the centreline.
    """
    under = context.shoe.diameter / 2 + over.stands_off(context.stand_off)
    return Hindrance(
        context.index,
        over.name,
        over.shape,
        datum.point.along(toward, -under),
        datum.heading,
        toward,
        near,
        far,
        over.height,
        over.clear,
        over.reach,
    )
