"""Racks: pipes side by side, every one exact, from one measured lead (docs/trade.md, Racks).

Knows how each kind of step is taken by a pipe beside the lead, bends all pipes, and measures every gap between them.
Gives: make_rack_plan and its schema, the pipes' own run documents, the rack on the floor.
Never imports mark checks: a rack's pipe is a run like any other to them, to the bench and to cutting.
"""

from conduit.racks.bend_roles import FloorRun, roles_of
from conduit.racks.floor import floor_of
from conduit.racks.floor_schema import FloorStick
from conduit.racks.members import Member, members_of
from conduit.racks.options import RackOption, rack_options
from conduit.racks.planner import Check, make_rack_plan
from conduit.racks.schema import RackPlan
from conduit.racks.struts import strut_under

__all__ = [
    "Check",
    "FloorRun",
    "FloorStick",
    "Member",
    "RackOption",
    "RackPlan",
    "floor_of",
    "make_rack_plan",
    "members_of",
    "rack_options",
    "roles_of",
    "strut_under",
]
