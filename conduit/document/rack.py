"""A rack: pipes side by side, made from one measured run, the lead (docs/trade.md, Racks)."""

from pydantic import Field, StrictBool

from conduit.document.parts import End, ShoeFigures
from conduit.document.rack_way import MOST_APART
from conduit.document.steps import Step
from conduit.document.typed import Length, Name, OptionalLength, SignedLength
from conduit.geometry import Direction
from conduit.tables import MOST_STEPS, Material, TradeSize
from conduit.values import Given

MOST_PIPES = 24


class RackPipe(Given):
    """One pipe beside the lead. What is left out is as the lead's."""

    name: Name = ""
    trade_size: TradeSize | None = None
    material: Material | None = None
    shoe: ShoeFigures | None = Field(None, description="Left out: the lead's for the same pipe, else the typical one.")
    start_name: Name = Field("", description="Its own start box.")
    end_name: Name = Field("", description="Its own end box.")
    starts: SignedLength = Field(0.0, description="How much further along than the lead it starts.")
    ends: SignedLength = Field(0.0, description="How much further along than the lead it ends.")
    left_out: StrictBool = Field(False, description="Its place stays free.")
    leaves: int | None = Field(
        None, ge=0, le=MOST_STEPS, description="After so many of the lead's steps it goes on with its own."
    )
    steps: list[Step] = Field([], max_length=MOST_STEPS, description="Its own steps, once it has left.")
    end: End | None = Field(None, description="Its own end, once it has left.")


class RackLayout(Given):
    """How the pipes of a rack lie: from the lead toward `side`, a clear gap or a spacing of centres apart."""

    side: Direction
    gap: OptionalLength = Field(None, description="Clear between neighbours.")
    spacing: OptionalLength = Field(None, description="From centre to centre, instead.")
    strut: Direction | None = Field(
        None, description="Where the strut lies that all rest on at the start; left out: their centres are in line."
    )
    supports: OptionalLength = Field(None, description="From strut to strut; left out: the run's support spacing.")
    stagger: Length = Field(0.0, le=MOST_APART, description="Couplings of neighbours at least so far apart.")


class PipeRack(RackLayout):
    """A rack beside the run that it stands in."""

    pipes: list[RackPipe] = Field(max_length=MOST_PIPES - 1, description="In order from the lead.")
