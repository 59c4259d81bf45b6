"""What the lines of a field note look like: a form for each kind, its clauses as patterns.

A figure runs to the next comma or the next word of the grammar; whether it can be read as a length is
found out later, with the document, in one place for all forms.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, get_args

from conduit.document.rack_way import HowInRack
from conduit.tables import Joint, Material, TradeSize

Raw = dict[str, Any]

WAY = "(?:right|left|up|down|out|in)"
# A quote opens where no figure stands before it; after a figure it is an inch mark.
QUOTED = r'(?<![\d\'])"[^"]*"'
NAME = f"(?:{QUOTED}|[^,]+?)"
# A figure that was mistyped with a comma stands in quotes, so that nothing typed is lost.
N = NAME
# Other spellings of words of the grammar, and the degree sign at a turn that needs none.
SPELLINGS = {r"\bcenter(?=(ed)?\b)": "centre", r"\bcentreed\b": "centred", r"(?<=\b90)[°º](?=\s)": ""}
# Stands for a figure that is not measured yet.
NOT_YET = "?"
LEFT_OUT = "leave out "


@dataclass(frozen=True)
class Form:
    """One kind of line: how its first clause reads, the clauses that may follow, and an example."""

    kind: str
    head: str
    clauses: tuple[str, ...]
    expected: str
    finish: Callable[[Raw], Raw] = field(default=lambda found: found)


def _over(found: Raw) -> Raw:
    thing: Raw = {key: found.pop(key) for key in ("shape", "height", "clear", "stand_off", "reach") if key in found}
    name = found.pop("thing", "")
    if "height" in thing:
        found["over"] = {**thing, "name": name} if name else thing
    return found


def _saddle(found: Raw) -> Raw:
    found["kind"] = "saddle4" if "near" in found else "saddle3"
    return _over(found)


def _turn(found: Raw) -> Raw:
    found = _windowed(found)
    if "kicked" in found:
        found["toward"] = found.pop("kicked")
        return {**found, "kind": "kick90"}
    return found


def _windowed(found: Raw) -> Raw:
    """Where a turn has a window alone, its measure is written nowhere."""
    return {"at": "", **found} if found.keys() & {"at_least", "at_most"} else found


def _flags(found: Raw) -> Raw:
    if found.pop("at_end", None):
        found["end"] = "end"
    if found.pop("over_gaps", None):
        found["spacing"] = "ends"
    return found


def _swept(found: Raw) -> Raw:
    around = {key.removeprefix("around_"): found.pop(key) for key in list(found) if key.startswith("around_")}
    found = _windowed(found)
    return _flags({**found, "around": around} if around else found)


def _figure(word: str, key: str) -> str:
    return f"{word} (?P<{key}>{N})"


def _one_of(key: str, *words: str) -> str:
    return f"(?P<{key}>{'|'.join(words)})"


_REFERENCES = tuple(
    f"(?P<{word.replace(' ', '_')}>{word}) (?P<at>{N})" for word in ("raised by", "starts at", "centred at")
)
_OVER = f"over {_one_of('shape', 'round', 'box')} (?P<height>{N})(?: (?P<thing>{QUOTED}))?"
_THING = (_OVER, _figure("clear", "clear"), _figure("pipe off", "stand_off"), _figure("reaching", "reach"))
_RISE_OR_THING = f"(?: {_OVER}| (?!at )(?P<rise>{N}))?"
_AT_ANGLE = f"(?: at (?P<angle>{N}))?"
_ANGLE = (_figure("at", "angle"),)
_TO = (
    f"{_one_of('to', 'back', 'centre', 'wall')} at (?P<at>(?!least |most ){N})",
    f"(?:{_one_of('to', 'back', 'centre', 'wall')} )?at least (?P<at_least>{N})",
    f"(?:{_one_of('to', 'back', 'centre', 'wall')} )?at most (?P<at_most>{N})",
    _figure("standing off", "stand_off"),
)
_NEXT = f"next from {_one_of('next_from', 'back', 'centre')}"
_KICK = (
    f"kicked (?P<kicked>{WAY}) (?P<rise>{N})",
    _figure("setback", "kick_back"),
    _figure("kick angle", "kick_angle"),
    f"kick {_one_of('when', 'before', 'after')}",
)
_SIZES = "|".join(map(re.escape, get_args(TradeSize)))
_KNOCKOUT = f"knockout (?P<knockout>{N})(?: off the \\w+)?"

STEPS = (
    Form(
        "box_offset",
        f"box offset to (?P<surface>{WAY})",
        (
            _figure("knockout", "knockout"),
            _figure("strap off", "stand_off"),
            _figure("straight", "straight"),
            *_ANGLE,
            f"stamped (?P<stamped>{N})(?: in (?P<stamped_length>{N}))?",
            "(?P<at_end>at the end)",
        )[::-1],
        "box offset to in, knockout 27/32, at 10, straight 2",
        _flags,
    ),
    Form(
        "rolled",
        f"rolled offset (?P<toward>{WAY}) (?P<rise>{N}) and (?P<roll_toward>{WAY}) (?P<roll>{N}){_AT_ANGLE}",
        (*_ANGLE, *_REFERENCES),
        "rolled offset out 4 1/2 and right 6 at 30, raised by 58",
    ),
    Form(
        "slope",
        f"slope (?P<toward>{WAY}) (?P<rise>{N}) at (?P<angle>{N}) then (?P<second_angle>{N})",
        _REFERENCES,
        "slope up 6 at 30 then 15, starts at 20",
    ),
    Form(
        "offset",
        f"offset (?P<toward>{WAY}){_RISE_OR_THING}{_AT_ANGLE}",
        (*_ANGLE, *_REFERENCES, *_THING),
        "offset out 3 1/2 at 30, raised by 38",
        _over,
    ),
    Form(
        "saddle3",
        f"saddle(?: (?P<toward>{WAY}))?{_RISE_OR_THING}{_AT_ANGLE}",
        (
            *_ANGLE,
            *_THING,
            _figure("centre", "at"),
            _figure("near", "near"),
            _figure("width", "width"),
            _figure("margin", "margin"),
            _figure("beyond", "beyond"),
        ),
        "saddle over round 1 3/4, clear 1/2, at 45, centre 43",
        _saddle,
    ),
    Form("bend", f"90 (?P<turn>{WAY})", (*_TO, _NEXT, *_KICK), "90 right, back at 71 1/2", _turn),
    Form("bend", f"bend (?P<angle>{N}) (?P<turn>{WAY})", (*_TO, _NEXT), "bend 45 right, back at 30", _windowed),
    Form(
        "sweep",
        f"sweep(?: (?P<angle>(?!{WAY}){N}))? (?P<turn>{WAY})",
        (
            *_TO,
            _figure("radius", "radius"),
            f"around(?: (?P<around_material>{'|'.join(get_args(Material))}))? (?P<around_trade_size>{_SIZES})"
            f" of radius (?P<around_radius>{N})",
            _figure("gap", "around_gap"),
            r"(?P<shots>\d{1,4}) shots",
            f"(?P<shot_angle>{N}) a shot",
            "(?P<over_gaps>spaced over the gaps)",
        ),
        "sweep right, back at 60, radius 24, 9 shots",
        _swept,
    ),
    Form("coupling", _figure("coupling at", "at"), (), "coupling at 40"),
    Form("pinned", _figure("coupling along the pipe at", "at"), (), "coupling along the pipe at 96"),
    Form(
        "pull_point",
        f"pull point(?: (?P<name>{NAME}))? at (?P<at>{N})",
        (_figure("width", "width"),),
        "pull point C1 at 40, width 4",
    ),
)
PIPE = Form(
    "pipe",
    "pipe (?P<trade_size>[^ ,]+)(?: (?P<material>EMT|IMC|rigid))?",
    (
        _figure("shoe", "shoe"),
        _figure("deduct", "deduct"),
        _figure("gain", "gain"),
        _figure("straps off", "stand_off"),
        "straps tight",
        _figure("couplings take", "coupling_gap"),
        f"{_one_of('joints', *get_args(Joint))} fittings",
        _figure("pieces up to", "longest_piece"),
        "tape (?P<tape>1/16|1/8|1/32|1 mm)",
        "(?P<feet>in feet)",
    ),
    'pipe 3/4 EMT, shoe "Hand 3/4", straps tight',
)
# What is said of each limit, in this order.
LIMITS = {
    "most_degrees": "bends",
    "straight_at_connector": "straight",
    "clear_of_bend": "couplings clear",
    "least_piece": "pieces from",
    "support_from_box": "straps within",
    "support_spacing": "straps every",
    "closure": "closing within",
}
_LIMITS = tuple(_figure(words, key) for key, words in LIMITS.items())
LIMITS_LINE = Form("limits", f"limits (?:{'|'.join(_LIMITS)})", _LIMITS, "limits bends 360, straps every 120")
START = Form(
    "start",
    f"start(?: (?P<open>open)| box)?(?: (?P<name>(?!(?:{WAY}|open)$){NAME}))?",
    (f"(?P<heading>{WAY})", _KNOCKOUT, _figure("from the face with a connector of", "connector")),
    "start box KP, up",
)
_SIDES = {"right": ("right", "left"), "up": ("up", "down"), "out": ("out", "in")}
END = Form(
    "end",
    f"end(?: (?P<open>open)| box)?(?: (?!open$)(?P<name>{NAME}))?",
    (
        f"(?:seat )?at (?P<at>(?!least |most ){N})",
        _figure("to the face with a connector of", "connector"),
        _figure("at least", "at_least"),
        _figure("at most", "at_most"),
        _KNOCKOUT,
        *(f"(?:measured )?{plus} (?P<{axis}_plus>{N})" for axis, (plus, _) in _SIDES.items()),
        *(f"(?:measured )?{minus} (?P<{axis}_minus>{N})" for axis, (_, minus) in _SIDES.items()),
    ),
    "end box K2, seat at 33 1/2",
)
# How the pipes beside take a step; a clause of any step's line.
RACK_WAY = (
    f"rack {_one_of('rack_how', *get_args(HowInRack))}(?: (?P<rack_after>{WAY}))?(?: from (?P<rack_setback>{N}) back)?"
    f"(?: at (?P<rack_angle>{N}))?(?: in (?P<rack_shots>\\d{{1,4}}) shots)?"
)
_SIZE = f"(?:(?:{'|'.join(get_args(Material))}) )?(?:{_SIZES})"
RACK = Form(
    "rack",
    f"rack (?P<side>{WAY})",
    (
        _figure("gap", "gap"),
        _figure("spacing", "spacing"),
        f"strut (?P<strut>{WAY})",
        _figure("struts every", "supports"),
        f"couplings (?P<stagger>{N}) apart",
        r"(?P<count>\d{1,4}) pipes",
        f"(?P<sizes>{_SIZE}(?: {_SIZE})*)",
    ),
    "rack right, gap 1 1/2, 3/4 3/4 1/2",
)
RACK_PIPE = Form(
    "rack_pipe",
    f"rack pipe (?P<number>\\d{{1,3}})(?: (?P<name>{NAME}))?",
    (
        f"from(?: box)? (?P<start_name>{NAME})",
        f"to(?: box)? (?P<end_name>{NAME})",
        f"starts (?P<starts>{N}) (?P<starts_way>on|back)",
        f"ends (?P<ends>{N}) (?P<ends_way>on|back)",
        _figure("shoe", "shoe"),
        _figure("deduct", "deduct"),
        _figure("gain", "gain"),
        "(?P<left_out>left out)",
        r"leaves after step (?P<leaves>\d{1,4})",
    ),
    "rack pipe 3, to box K3, leaves after step 2",
)
HEADS = {
    "run": Form("run", f"run (?P<name>{NAME})", (), "run Kiln 2 feed"),
    "pipe": PIPE,
    "limits": LIMITS_LINE,
    "start": START,
    "end": END,
}
