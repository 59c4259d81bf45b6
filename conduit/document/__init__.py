"""The run as a person measured it: steps, ends, figures as they were typed.

Knows every kind of step, reads a document part by part (one bad field spoils nothing else), edits it.
Gives: RunDocument (the schema), read_document, where lengths stand, edits.
Never imports a shoe, a layout or anything that is worked out from a run.
"""

from conduit.document.doubts import doubts
from conduit.document.edits import apply_edits
from conduit.document.faults import fault_in_words
from conduit.document.lengths import changed, is_of_shoe, lengths_in, read_length, spelled, with_units
from conduit.document.limits import CrewLimits, read_crew_limits
from conduit.document.mirror import mirrored
from conduit.document.parts import MOST_REFERENCES, End, ShoeFigures, Start
from conduit.document.pipe_words import material_called, pipe_first, size_first
from conduit.document.rack import MOST_PIPES, PipeRack, RackPipe
from conduit.document.rack_reader import MeasuredRack, read_rack
from conduit.document.rack_way import RACK_WAYS, USUAL_SETBACK, USUAL_SHOTS, HowInRack, PlaceInRack, RackWay
from conduit.document.run import (
    LARGEST_DOCUMENT,
    Head,
    MeasuredRun,
    RunDocument,
    UnreadableDocument,
    read_document,
    step_name,
    tape_in,
)
from conduit.document.steps import (
    MOST_SHOTS,
    TURNS,
    AnyStep,
    BendStep,
    BoxOffsetStep,
    CouplingStep,
    KickStep,
    Obstacle,
    OffsetReference,
    OffsetStep,
    PullPointStep,
    RaisedStep,
    RolledStep,
    Saddle3Step,
    Saddle4Step,
    SlopeStep,
    StepLeftOut,
    StepPart,
    SweepStep,
    SweptAround,
    above_axis,
    rise_of,
)
from conduit.document.typed import (
    ANGLE_READERS,
    LENGTH_READERS,
    LONGEST_NAME,
    MOST_TURN,
    Length,
    Name,
    OptionalLength,
    SignedLength,
    Typed,
    is_blank,
    reads_signed,
)

__all__ = [
    "ANGLE_READERS",
    "LARGEST_DOCUMENT",
    "LENGTH_READERS",
    "LONGEST_NAME",
    "MOST_PIPES",
    "MOST_REFERENCES",
    "MOST_SHOTS",
    "MOST_TURN",
    "RACK_WAYS",
    "TURNS",
    "USUAL_SETBACK",
    "USUAL_SHOTS",
    "AnyStep",
    "BendStep",
    "BoxOffsetStep",
    "CouplingStep",
    "CrewLimits",
    "End",
    "Head",
    "HowInRack",
    "KickStep",
    "Length",
    "MeasuredRack",
    "MeasuredRun",
    "Name",
    "Obstacle",
    "OffsetReference",
    "OffsetStep",
    "OptionalLength",
    "PipeRack",
    "PlaceInRack",
    "PullPointStep",
    "RackPipe",
    "RackWay",
    "RaisedStep",
    "RolledStep",
    "RunDocument",
    "Saddle3Step",
    "Saddle4Step",
    "ShoeFigures",
    "SignedLength",
    "SlopeStep",
    "Start",
    "StepLeftOut",
    "StepPart",
    "SweepStep",
    "SweptAround",
    "Typed",
    "UnreadableDocument",
    "above_axis",
    "apply_edits",
    "changed",
    "doubts",
    "fault_in_words",
    "is_blank",
    "is_of_shoe",
    "lengths_in",
    "material_called",
    "mirrored",
    "pipe_first",
    "read_crew_limits",
    "read_document",
    "read_length",
    "read_rack",
    "reads_signed",
    "rise_of",
    "size_first",
    "spelled",
    "step_name",
    "tape_in",
    "with_units",
]
