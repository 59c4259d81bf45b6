"""Writing a field note from a raw run document, whose figures may be numbers or text."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from conduit.document import with_units
from conduit.notes.grammar import LIMITS, NOT_YET
from conduit.notes.step_line import step_line
from conduit.notes.words import Source, figure, joined, mapping, quoted
from conduit.units import METRIC_TAPE


@dataclass(frozen=True)
class WrittenNote:
    """A field note, and the line (from 1) on which each part of the document stands."""

    text: str
    lines: Mapping[str, int]


def write_note(document: Source) -> str:
    """The field note of a raw run document, also where it cannot be read yet."""
    return written_note(document).text


def written_note(document: Source) -> WrittenNote:
    """The same, with the line of each part. What is not measured yet is written as a question mark."""
    if document.get("tape") == METRIC_TAPE:
        document = with_units(document)
    parts = [("name", f"run {quoted(str(document['name']))}")] if document.get("name") else []
    parts.append(("trade_size", _pipe_line(document)))
    limits = _limits_line(mapping(document.get("limits")))
    parts += [("limits", limits)] if limits else []
    rack = mapping(document.get("rack"))
    parts += [("rack", rack_line(rack))] if rack else []
    parts += [("start", _start_line(mapping(document.get("start"))))]
    parts += _step_lines(document, "")
    parts += [
        (f"couplings.{i}", f"coupling along the pipe at {figure(at)}")
        for i, at in enumerate(_listed(document, "couplings"))
    ]
    parts.append(("end", _end_line(mapping(document.get("end")))))
    for at, pipe in enumerate(map(mapping, _listed(rack, "pipes"))):
        line, place = rack_pipe_line(at, pipe), f"rack.pipes.{at}"
        parts += [(place, line)] if line else []
        parts += _step_lines(pipe, f"{place}.")
        parts += [(f"{place}.end", _end_line(mapping(pipe["end"])))] if pipe.get("end") else []
    lines = {place: number for number, (place, _) in enumerate(parts, 1)}
    for place in ("material", "shoe", "stand_off", "coupling_gap", "joints", "longest_piece", "tape"):
        lines[place] = lines["trade_size"]
    return WrittenNote("\n".join(line for _, line in parts) + "\n", lines)


def _step_lines(part: Source, place: str) -> list[tuple[str, str]]:
    """The lines of the steps of a run, or of a pipe of its rack at `place`."""
    return [(f"{place}steps.{i}", step_line(step)) for i, step in enumerate(_listed(part, "steps"))]


def _listed(document: Source, key: str) -> list[Any]:
    value = document.get(key)
    return value if isinstance(value, list) else []


def rack_line(rack: Source) -> str:
    """A rack's own line: how the pipes lie, and what they are."""
    pipes = [mapping(pipe) for pipe in _listed(rack, "pipes")]
    sizes = [" ".join(str(pipe[key]) for key in ("material", "trade_size") if pipe.get(key)) for pipe in pipes]
    stagger = rack.get("stagger")
    return joined(
        f"rack {rack.get('side', NOT_YET)}",
        _with("gap", rack, "gap"),
        _with("spacing", rack, "spacing"),
        f"strut {rack['strut']}" if rack.get("strut") else "",
        _with("struts every", rack, "supports"),
        f"couplings {figure(stagger)} apart" if stagger not in (None, 0, "0", "") else "",
        " ".join(sizes) if sizes and all(pipe.get("trade_size") for pipe in pipes) else f"{len(pipes) + 1} pipes",
    )


def rack_pipe_line(at: int, pipe: Source) -> str:
    """What is a pipe's own in a rack, by its place in the list; nothing where it is as the lead but for its size."""
    shoe = mapping(pipe.get("shoe"))
    said = [
        f"from box {quoted(pipe['start_name'])}" if pipe.get("start_name") else "",
        f"to box {quoted(pipe['end_name'])}" if pipe.get("end_name") else "",
        _further(pipe, "starts"),
        _further(pipe, "ends"),
        f'shoe "{shoe["name"]}"' if shoe.get("name") else "",
        _with("deduct", shoe, "deduct"),
        _with("gain", shoe, "gain"),
        "left out" if pipe.get("left_out") else "",
        f"leaves after step {pipe['leaves']}" if pipe.get("leaves") is not None else "",
    ]
    name = f" {quoted(pipe['name'])}" if pipe.get("name") else ""
    own = bool(_listed(pipe, "steps") or pipe.get("end"))
    return joined(f"rack pipe {at + 2}{name}", *said) if name or own or any(said) else ""


def _further(pipe: Source, key: str) -> str:
    value = pipe.get(key)
    if value in (None, 0, "0", ""):
        return ""
    text = figure(value)
    return f"{key} {text[1:]} back" if text.startswith("-") else f"{key} {text} on"


def _word(value: object) -> str:
    return value if isinstance(value, str) else ""


def _with(word: str, source: Source, key: str) -> str:
    value = source.get(key)
    return "" if value is None else f"{word} {figure(value)}"


def _pipe_line(document: Source) -> str:
    shoe = mapping(document.get("shoe"))
    tape = document.get("tape", "1/16")
    stand_off, gap = document.get("stand_off"), document.get("coupling_gap")
    return joined(
        f"pipe {document.get('trade_size', '')} {document.get('material', 'EMT')}",
        f'shoe "{shoe["name"]}"' if shoe.get("name") else "",
        _with("deduct", shoe, "deduct"),
        _with("gain", shoe, "gain"),
        f"straps off {figure(stand_off)}" if stand_off not in (None, 0, "0", "") else "straps tight",
        f"couplings take {figure(gap)}" if gap not in (None, "") else "",
        f"{document['joints']} fittings" if document.get("joints") else "",
        _with("pieces up to", document, "longest_piece"),
        f"tape {tape}" if tape != "1/16" else "",
        "in feet" if document.get("feet") else "",
    )


def _limits_line(limits: Source) -> str:
    said = joined(*(_with(words, limits, key) for key, words in LIMITS.items()))
    return f"limits {said}" if said else ""


def _at_box(word: str, part: Source) -> str:
    """How a run starts or ends: open or at a box, and what that is called."""
    name = f" {quoted(part['name'])}" if part.get("name") else ""
    return f"{word}{' open' if part.get('open') else ' box' if name else ''}{name}"


def _start_line(start: Source) -> str:
    face = _with("from the face with a connector of", start, "connector")
    return joined(_at_box("start", start), _word(start.get("heading")), face, _with("knockout", start, "knockout"))


def _end_line(end: Source) -> str:
    measured = mapping(end.get("measured"))
    names = {"right": "left", "up": "down", "out": "in"}
    axes = []
    for axis, other in names.items():
        if axis in measured:
            text = figure(measured[axis])
            axes.append(f"{other} {text[1:]}" if text.startswith("-") else f"{axis} {text}")
    return joined(
        _at_box("end", end),
        _with("at" if end.get("open") else "seat at", end, "at"),
        _with("to the face with a connector of", end, "connector"),
        _with("at least", end, "at_least"),
        _with("at most", end, "at_most"),
        _with("knockout", end, "knockout"),
        *[f"measured {axis}" if i == 0 else axis for i, axis in enumerate(axes)],
    )
