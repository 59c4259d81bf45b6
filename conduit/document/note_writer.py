"""Writing a field note from a raw run document, whose figures may be numbers or text."""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from conduit.document.lengths import with_units
from conduit.document.note_grammar import LEFT_OUT, LIMITS, NOT_YET
from conduit.document.typed import is_blank
from conduit.units import METRIC_TAPE, write_length

Source = Mapping[str, Any]


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
    parts = [("name", f"run {_quoted(str(document['name']))}")] if document.get("name") else []
    parts.append(("trade_size", _pipe_line(document)))
    limits = _limits_line(_mapping(document.get("limits")))
    parts += [("limits", limits)] if limits else []
    rack = _mapping(document.get("rack"))
    parts += [("rack", rack_line(rack))] if rack else []
    parts += [("start", _start_line(_mapping(document.get("start"))))]
    parts += _step_lines(document, "")
    parts += [
        (f"couplings.{i}", f"coupling along the pipe at {figure(at)}")
        for i, at in enumerate(_listed(document, "couplings"))
    ]
    parts.append(("end", _end_line(_mapping(document.get("end")))))
    for at, pipe in enumerate(map(_mapping, _listed(rack, "pipes"))):
        line, place = rack_pipe_line(at, pipe), f"rack.pipes.{at}"
        parts += [(place, line)] if line else []
        parts += _step_lines(pipe, f"{place}.")
        parts += [(f"{place}.end", _end_line(_mapping(pipe["end"])))] if pipe.get("end") else []
    lines = {place: number for number, (place, _) in enumerate(parts, 1)}
    for place in ("material", "shoe", "stand_off", "coupling_gap", "joints", "longest_piece", "tape"):
        lines[place] = lines["trade_size"]
    return WrittenNote("\n".join(line for _, line in parts) + "\n", lines)


def _step_lines(part: Source, place: str) -> list[tuple[str, str]]:
    """The lines of the steps of a run, or of a pipe of its rack at `place`."""
    return [(f"{place}steps.{i}", _step_line(step)) for i, step in enumerate(_listed(part, "steps"))]


def _listed(document: Source, key: str) -> list[Any]:
    value = document.get(key)
    return value if isinstance(value, list) else []


def _mapping(value: object) -> Source:
    return value if isinstance(value, Mapping) else {}


def _step_line(step: object) -> str:
    """A step's line; one of no known kind is told in a comment."""
    source = _mapping(step)
    write = _STEPS.get(str(source.get("kind")))
    if not write:
        return "# a step of no known kind stands here"
    way = rack_way(_mapping(source.get("rack")))
    return _joined(f"{LEFT_OUT if source.get('muted') is True else ''}{write(source)}", way)


def rack_way(way: Source) -> str:
    """How the pipes beside take a step, as a clause of its line; nothing where it is the usual way."""
    words = [
        f"rack {way.get('how', NOT_YET)}",
        _word(way.get("after")),
        f"from {figure(way['setback'])} back" if way.get("setback") is not None else "",
        _with("at", way, "angle"),
        f"in {way['shots']} shots" if way.get("shots") is not None else "",
    ]
    return " ".join(word for word in words if word) if way else ""


def rack_line(rack: Source) -> str:
    """A rack's own line: how the pipes lie, and what they are."""
    pipes = [_mapping(pipe) for pipe in _listed(rack, "pipes")]
    sizes = [" ".join(str(pipe[key]) for key in ("material", "trade_size") if pipe.get(key)) for pipe in pipes]
    stagger = rack.get("stagger")
    return _joined(
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
    shoe = _mapping(pipe.get("shoe"))
    said = [
        f"from box {_quoted(pipe['start_name'])}" if pipe.get("start_name") else "",
        f"to box {_quoted(pipe['end_name'])}" if pipe.get("end_name") else "",
        _further(pipe, "starts"),
        _further(pipe, "ends"),
        f'shoe "{shoe["name"]}"' if shoe.get("name") else "",
        _with("deduct", shoe, "deduct"),
        _with("gain", shoe, "gain"),
        "left out" if pipe.get("left_out") else "",
        f"leaves after step {pipe['leaves']}" if pipe.get("leaves") is not None else "",
    ]
    name = f" {_quoted(pipe['name'])}" if pipe.get("name") else ""
    own = bool(_listed(pipe, "steps") or pipe.get("end"))
    return _joined(f"rack pipe {at + 2}{name}", *said) if name or own or any(said) else ""


def _further(pipe: Source, key: str) -> str:
    value = pipe.get(key)
    if value in (None, 0, "0", ""):
        return ""
    text = figure(value)
    return f"{key} {text[1:]} back" if text.startswith("-") else f"{key} {text} on"


def figure(value: object) -> str:
    """A figure as it was typed, or a number as a tape has it (decimal where no tape division is)."""
    if is_blank(value):
        return NOT_YET
    if isinstance(value, str):
        return _figure_text(value.strip())
    if isinstance(value, bool) or not isinstance(value, int | float):
        return NOT_YET
    return f"{'-' if value < 0 else ''}{write_length(abs(value))}"


def _figure_text(text: str) -> str:
    return '"' + text.replace('"', "''") + '"' if re.search("[,#]", text) else " ".join(text.split())


def _quoted(name: str) -> str:
    plain = " ".join(str(name).split())
    return (
        '"' + plain.replace('"', "''") + '"'
        if re.search('[,#"]|^(?:up|down|left|right|in|out|open)$', plain)
        else plain
    )


def _word(value: object) -> str:
    return value if isinstance(value, str) else ""


def _joined(*parts: str) -> str:
    return ", ".join(part for part in parts if part)


def _with(word: str, source: Source, key: str) -> str:
    value = source.get(key)
    return "" if value is None else f"{word} {figure(value)}"


def _pipe_line(document: Source) -> str:
    shoe = _mapping(document.get("shoe"))
    tape = document.get("tape", "1/16")
    stand_off, gap = document.get("stand_off"), document.get("coupling_gap")
    return _joined(
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
    said = _joined(*(_with(words, limits, key) for key, words in LIMITS.items()))
    return f"limits {said}" if said else ""


def _at_box(word: str, part: Source) -> str:
    """How a run starts or ends: open or at a box, and what that is called."""
    name = f" {_quoted(part['name'])}" if part.get("name") else ""
    return f"{word}{' open' if part.get('open') else ' box' if name else ''}{name}"


def _start_line(start: Source) -> str:
    face = _with("from the face with a connector of", start, "connector")
    return _joined(_at_box("start", start), _word(start.get("heading")), face, _with("knockout", start, "knockout"))


def _end_line(end: Source) -> str:
    measured = _mapping(end.get("measured"))
    names = {"right": "left", "up": "down", "out": "in"}
    axes = []
    for axis, other in names.items():
        if axis in measured:
            text = figure(measured[axis])
            axes.append(f"{other} {text[1:]}" if text.startswith("-") else f"{axis} {text}")
    return _joined(
        _at_box("end", end),
        _with("at" if end.get("open") else "seat at", end, "at"),
        _with("to the face with a connector of", end, "connector"),
        _with("at least", end, "at_least"),
        _with("at most", end, "at_most"),
        _with("knockout", end, "knockout"),
        *[f"measured {axis}" if i == 0 else axis for i, axis in enumerate(axes)],
    )


def _over_words(step: Source) -> str:
    over = _mapping(step.get("over"))
    name = f' "{over["name"]}"' if over.get("name") else ""
    return f" over {over.get('shape', 'box')} {figure(over.get('height'))}{name}" if over else ""


def _placed_by(step: Source) -> str:
    return f"{str(step.get('ref', 'raised_by')).replace('_', ' ')} {figure(step.get('at'))}"


def _clear(step: Source) -> str:
    over = _mapping(step.get("over"))
    return _joined(
        _with("clear", over, "clear"), _with("pipe off", over, "stand_off"), _with("reaching", over, "reach")
    )


def _turned_at(step: Source) -> list[str]:
    to = step.get("to", "back")
    off = step.get("stand_off")
    window = [_with(f"at {end}", step, f"at_{end}") for end in ("least", "most") if not is_blank(step.get(f"at_{end}"))]
    return [
        f"{to} at {figure(step.get('at'))}" if not (window and is_blank(step.get("at"))) else f"{to} {window.pop(0)}",
        *window,
        f"standing off {figure(off)}" if to == "wall" and off is not None else "",
        "next from centre" if step.get("next_from") == "centre" else "",
    ]


def _offset(step: Source) -> str:
    head = f"offset {step.get('toward', NOT_YET)}{_rise(step)}{_over_words(step)}{_angle(step)}"
    return _joined(head, _clear(step), _placed_by(step))


def _slope(step: Source) -> str:
    then = f"then {figure(step.get('second_angle'))}"
    at = figure(step.get("angle"))
    return _joined(f"slope {step.get('toward', NOT_YET)} {figure(step.get('rise'))} at {at} {then}", _placed_by(step))


def _rolled(step: Source) -> str:
    roll = f"and {step.get('roll_toward', NOT_YET)} {figure(step.get('roll'))}"
    return _joined(f"rolled offset {step.get('toward', NOT_YET)}{_rise(step)} {roll}{_angle(step)}", _placed_by(step))


def _box_offset(step: Source) -> str:
    words = {"knockout": "knockout", "stand_off": "strap off", "straight": "straight", "angle": "at"}
    figures = [_with(word, step, key) for key, word in words.items()]
    if step.get("stamped") is not None:
        takes = f" in {figure(step['stamped_length'])}" if step.get("stamped_length") is not None else ""
        figures[-1] = f"stamped {figure(step['stamped'])}{takes}"
    return _joined(
        f"box offset to {step.get('surface', 'in')}", *figures, "at the end" if step.get("end") == "end" else ""
    )


def _saddle(step: Source) -> str:
    head = f"saddle {step.get('toward', 'out')}{_rise(step)}{_over_words(step)}"
    where = ["near", "width", "margin", "beyond"] if step.get("kind") == "saddle4" else ["width"]
    figures = [_with(word, step, word) for word in where]
    return _joined(head, _clear(step), _angle(step).strip(), _with("centre", step, "at"), *figures)


def _kick(step: Source) -> str:
    kick = f"kicked {step.get('toward', NOT_YET)}{_rise(step)}"
    back = [_with("setback", step, "kick_back"), _with("kick angle", step, "kick_angle")]
    after = "kick after" if step.get("when") == "after" else ""
    return _joined(f"90 {step.get('turn', NOT_YET)}", *_turned_at(step), kick, *back, after)


def _sweep(step: Source) -> str:
    gaps = "spaced over the gaps" if step.get("spacing") == "ends" else ""
    by_angle = step.get("shot_angle") is not None
    shots = f"{figure(step['shot_angle'])} a shot" if by_angle else f"{step.get('shots') or NOT_YET} shots"
    return _joined(f"sweep {_turned(step)}", *_turned_at(step), *_radius(step), shots, gaps)


def _radius(step: Source) -> list[str]:
    """A sweep's radius, or the pipe that it goes around."""
    around = _mapping(step.get("around"))
    if not around:
        return [_with("radius", step, "radius")]
    material = f"{around['material']} " if around.get("material") else ""
    size = around.get("trade_size", NOT_YET)
    return [f"around {material}{size} of radius {figure(around.get('radius'))}", _with("gap", around, "gap")]


def _bend(step: Source) -> str:
    return _joined(f"{'90' if _is_ninety(step) else 'bend'} {_turned(step)}", *_turned_at(step))


def _is_ninety(step: Source) -> bool:
    return step.get("angle") in (None, 90, 90.0, "90")


def _turned(step: Source) -> str:
    """Which way a bend or a sweep turns, after its angle where that is no 90."""
    way = str(step.get("turn", NOT_YET))
    return way if _is_ninety(step) else f"{figure(step.get('angle'))} {way}"


def _pull_point(step: Source) -> str:
    name = f" {_quoted(step['name'])}" if step.get("name") else ""
    return _joined(f"pull point{name} at {figure(step.get('at'))}", _with("width", step, "width"))


def _rise(step: Source) -> str:
    return "" if step.get("rise") is None else f" {figure(step.get('rise'))}"


def _angle(step: Source) -> str:
    return "" if step.get("angle") is None else f" at {figure(step.get('angle'))}"


_STEPS: dict[str, Callable[[Source], str]] = {
    "offset": _offset,
    "rolled": _rolled,
    "slope": _slope,
    "box_offset": _box_offset,
    "saddle3": _saddle,
    "saddle4": _saddle,
    "kick90": _kick,
    "sweep": _sweep,
    "coupling": lambda step: f"coupling at {figure(step.get('at'))}",
    "pull_point": _pull_point,
    "bend": _bend,
}
