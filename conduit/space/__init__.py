"""A job as a whole: its boxes placed once, its runs in one frame, and how near they come to each other.

Knows where a run stands by its boxes, runs bent in simulation, and what is in the way of each.
Gives: make_space for a job, among_others for one run of it, what would do against a clash, and the boxes as typed.
Never imports bench or cutting, nor whoever keeps jobs.
"""

from conduit.space.boxes import Knockout, PlacedBox, RunEnd, StandingBox, box_key, read_box
from conduit.space.clashes import Meeting, MeetingThing, Met, SameSide, meetings_of, met
from conduit.space.frame import JobFrame, Wall
from conduit.space.planner import MOST_PLACED, Placed, Store, among_others, make_space, placed_in, space_in
from conduit.space.remedies import remedies_for
from conduit.space.schema import JobSpace, RunAmongOthers, SpaceClash, SpaceRemedy
from conduit.space.shared_struts import SharedStrut, shared_struts
from conduit.space.standing import RunGiven, StandingRun, stood, stood_in_rack

__all__ = [
    "MOST_PLACED",
    "JobFrame",
    "JobSpace",
    "Knockout",
    "Meeting",
    "MeetingThing",
    "Met",
    "Placed",
    "PlacedBox",
    "RunAmongOthers",
    "RunEnd",
    "RunGiven",
    "SameSide",
    "SharedStrut",
    "SpaceClash",
    "SpaceRemedy",
    "StandingBox",
    "StandingRun",
    "Store",
    "Wall",
    "among_others",
    "box_key",
    "make_space",
    "meetings_of",
    "met",
    "placed_in",
    "read_box",
    "remedies_for",
    "shared_struts",
    "space_in",
    "stood",
    "stood_in_rack",
]
