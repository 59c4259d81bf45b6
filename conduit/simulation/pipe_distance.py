"""A bent pipe where it stands, ready to be measured against others: by its straights and arcs, not their chords."""

from conduit.geometry import ORIGIN, Vec
from conduit.kernels import Curve, CurvePart, curve_of
from conduit.simulation.bend import Bent


def standing_curve(bent: Bent, moved: Vec) -> Curve:
    """A pipe's centreline; `moved`: by how much it stands from where it was bent. Inches."""
    return curve_of(curve_parts(bent, moved), bent.radius)


def curve_parts(bent: Bent, moved: Vec = ORIGIN) -> list[CurvePart]:
    """Its straights and arcs in turn, moved so."""
    bows, rows = iter(bent.bows), []
    for low, high, is_arc in bent.parts(0.0, bent.length):
        if is_arc:
            bow = next(bows)
            origin, ahead, inside = bow.entry.along(bow.inside, bent.radius), bow.heading, bow.inside
        else:
            pose = bent.pose_at(low)
            origin, ahead, inside = pose.point, pose.heading, pose.inward
        rows.append(CurvePart(low, high, is_arc, origin.plus(moved), ahead, inside))
    return rows
