"""What the lines of a field note look like that are no steps: a form for each, its clauses as patterns.

A figure runs to the next comma or the next word of the grammar; whether it can be read as a length is
found out later, with the document, in one place for all forms.
"""

import re
from dataclasses import dataclass
from typing import Any, get_args

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
    """One kind of line: in which ways its first clause reads, the clauses that may follow, and an example."""

    kind: str
    heads: tuple[str, ...]
    clauses: tuple[str, ...]
    expected: str


def unquoted(value: str) -> str:
    """Text as it was before it was quoted; nothing where it is not measured yet."""
    text = value.strip()
    if text == NOT_YET:
        return ""
    return text[1:-1] if len(text) > 1 and text[0] == text[-1] == '"' else text


def _figure(word: str, key: str) -> str:
    return f"{word} (?P<{key}>{N})"


def _one_of(key: str, *words: str) -> str:
    return f"(?P<{key}>{'|'.join(words)})"


_SIZES = "|".join(map(re.escape, get_args(TradeSize)))
_KNOCKOUT = f"knockout (?P<knockout>{N})(?: off the \\w+)?"

PINNED = Form("pinned", (_figure("coupling along the pipe at", "at"),), (), "coupling along the pipe at 96")
PIPE = Form(
    "pipe",
    ("pipe (?P<trade_size>[^ ,]+)(?: (?P<material>EMT|IMC|rigid))?",),
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
LIMITS_LINE = Form("limits", (f"limits (?:{'|'.join(_LIMITS)})",), _LIMITS, "limits bends 360, straps every 120")
START = Form(
    "start",
    (f"start(?: (?P<open>open)| box)?(?: (?P<name>(?!(?:{WAY}|open)$){NAME}))?",),
    (f"(?P<heading>{WAY})", _KNOCKOUT, _figure("from the face with a connector of", "connector")),
    "start box KP, up",
)
_SIDES = {"right": ("right", "left"), "up": ("up", "down"), "out": ("out", "in")}
END = Form(
    "end",
    (f"end(?: (?P<open>open)| box)?(?: (?!open$)(?P<name>{NAME}))?",),
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
_SIZE = f"(?:(?:{'|'.join(get_args(Material))}) )?(?:{_SIZES})"
RACK = Form(
    "rack",
    (f"rack (?P<side>{WAY})",),
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
    (f"rack pipe (?P<number>\\d{{1,3}})(?: (?P<name>{NAME}))?",),
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
    "run": Form("run", (f"run (?P<name>{NAME})",), (), "run Kiln 2 feed"),
    "pipe": PIPE,
    "limits": LIMITS_LINE,
    "start": START,
    "end": END,
}
