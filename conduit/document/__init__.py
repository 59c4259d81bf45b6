"""The run as a person measured it: steps, ends, figures as they were typed.

Knows every kind of step, reads a document part by part (one bad field spoils nothing else), edits it.
Gives: RunDocument (the schema), read_document, where lengths stand, edits.
Never imports a shoe, a layout or anything that is worked out from a run.
"""

from conduit.document import steps
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
    read_part,
    step_name,
    tape_in,
)
from conduit.document.steps import *  # noqa: F403
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
    "MOST_TURN",
    "RACK_WAYS",
    "USUAL_SETBACK",
    "USUAL_SHOTS",
    "CrewLimits",
    "End",
    "Head",
    "HowInRack",
    "Length",
    "MeasuredRack",
    "MeasuredRun",
    "Name",
    "OptionalLength",
    "PipeRack",
    "PlaceInRack",
    "RackPipe",
    "RackWay",
    "RunDocument",
    "ShoeFigures",
    "SignedLength",
    "Start",
    "Typed",
    "UnreadableDocument",
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
    "read_part",
    "read_rack",
    "reads_signed",
    "size_first",
    "spelled",
    "step_name",
    "tape_in",
    "with_units",
]
# Every kind of step, and what is known of all.
__all__ += steps.__all__
