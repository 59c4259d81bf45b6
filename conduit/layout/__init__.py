"""From what was measured to the pipe's centreline: where every bend, coupling, strap and thing in the way lies.

Knows the geometry of each kind of step, and the limits that need no bending to be judged.
Gives: lay_out and its Layout, the centreline, couplings' places, straps.
Never imports the simulation: both must come to the same pipe by ways of their own.
"""

from conduit.layout.centreline import Path, PathBend, least_rise, point_at, points_along, tangent_length
from conduit.layout.couplings import free_windows, room_to_move, split
from conduit.layout.limits import (
    blocked,
    closure_of,
    closure_words,
    degrees_of,
    fixed_couplings,
    limit_findings,
    no_couplings,
    stretches,
)
from conduit.layout.over_things import over_things
from conduit.layout.placement import Context, Datum, Hindrance, StepPlacement
from conduit.layout.run_layout import Layout, lay_out
from conduit.layout.sideways import hindrance
from conduit.layout.stamped import StampedEnd
from conduit.layout.step_geometry import first_corner_by_radius, place_step
from conduit.layout.straps import strapping

__all__ = [
    "Context",
    "Datum",
    "Hindrance",
    "Layout",
    "Path",
    "PathBend",
    "StampedEnd",
    "StepPlacement",
    "blocked",
    "closure_of",
    "closure_words",
    "degrees_of",
    "first_corner_by_radius",
    "fixed_couplings",
    "free_windows",
    "hindrance",
    "lay_out",
    "least_rise",
    "limit_findings",
    "no_couplings",
    "over_things",
    "place_step",
    "point_at",
    "points_along",
    "room_to_move",
    "split",
    "strapping",
    "stretches",
    "tangent_length",
]
