"""Writing the line of a step: its clauses that apply, by the clause table."""

from conduit.clauses import BY_NAME, IN_RACK, Maybe, Piece, Slot, StepAsWritten, field_of, pieces_of
from conduit.notes.grammar import LEFT_OUT, NOT_YET
from conduit.notes.lines import spelled
from conduit.notes.words import figure, joined, mapping, quoted


def step_line(raw: object) -> str:
    """A step's line; one of no known kind is told in a comment."""
    source = mapping(raw)
    kind = BY_NAME.get(str(source.get("kind")))
    if not kind:
        return "# a step of no known kind stands here"
    step = StepAsWritten(kind, source)
    clauses = (clause for clause in (*kind.clauses, IN_RACK) if clause.note and clause.when.holds(step))
    line = joined(*("".join(_written(step, piece) for piece in pieces_of(clause.note)) for clause in clauses))
    return f"{LEFT_OUT if source.get('muted') is True else ''}{line}"


def _written(step: StepAsWritten, piece: Piece) -> str:
    if isinstance(piece, str):
        return piece
    if isinstance(piece, Maybe):
        whole = all(_is_there(step, one.key) for one in piece.pieces if isinstance(one, Slot))
        return "".join(_written(step, one) for one in piece.pieces) if whole else ""
    return _slot(step, piece.key)


def _is_there(step: StepAsWritten, key: str) -> bool:
    """Whether a slot has something to say: what a part must have is there with the part."""
    field, part = field_of(step.kind, key), key.rpartition(".")[0]
    if part and not field.optional:
        return step.written(part) is not None
    if field.unit in ("name", "material", "direction"):
        return bool(step.written(key))
    return field.unit == "choice" or step.written(key) is not None


def _slot(step: StepAsWritten, key: str) -> str:
    """What stands in a slot: a figure as it was typed, a word, a name."""
    unit = field_of(step.kind, key).unit
    if unit in ("length", "signed", "angle"):
        return figure(step.written(key))
    value = step.value(key)
    if unit == "name":
        return quoted(str(value))
    if unit == "count":
        return str(value or NOT_YET)
    return NOT_YET if value is None else spelled(value)
