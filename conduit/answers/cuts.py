"""A plain cut list, for where nobody plans couplings and sources together."""

from typing import Annotated

from pydantic import BaseModel, Field

from conduit.answers.schema import Draft
from conduit.as_typed import AsTyped, AsWritten
from conduit.cutting import CutList, CutTerms, End, Kind, PlannedRun, ScrapOnRack, first_fit, make_cut_list
from conduit.document import Name
from conduit.plan import make_plan
from conduit.tables import Limits, Material, TradeSize

MOST_RUNS, MOST_SCRAPS = 300, 5000


class RunToCut(BaseModel):
    """A run of which nothing is cut yet."""

    key: str = Field(max_length=40)
    name: Name
    document: Draft


class ScrapKept(BaseModel):
    """An offcut on the rack, as it is kept; its length in inches."""

    tag: str = Field(max_length=12)
    material: Material
    trade_size: TradeSize
    length: float = Field(gt=0)
    place: str = Field("", max_length=40)
    ends: tuple[End, End] = ("cut", "cut")


class CutListIn(BaseModel):
    """Runs to be cut, the rack, oldest first, and the terms as they are known (lengths in inches)."""

    runs: list[RunToCut] = Field(max_length=MOST_RUNS)
    rack: list[ScrapKept] = Field([], max_length=MOST_SCRAPS)
    terms: Annotated[AsWritten, AsTyped(CutTerms)] = {}


def plain_cut_list(given: CutListIn, limits: Limits) -> CutList:
    """Each piece from the first bar with room, with couplings as the runs have them. Raises UnreadableDocument."""
    runs = [PlannedRun(one.key, one.name, make_plan(one.document, limits), as_laid_out=True) for one in given.runs]
    rack = [
        ScrapOnRack(one.tag, Kind(one.material, one.trade_size), one.length, one.place, one.ends) for one in given.rack
    ]
    return make_cut_list(runs, rack, CutTerms.model_validate(given.terms), first_fit)
