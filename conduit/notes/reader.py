"""Reading a field note: a run as plain text, a line a step, as one would write it on a box lid.

Reading gives a raw run document with every figure as it was written. Writing what was read is stable.
"""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, get_args

from conduit.catalogue import Message, message
from conduit.document import MOST_PIPES, pipe_first
from conduit.notes.grammar import HEADS, LEFT_OUT, PINNED, QUOTED, RACK, RACK_PIPE, SPELLINGS, Form, Raw, unquoted
from conduit.notes.lines import StepForm, step_forms, step_of
from conduit.spellings import plain_fractions
from conduit.tables import Material

LONGEST_LINE = 400
# More pipes are not listed: a rack of so many is refused when it is read.
MOST_COUNTED = MOST_PIPES + 1
_MATERIALS = {material.lower(): material for material in get_args(Material)}


@dataclass(frozen=True)
class NoteError:
    """What could not be read: the line (from 1), the words, and what was expected there."""

    line: int
    words: str
    says: Message


@dataclass(frozen=True)
class ReadNote:
    """What was read: a raw document, every fault, and the line on which each part of the document stands."""

    document: Raw
    errors: tuple[NoteError, ...]
    lines: Mapping[str, int]

    def line_of(self, place: str) -> int:
        """The line of a dotted place in the document, or 0 where it stands on none."""
        while place and place not in self.lines:
            place = place.rpartition(".")[0]
        return self.lines.get(place, 0)


def read_note(text: str) -> ReadNote:
    """Read a field note into a raw run document, in time linear in its length.

    Every line that cannot be read is an error with its line, word and reason, and the rest is still read. `lines`
    tells at which line each part of the document was written. Figures stay as they were written: the document reads
    them.
    """
    document: Raw = {"steps": []}
    errors: list[NoteError] = []
    lines: dict[str, int] = {}
    # Where steps and ends go: on the run, or on a pipe of its rack that has left.
    part: tuple[Raw, str] = (document, "")
    for number, line in enumerate(text.splitlines(), 1):
        if len(line) > LONGEST_LINE:
            errors.append(NoteError(number, line[:20], message("note.too_long", most=LONGEST_LINE)))
            continue
        clauses = _clauses(line)
        if not clauses:
            continue
        left_out = clauses[0].lower().startswith(LEFT_OUT)
        if left_out:
            clauses[0] = clauses[0][len(LEFT_OUT) :]
        form = _form_of(clauses[0])
        if not form:
            word = clauses[0].split()[0]
            errors.append(NoteError(number, word, message("note.no_such_line")))
            continue
        found = _read_line(form, clauses, number, errors)
        found = step_of(form, found) if isinstance(form, StepForm) else _plain(found)
        if left_out:
            found["muted"] = True
        if form is RACK_PIPE:
            part = _rack_pipe(found, number, document, lines)
        elif form.kind == "end" or isinstance(form, StepForm):
            _store(form, found, number, *part, lines)
        else:
            _store(form, found, number, document, "", lines)
    return ReadNote(document, tuple(errors), lines)


def keeping(read: Raw, before: Mapping[str, Any]) -> Raw:
    """What was read, with what a note cannot say kept from the document as it was: the same shoe's other figures."""
    shoe, old = read.get("shoe"), before.get("shoe")
    if isinstance(shoe, dict) and isinstance(old, Mapping) and shoe.get("name", "") == old.get("name", ""):
        read = {**read, "shoe": {**old, **shoe}}
    rack, racked = read.get("rack"), before.get("rack")
    if isinstance(rack, dict) and isinstance(racked, Mapping) and isinstance(racked.get("pipes"), list):
        olds = [old if isinstance(old, Mapping) else {} for old in racked["pipes"]]
        pipes = [keeping(pipe, olds[at]) if at < len(olds) else pipe for at, pipe in enumerate(rack["pipes"])]
        return {**read, "rack": {**rack, "pipes": pipes}}
    return read


def _clauses(line: str) -> list[str]:
    """The line's clauses, comments taken off; commas and # within quotes do not count.

    Other spellings of the grammar's own words are read as those, outside of quotes.
    """
    plain = _outside_quotes("#.*", "", line)
    for other, own in SPELLINGS.items():
        plain = _outside_quotes(other, own, plain)
    parts = re.findall(f"(?:{QUOTED}|[^,])+", plain)
    head, *others = [" ".join(part.split()) for part in parts if part.strip()] or [""]
    return [_pipe_spelled(head), *others] if head else []


def _pipe_spelled(head: str) -> str:
    """The clause that names the pipe with its size and material as they are listed."""
    word, _, named = head.partition(" ")
    if word.lower() != "pipe":
        return head
    size, material, rest = pipe_first(plain_fractions(named))
    return head if size is None or rest else " ".join(filter(None, (word, size, material)))


def _outside_quotes(pattern: str, other: str, line: str) -> str:
    """A line with what a pattern finds outside of quotes replaced."""
    return re.sub(f"({QUOTED})|{pattern}", lambda match: match[1] or other, line, flags=re.IGNORECASE)


def _form_of(head: str) -> Form | None:
    word = head.split()[0].lower()
    if word == "rack":
        return RACK_PIPE if head.lower().startswith("rack pipe") else RACK
    if word in HEADS:
        return HEADS[word]
    if head.lower().startswith("coupling along"):
        return PINNED
    return next((form for form in step_forms() if _fits(form, head) or _begins(form, head)), None)


def _fits(form: Form, head: str) -> Raw | None:
    return next((said for _, said in _readings(form.heads, head)), None)


def _readings(patterns: Sequence[str], clause: str) -> Iterator[tuple[str, Raw]]:
    """The patterns by which a clause can be read, each with what it says so."""
    return ((pattern, said) for pattern in patterns if (said := _matches(pattern, clause)) is not None)


def _begins(form: StepForm, head: str) -> bool:
    return f"{head} ".lower().startswith(f"{form.kind} ")


def _matches(pattern: str, clause: str) -> Raw | None:
    found = re.fullmatch(pattern, clause, re.IGNORECASE)
    return {key: value for key, value in found.groupdict().items() if value is not None} if found else None


def _read_line(form: Form, clauses: list[str], number: int, errors: list[NoteError]) -> Raw:
    found: Raw = {}
    head = _fits(form, clauses[0])
    if head is None:
        errors.append(NoteError(number, clauses[0], message("note.expected", example=form.expected)))
    found.update(head or {})
    for clause in clauses[1:]:
        read = next(_readings(form.clauses, clause), None)
        if not read:
            errors.append(NoteError(number, clause, message("note.not_understood", example=form.expected)))
            continue
        pattern, said = read
        found.update(said)
        if isinstance(form, StepForm):
            found = {**form.says[pattern], **found}
    return found


_CHOICES = ("heading", "side", "strut", "joints")


def _plain(found: Raw) -> Raw:
    """What a line says that is no step's: texts out of their quotes, choices in small letters."""
    plain = {key: unquoted(value) for key, value in found.items()}
    return {key: value.lower() if key in _CHOICES else value for key, value in plain.items()}


_HEAD_PLACES = {
    *("name", "trade_size", "material", "shoe", "stand_off", "coupling_gap", "joints", "longest_piece", "tape"),
}


def _store(form: Form, found: Raw, number: int, document: Raw, place: str, lines: dict[str, int]) -> None:
    """Put what a line says into the document, or into the part of it at `place`, such as `rack.pipes.1.`."""
    if form.kind in ("start", "end", "limits"):
        document[form.kind] = found if form.kind == "limits" else _end(found)
        lines[f"{place}{form.kind}"] = number
    elif form.kind == "rack":
        document["rack"] = _rack(found, document)
        lines["rack"] = number
    elif form.kind in ("run", "pipe"):
        document |= _head(found)
        lines |= dict.fromkeys(document.keys() & _HEAD_PLACES, number)
    elif form.kind == "pinned":
        pins = document.setdefault("couplings", [])
        lines[f"{place}couplings.{len(pins)}"] = number
        pins.append(found.get("at", ""))
    else:
        steps = document.setdefault("steps", [])
        lines[f"{place}steps.{len(steps)}"] = number
        steps.append(found)


def _rack(found: Raw, document: Raw) -> Raw:
    """A rack's line: so many pipes as the lead, the lead counted; or the size of each beside it."""
    pipes = list(_sized(found.pop("sizes", "").split()))
    more: list[Raw] = [{} for _ in range(min(int(found.pop("count", 1)), MOST_COUNTED) - 1)]
    before = document.get("rack", {}).get("pipes", [])
    return {**found, "pipes": [*pipes, *more] or before}


def _sized(words: Sequence[str]) -> Iterator[Raw]:
    """Pipes by their sizes, each after its material where it is another than the lead's."""
    kind: Raw = {}
    for word in words:
        if word.lower() in _MATERIALS:
            kind = {"material": _MATERIALS[word.lower()]}
        else:
            yield {**kind, "trade_size": word}
            kind = {}


def _rack_pipe(found: Raw, number: int, document: Raw, lines: dict[str, int]) -> tuple[Raw, str]:
    """A line of one pipe of the rack; what stands in the next lines is its own, where it leaves."""
    at = max(0, min(int(found.pop("number", 2)), MOST_COUNTED) - 2)
    pipes = document.setdefault("rack", {"pipes": []}).setdefault("pipes", [])
    pipes += [{} for _ in range(at + 1 - len(pipes))]
    for key in ("starts", "ends"):
        if found.pop(f"{key}_way", "").lower() == "back":
            found[key] = f"-{found[key]}"
    if "leaves" in found:
        found["leaves"] = int(found["leaves"])
    if found.pop("left_out", None):
        found["left_out"] = True
    pipes[at] = {**pipes[at], **_head(found)}
    lines[f"rack.pipes.{at}"] = number
    return pipes[at], f"rack.pipes.{at}."


def _head(found: Raw) -> Raw:
    figures = {key: found.pop(key) for key in ("deduct", "gain") if key in found}
    if "shoe" in found or figures:
        found["shoe"] = {"name": found.pop("shoe", ""), **figures}
    if found.pop("feet", None):
        found["feet"] = True
    return found


def _end(found: Raw) -> Raw:
    if found.pop("open", None):
        found["open"] = True
    measured = {}
    for axis in ("right", "up", "out"):
        plus, minus = found.pop(f"{axis}_plus", None), found.pop(f"{axis}_minus", None)
        if plus or minus:
            measured[axis] = plus or f"-{minus}"
    return {**found, "measured": measured} if measured else found
