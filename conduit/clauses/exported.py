"""The table for the front end: plain data, and the words of its sentences in a language."""

from collections.abc import Mapping
from typing import Any

from conduit.catalogue import Language, clause_texts
from conduit.clauses.conditions import ALWAYS
from conduit.clauses.kind import PROPOSED, Ask, Begins, Clause, StepKind, Usual, WayToGive
from conduit.clauses.table import KINDS, field_of
from conduit.document import RACK_WAYS

Table = dict[str, Any]


def exported_table() -> list[Table]:
    """Each kind with its fields in the order of asking, its sentence, the ways to give a figure, and its drawing."""
    return [_kind(kind) for kind in KINDS]


def sentences_in(language: Language) -> dict[str, str]:
    """The words of the table in a language, slots as the interface has them."""
    return dict(clause_texts(language))


def _kind(kind: StepKind) -> Table:
    return {
        "kind": kind.name,
        "profile": kind.profile,
        "tapes": {key: list(line) for key, line in kind.tapes.items()},
        "fields": {ask.key: _field(kind, ask) for ask in kind.asks},
        "sentence": [_clause(clause) for clause in kind.clauses if clause.says],
        "ways": {name: [_way(way) for way in ways] for name, ways in kind.ways.items()},
        "rack": list(RACK_WAYS.get(kind.name, ())),
    }


def _field(kind: StepKind, ask: Ask) -> Table:
    field = field_of(kind, ask.key)
    return _filled(
        unit=field.unit,
        begins=_begins(ask.begins),
        offered=list(ask.offered) or list(field.choices),
        default=_default(field.default),
        least=field.least,
        most=field.most,
        optional=field.optional,
        late=ask.late,
    )


def _default(value: object) -> str | None:
    return f"{value:g}" if isinstance(value, float) else value if isinstance(value, str) and value else None


def _begins(begins: Begins | None) -> Table | str | int | None:
    if isinstance(begins, Usual):
        return {"usual": [begins.inches, begins.mm]}
    return {"proposed": begins} if begins in PROPOSED else begins


def _clause(clause: Clause) -> Table:
    when = None if clause.when is ALWAYS else clause.when.exported()
    return _filled(says=clause.says, when=when, onRequest=clause.on_request, adds=list(clause.adds))


def _way(way: WayToGive) -> Table:
    begins = {key: _begins(one) for key, one in way.begins.items()}
    said = [_clause(clause) for clause in way.clauses]
    sets: Mapping[str, str] = way.sets
    return _filled(way=way.key, when=way.when.exported(), sentence=said, begins=begins, sets=dict(sets))


def _filled(**parts: Any) -> Table:
    """What is there: neither None, False nor an empty list."""
    return {key: part for key, part in parts.items() if part is not None and part is not False and part != []}
