"""Racks: pipes side by side, every one exact, from one measured lead (docs/trade.md, Racks).

Knows how each kind of step is taken by a pipe beside the lead, bends all pipes, and measures every gap between them.
Gives: make_rack_plan and its schema, the pipes' own run documents.
Never imports the bench, mark checks or cutting: a rack's pipe is a run like any other to them.
"""

from conduit.racks.members import Member, members_of
from conduit.racks.planner import make_rack_plan
from conduit.racks.schema import RackPlan

__all__ = ["Member", "RackPlan", "make_rack_plan", "members_of"]
