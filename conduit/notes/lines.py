"""How the lines of steps read: a form for each way in which a line begins, made from the clause table."""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from itertools import chain
from typing import get_args

from conduit.clauses import IN_RACK, KINDS, Clause, Field, Maybe, Piece, Slot, StepKind, Unit, field_of, pieces_of
from conduit.geometry import Direction
from conduit.notes.grammar import NAME, Form, Raw, unquoted
from conduit.tables import Material, TradeSize

# A figure is no word of the clause that follows it.
_FIGURE = f"(?!(?:at|over|least|most) ){NAME}"
_WORDS = "|".join
_SHAPES: dict[Unit, str] = {
    "length": _FIGURE,
    "signed": _FIGURE,
    "angle": _FIGURE,
    "name": NAME,
    "direction": _WORDS(get_args(Direction)),
    "size": _WORDS(map(re.escape, get_args(TradeSize))),
    "material": _WORDS(get_args(Material)),
    "count": r"\d{1,4}|\?",
}


@dataclass(frozen=True)
class StepForm(Form):
    """A line of a step: what each of its clauses says besides its slots, and the kinds whose lines begin so."""

    says: Mapping[str, Raw]
    kinds: tuple[StepKind, ...]

    def kind_of(self, found: Raw) -> StepKind:
        """The kind that was meant: the one whose telling field is there, else the first."""
        return next((kind for kind in self.kinds if kind.told_by and kind.told_by in found), self.kinds[0])


def spelled(value: object) -> str:
    """A choice as a note has it: in words."""
    return str(value).replace("_", " ")


@cache
def _words_of(key: str) -> tuple[str, ...]:
    """The words of a choice in all kinds that have it: one of another kind is read, and the document says so."""
    fields = [field_of(kind, ask.key) for kind in KINDS for ask in kind.asks if ask.key == key]
    return tuple(dict.fromkeys(chain.from_iterable(field.choices for field in fields)))


def _shape(key: str, field: Field, is_quoted: bool) -> str:
    if is_quoted:
        return '[^"]*'
    if field.unit == "choice":
        return _WORDS(map(spelled, _words_of(key) or field.choices))
    return _SHAPES[field.unit]


def _expression(kind: StepKind, pieces: tuple[Piece, ...]) -> Iterator[str]:
    before = ""
    for piece in pieces:
        if isinstance(piece, Maybe):
            yield f"(?:{''.join(_expression(kind, piece.pieces))})?"
        elif isinstance(piece, Slot):
            shape = _shape(piece.key, field_of(kind, piece.key), before.endswith('"'))
            yield f"(?P<{piece.key.replace('.', '__')}>{shape})"
        else:
            yield re.escape(piece)
        before = piece if isinstance(piece, str) else ""


def expression_of(kind: StepKind, pattern: str) -> str:
    """The regular expression of a clause of a note, its slots as groups."""
    return "".join(_expression(kind, pieces_of(pattern)))


def _begins(clause: Clause) -> str:
    """The words with which a line begins: two at most."""
    first = next(piece for piece in pieces_of(clause.note) if isinstance(piece, str))
    return " ".join(first.split()[:2])


def _form(begins: str) -> StepForm:
    kinds = tuple(kind for kind in KINDS if any(_is_head(clause, begins) for clause in kind.clauses))
    heads, says = list[str](), dict[str, Raw]()
    for kind in kinds:
        for clause in kind.clauses:
            patterns = [expression_of(kind, note) for note in (clause.note, *clause.also) if note]
            if _is_head(clause, begins):
                heads += patterns
            elif not clause.example:
                says |= {pattern: dict(clause.sets) for pattern in patterns}
    says[expression_of(kinds[0], IN_RACK.note)] = {}
    example = next(clause.example for clause in kinds[0].clauses if _is_head(clause, begins))
    # What is words alone is no figure.
    clauses = tuple(sorted(says, key=lambda pattern: "(?P<" in pattern))
    # What says the most is tried first: a figure takes in what no slot asks for.
    fullest = sorted(dict.fromkeys(heads), key=lambda pattern: -pattern.count("(?P<"))
    return StepForm(begins, tuple(fullest), clauses, example, says, kinds)


def _is_head(clause: Clause, begins: str) -> bool:
    return bool(clause.example) and _begins(clause) == begins


@cache
def step_forms() -> tuple[StepForm, ...]:
    """The forms of all steps."""
    heads = (clause for kind in KINDS for clause in kind.clauses if clause.example)
    return tuple(_form(begins) for begins in dict.fromkeys(map(_begins, heads)))


# What a part of a step is about: without it the rest of the part says nothing.
_ABOUT = {"over": "height"}


def step_of(form: StepForm, found: Raw) -> Raw:
    """The raw step that a line says, its parts put together again."""
    kind = form.kind_of(found)
    step: Raw = {"kind": kind.name}
    for key, value in found.items():
        part = step
        *parts, last = key.split("__")
        for name in parts:
            part = part.setdefault(name, {})
        part[last] = _value_of(form, key.replace("__", "."), value)
    return {key: value for key, value in step.items() if key not in _ABOUT or _ABOUT[key] in value}


def _unit_in(form: StepForm, key: str) -> Unit:
    """The unit of a field in the first of a line's kinds that has it."""
    if key.startswith("rack."):
        return field_of(form.kinds[0], key).unit
    kind = next(kind for kind in form.kinds if any(ask.key == key for ask in kind.asks))
    return field_of(kind, key).unit


def _value_of(form: StepForm, key: str, value: str) -> str | int:
    text = unquoted(value)
    unit = _unit_in(form, key)
    if unit == "count":
        return int(text) if text else ""
    if unit == "material":
        return next((one for one in get_args(Material) if one.lower() == text.lower()), text)
    return text.lower().replace(" ", "_") if unit in ("direction", "choice") else text
