"""The one call: a run document in, its plan out, with every finding and what mends it.

Knows how layout, marks, simulation and order are held against each other: a verdict is earned here.
Gives: make_plan and the Plan's schema, what mends its findings, checked runs, proofs, the ways to do a step.
Never imports the bench, mark checks or cutting, which stand on it.
"""

from conduit.plan.bent_findings import crossing_finding
from conduit.plan.checked_run import CheckedRun, check_run, given_shoe, shoe_for
from conduit.plan.closing import SharedClosing, closing_of, legs_of
from conduit.plan.drawing import fittings_on, picture_of
from conduit.plan.drawing_schema import (
    Picture,
    PictureDimension,
    PictureEnd,
    PictureFitting,
    PictureSurface,
    PictureThing,
    Point,
    Prism,
)
from conduit.plan.fixes import remedies_of
from conduit.plan.judgement import Cleared, Judgement, crossing_of, judge_things, passing_leg
from conduit.plan.planner import make_plan, plan_of
from conduit.plan.proof import Prover
from conduit.plan.schema import CardAnswer, Measure, Plan, PlannedCoupling, PlannedMark, PlannedPiece, ShoeUsed, Stub
from conduit.plan.step_options import Way, ways_of
from conduit.plan.tolerance import SLACK_ACROSS, SLACK_ALONG, spread_at_end
from conduit.plan.traverse import Leg

__all__ = [
    "SLACK_ACROSS",
    "SLACK_ALONG",
    "CardAnswer",
    "CheckedRun",
    "Cleared",
    "Judgement",
    "Leg",
    "Measure",
    "Picture",
    "PictureDimension",
    "PictureEnd",
    "PictureFitting",
    "PictureSurface",
    "PictureThing",
    "Plan",
    "PlannedCoupling",
    "PlannedMark",
    "PlannedPiece",
    "Point",
    "Prism",
    "Prover",
    "SharedClosing",
    "ShoeUsed",
    "Stub",
    "Way",
    "check_run",
    "closing_of",
    "crossing_finding",
    "crossing_of",
    "fittings_on",
    "given_shoe",
    "judge_things",
    "legs_of",
    "make_plan",
    "passing_leg",
    "picture_of",
    "plan_of",
    "remedies_of",
    "shoe_for",
    "spread_at_end",
    "ways_of",
]
