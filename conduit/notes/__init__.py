"""The field note: a run as plain text, a line a step, as one would write it on a box lid.

Knows how each line reads and is written, the steps' from the clause table. Gives: read_note, write_note, written_note,
keeping, compare. Never imports a layout or anything that is worked out from a run.
"""

from conduit.notes.diff import ComparedLine, compare
from conduit.notes.reader import keeping, read_note
from conduit.notes.writer import write_note, written_note

__all__ = ["ComparedLine", "compare", "keeping", "read_note", "write_note", "written_note"]
