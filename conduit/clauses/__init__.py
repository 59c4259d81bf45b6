"""The clause table: each kind of step told once, as whole patterns with slots.

Knows, for every kind, which figures are asked in which order, how a field note has each clause, which sentence of the
interface says it and when it applies; units, ranges and defaults it takes from the models. Gives: KINDS, field_of,
StepAsWritten, patterns taken apart, the table for the front end. Never imports a layout or what is worked out of a run.
"""

from conduit.clauses.conditions import Condition
from conduit.clauses.exported import exported_table, sentences_in
from conduit.clauses.kind import Clause, StepKind
from conduit.clauses.pattern import Maybe, Piece, Slot, pieces_of, slots_of
from conduit.clauses.table import BY_NAME, IN_RACK, KINDS, Field, StepAsWritten, Unit, field_of

__all__ = [
    "BY_NAME",
    "IN_RACK",
    "KINDS",
    "Clause",
    "Condition",
    "Field",
    "Maybe",
    "Piece",
    "Slot",
    "StepAsWritten",
    "StepKind",
    "Unit",
    "exported_table",
    "field_of",
    "pieces_of",
    "sentences_in",
    "slots_of",
]
