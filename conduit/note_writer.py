"""Writing a field note from a raw run document, whose figures may be numbers or text."""

import re
from collections.abc import Callable, Mapping
from typing import Any

from conduit.units import TAPE_DENOMINATORS

Source = Mapping[str, Any]


def write_note(document: Source) -> str:
    """The field note of a raw run document that can be read (`conduit.document.read_document` finds no fault)."""
    lines = [f"run {_quoted(document['name'])}"] if document.get("name") else []
    lines += [_pipe_line(document), _start_line(document.get("start", {}))]
    lines += [_STEPS[step["kind"]](step) for step in document.get("steps", [])]
    return "\n".join([*lines, _end_line(document.get("end", {}))]) + "\n"


def figure(value: object) -> str:
    """A figure as it was typed, or a number as the tape has it (decimal where no tape division is)."""
    if isinstance(value, str):
        return value.strip()
    number = float(value)  # type: ignore[arg-type]
    whole, part = divmod(abs(number), 1)
    bottom = next((b for b in TAPE_DENOMINATORS if abs(part * b - round(part * b)) < 1e-9), 0)
    top = round(part * bottom)
    sign = "-" if number < 0 else ""
    if not bottom:
        return f"{number:.9f}".rstrip("0")
    if not top or top == bottom:
        return f"{sign}{int(whole) + (1 if top else 0)}"
    return f"{sign}{int(whole)} {top}/{bottom}" if whole else f"{sign}{top}/{bottom}"


def _quoted(name: str) -> str:
    return f'"{name}"' if re.search(r"[,#]|^\s|\s$", name) else name


def _joined(*parts: str) -> str:
    return ", ".join(part for part in parts if part)


def _with(word: str, source: Source, key: str) -> str:
    value = source.get(key)
    return "" if value is None else f"{word} {figure(value)}"


def _pipe_line(document: Source) -> str:
    shoe = document.get("shoe") or {}
    tape = document.get("tape", "1/16")
    stand_off = document.get("stand_off")
    return _joined(
        f"pipe {document.get('trade_size', '')} {document.get('material', 'EMT')}",
        f'shoe "{shoe["name"]}"' if shoe.get("name") else "",
        _with("deduct", shoe, "deduct"),
        _with("gain", shoe, "gain"),
        f"straps off {figure(stand_off)}" if stand_off not in (None, 0, "0", "") else "straps tight",
        f"tape {tape}" if tape != "1/16" else "",
        "in feet" if document.get("feet") else "",
    )


def _start_line(start: Source) -> str:
    box = f"start box {_quoted(start['name'])}" if start.get("name") else "start"
    return _joined(box, start.get("heading", ""), _with("knockout", start, "knockout"))


def _end_line(end: Source) -> str:
    measured = end.get("measured") or {}
    names = {"right": "left", "up": "down", "out": "in"}
    axes = []
    for axis, other in names.items():
        if axis in measured:
            text = figure(measured[axis])
            axes.append(f"{other} {text[1:]}" if text.startswith("-") else f"{axis} {text}")
    head = "end open" if end.get("open") else "end box" if end.get("name") else "end"
    name = f" {_quoted(end['name'])}" if end.get("name") else ""
    return _joined(
        head + name,
        _with("at" if end.get("open") else "seat at", end, "at"),
        _with("at least", end, "at_least"),
        _with("at most", end, "at_most"),
        _with("knockout", end, "knockout"),
        *[f"measured {axis}" if i == 0 else axis for i, axis in enumerate(axes)],
    )


def _over_words(step: Source) -> str:
    over = step.get("over") or {}
    name = f' "{over["name"]}"' if over.get("name") else ""
    return f" over {over.get('shape', 'box')} {figure(over['height'])}{name}" if over else ""


def _placed_by(step: Source) -> str:
    return f"{step.get('ref', 'raised_by').replace('_', ' ')} {figure(step['at'])}"


def _clear(step: Source) -> str:
    return _with("clear", step.get("over") or {}, "clear")


def _turned_at(step: Source) -> list[str]:
    to = step.get("to", "back")
    off = step.get("stand_off")
    return [
        f"{to} at {figure(step['at'])}",
        f"standing off {figure(off)}" if to == "wall" and off is not None else "",
        "next from centre" if step.get("next_from") == "centre" else "",
    ]


def _offset(step: Source) -> str:
    head = f"offset {step['toward']}{_rise(step)}{_over_words(step)}{_angle(step)}"
    return _joined(head, _clear(step), _placed_by(step))


def _rolled(step: Source) -> str:
    roll = f"and {step['roll_toward']} {figure(step['roll'])}"
    return _joined(f"rolled offset {step['toward']}{_rise(step)} {roll}{_angle(step)}", _placed_by(step))


def _box_offset(step: Source) -> str:
    words = {"knockout": "knockout", "stand_off": "strap off", "straight": "straight", "angle": "at"}
    figures = [_with(word, step, key) for key, word in words.items()]
    return _joined(
        f"box offset to {step.get('surface', 'in')}", *figures, "at the end" if step.get("end") == "end" else ""
    )


def _saddle(step: Source) -> str:
    head = f"saddle {step.get('toward', 'out')}{_rise(step)}{_over_words(step)}"
    where = ["near", "width", "margin"] if step["kind"] == "saddle4" else []
    figures = [_with(word, step, word) for word in where]
    return _joined(head, _clear(step), _angle(step).strip(), _with("centre", step, "at"), *figures)


def _kick(step: Source) -> str:
    kick = f"kicked {step['toward']}{_rise(step)}"
    back = [_with("setback", step, "kick_back"), _with("kick angle", step, "kick_angle")]
    after = "kick after" if step.get("when") == "after" else ""
    return _joined(f"90 {step['turn']}", *_turned_at(step), kick, *back, after)


def _sweep(step: Source) -> str:
    gaps = "spaced over the gaps" if step.get("spacing") == "ends" else ""
    shots = f"{step['shots']} shots"
    return _joined(f"sweep {step['turn']}", *_turned_at(step), _with("radius", step, "radius"), shots, gaps)


def _bend(step: Source) -> str:
    plain = step.get("angle") in (None, 90, 90.0, "90")
    head = f"90 {step['turn']}" if plain else f"bend {figure(step['angle'])} {step['turn']}"
    return _joined(head, *_turned_at(step))


def _pull_point(step: Source) -> str:
    name = f" {_quoted(step['name'])}" if step.get("name") else ""
    return f"pull point{name} at {figure(step['at'])}"


def _rise(step: Source) -> str:
    return "" if step.get("rise") is None else f" {figure(step['rise'])}"


def _angle(step: Source) -> str:
    return "" if step.get("angle") is None else f" at {figure(step['angle'])}"


_STEPS: dict[str, Callable[[Source], str]] = {
    "offset": _offset,
    "rolled": _rolled,
    "box_offset": _box_offset,
    "saddle3": _saddle,
    "saddle4": _saddle,
    "kick90": _kick,
    "sweep": _sweep,
    "coupling": lambda step: f"coupling at {figure(step['at'])}",
    "pull_point": _pull_point,
    "bend": _bend,
}
