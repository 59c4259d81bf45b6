"""The cut list of several runs: couplings and sources planned together, and what to bring for the job.

Knows what crews cut by, their scraps, and how a plan is worded; the optimizer is a room of its own.
Gives: make_cut_list (by the planner that it is given: first_fit, or the optimizer's), the terms, the schema, the list
of what to bring, scrap lists as pasted.
Never imports the bench or mark checks.
"""

from conduit.cutting.bar_ends import End
from conduit.cutting.comparing import is_better
from conduit.cutting.cut_list import along_the_pile, digests, make_cut_list, not_makeable
from conduit.cutting.first_fit import first_fit
from conduit.cutting.given import PlannedRun, ScrapOnRack
from conduit.cutting.model import IN_AN_INCH, Goal, Held, Kind, Needed, ScrapBar, Span, Terms
from conduit.cutting.on_the_run import gap_at, lies, number_of
from conduit.cutting.schema import (
    CutChoice,
    CutKind,
    CutList,
    ListedCut,
    ListedSource,
    RunLeftOut,
    StopSetting,
    reading,
    stop_settings,
)
from conduit.cutting.scrap_list import SCRAP_COLUMNS, ScrapLine, read_scrap_list
from conduit.cutting.terms import CutTerms, nearest_sixteenth, whole_sixteenths
from conduit.cutting.what_to_bring import BRING_COLUMNS, WHAT, BringLine, Joined, StrutNeeded, What, bring_list, joined

__all__ = [
    "BRING_COLUMNS",
    "IN_AN_INCH",
    "SCRAP_COLUMNS",
    "WHAT",
    "BringLine",
    "CutChoice",
    "CutKind",
    "CutList",
    "CutTerms",
    "End",
    "Goal",
    "Held",
    "Joined",
    "Kind",
    "ListedCut",
    "ListedSource",
    "Needed",
    "PlannedRun",
    "RunLeftOut",
    "ScrapBar",
    "ScrapLine",
    "ScrapOnRack",
    "Span",
    "StopSetting",
    "StrutNeeded",
    "Terms",
    "What",
    "along_the_pile",
    "bring_list",
    "digests",
    "first_fit",
    "gap_at",
    "is_better",
    "joined",
    "lies",
    "make_cut_list",
    "nearest_sixteenth",
    "not_makeable",
    "number_of",
    "read_scrap_list",
    "reading",
    "stop_settings",
    "whole_sixteenths",
]
