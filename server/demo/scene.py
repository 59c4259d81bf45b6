"""The demo scene: all names and figures are made up."""

from typing import Any

PASSWORD = "three-cone-six"
PEOPLE = [("dana", "Dana", "Wexcombe", "lead"), ("marek", "Marek", "Olin", "bender"), ("ivy", "Ivy", "Tarn", "viewer")]
CREW = "Saltmarsh Night Crew"
JOB = ("Kiln room fit-out", "Cobblewick Pottery, back yard door")

# Name, material, size, deduct, gain, front edge ahead of the arrow; and how many days ago it was calibrated.
SHOES = [
    ("Old faithful", "EMT", "3/4", "6", "3 1/4", "1 1/8", 44),
    ("Yard spare", "EMT", "3/4", "5 3/4", "3", None, None),
    ("Van half-inch", "EMT", "1/2", "5", "2 5/8", None, 30),
    ("Borrowed 1 inch", "EMT", "1", "8 1/32", "4", None, None),
]


def _shoe(name: str, size: str, deduct: str, gain: str, front: str | None = None) -> dict[str, Any]:
    """A shoe as it is written into a run."""
    shoe: dict[str, Any] = {"name": name, "deduct": deduct, "gain": gain, "bends": [f"EMT {size}"]}
    return {**shoe, "front": front} if front else shoe


_OLD_FAITHFUL = _shoe("Old faithful", "3/4", "6", "3 1/4", "1 1/8")
_VAN_HALF = _shoe("Van half-inch", "1/2", "5", "2 5/8")
_BORROWED_ONE = _shoe("Borrowed 1 inch", "1", "8 1/32", "4")

# Size, length, place on the rack, how many days it lies there.
SCRAPS = [
    ("3/4", "41 3/8", "bay 1", 40),
    ("3/4", "27", "bay 1", 33),
    ("3/4", "68 1/2", "bay 2", 26),
    ("3/4", "15 1/4", "bay 1", 21),
    ("1/2", "71 1/4", "bay 2", 19),
    ("1/2", "33 3/4", "bay 1", 12),
    ("1/2", "18 1/2", "van", 9),
    ("1", "46 1/8", "bay 3", 6),
    ("1", "22", "bay 3", 2),
]


def _run(
    name: str, size: str, shoe: dict[str, Any], start: tuple[str, str], steps: list[Any], end: tuple[str, str]
) -> dict[str, Any]:
    return {
        "name": name,
        "material": "EMT",
        "trade_size": size,
        "shoe": shoe,
        "tape": "1/16",
        "feet": False,
        "start": {"name": start[0], "heading": start[1]},
        "steps": steps,
        "end": {"name": end[0], "at": end[1]},
    }


def _ninety(turn: str, at: str, to: str = "back") -> dict[str, str]:
    return {"kind": "bend", "turn": turn, "to": to, "at": at}


def _offset(toward: str, rise: str, angle: str, ref: str, at: str) -> dict[str, str]:
    return {"kind": "offset", "toward": toward, "rise": rise, "angle": angle, "ref": ref, "at": at}


def _over(shape: str, name: str, height: str, clear: str) -> dict[str, str]:
    return {"shape": shape, "name": name, "height": height, "clear": clear}


RUNS = [
    _run(
        "Kiln 2 feed",
        "3/4",
        _OLD_FAITHFUL,
        ("Panel KP", "up"),
        [
            _offset("right", "5 1/2", "30", "raised_by", "41 1/4"),
            _ninety("right", "71 1/2"),
            _ninety("down", "88 3/4"),
        ],
        ("Kiln 2 box", "33 1/2"),
    ),
    _run(
        "Vent hood switch",
        "1/2",
        _VAN_HALF,
        ("Switch box", "up"),
        [_ninety("right", "46 5/8"), _offset("out", "2 1/4", "22 1/2", "starts_at", "14")],
        ("Hood box", "61"),
    ),
    _run(
        "Kiln 3 feed",
        "1",
        _BORROWED_ONE,
        ("Panel KP", "up"),
        [_ninety("left", "58"), _ninety("down", "49 1/4")],
        ("Kiln 3 box", "27 5/8"),
    ),
    _run(
        "Wedging table outlet",
        "1/2",
        _VAN_HALF,
        ("Junction J4", "right"),
        [_ninety("down", "38 1/2")],
        ("Table box", "29 7/8"),
    ),
    {
        **_run(
            "Glaze store feed",
            "3/4",
            _OLD_FAITHFUL,
            ("Panel KP", "right"),
            [
                {
                    "kind": "saddle3",
                    "toward": "out",
                    "over": _over("round", "gas line", "1 3/4", "1/2"),
                    "angle": "45",
                    "at": "31 1/2",
                },
                {
                    "kind": "saddle4",
                    "toward": "out",
                    "over": _over("box", "hood duct", "4", "1/2"),
                    "angle": "30",
                    "near": "68",
                    "width": "10 1/2",
                    "margin": "1/2",
                },
                {
                    "kind": "kick90",
                    "turn": "down",
                    "to": "back",
                    "at": "138 1/4",
                    "toward": "out",
                    "rise": "2",
                    "kick_back": "14",
                    "when": "before",
                },
            ],
            ("Glaze store box", "46"),
        ),
        "end": {"name": "Glaze store box", "at": "46", "measured": {"right": "137 7/8", "up": "-45 5/8", "out": "2"}},
    },
]

# Where the boxes of that job are, from its datum; the hood's is not measured yet. Of Panel KP which run takes which
# knockout, off the middle of its side: by the run's place in RUNS, from 1.
DATUM = "Column C3, at the floor"
_SQUARE = {"wide": "4", "high": "4", "deep": "2 1/8"}
BOXES: list[dict[str, Any]] = [
    {"name": "Panel KP", "along": "0", "up": "60", "wide": "14", "high": "20", "deep": "4"},
    {"name": "Kiln 2 box", "along": "91 1/4", "up": "106", **_SQUARE},
    {"name": "Kiln 3 box", "along": "-52 1/2", "up": "98 3/4", **_SQUARE},
    {"name": "Switch box", "along": "47", "up": "48", **_SQUARE},
    {"name": "Junction J4", "along": "40", "up": "132", **_SQUARE},
    {"name": "Glaze store box", "along": "144 3/4", "up": "12 1/2", "out": "2", **_SQUARE},
]
KNOCKOUTS = {1: "-2", 3: "-4 1/2"}

# What the crew takes, in minutes, and what it pays; made up as all else.
LABOUR = {"bend": 4.0, "cut": 3.0, "coupling": 2.5, "strap": 3.5, "ten_feet": 9.0, "rate": 62.0}
PRICES = """what,trade size,material,length,price
stick,1/2,EMT,120,6.40
stick,3/4,EMT,120,9.85
stick,1,EMT,120,16.20
coupling,1/2,EMT,,0.55
coupling,3/4,EMT,,0.80
coupling,1,EMT,,1.35
connector,1/2,EMT,,0.50
connector,3/4,EMT,,0.75
connector,1,EMT,,1.25
strap,,,,0.35
box,,,,3.90
"""
# In how many days each run of RUNS is due, and for whom it is, by the person's place in PEOPLE.
DUE: list[tuple[int | None, int | None]] = [(2, 1), (4, 1), (2, None), (None, None), (7, None)]

# Five feeds side by side, up the wall and along the ceiling, where they turn to hang under each other.
RACK_JOB = ("Kiln room ceiling", "Cobblewick Pottery, over the kilns")
RACK_RUN = {
    **_run(
        "Kiln 4 feed",
        "3/4",
        _OLD_FAITHFUL,
        ("Panel KP2", "up"),
        [
            _ninety("out", "84 1/2"),
            {**_ninety("left", "71"), "rack": {"how": "kicks", "after": "down", "setback": "12"}},
            _offset("down", "4", "30", "starts_at", "22"),
        ],
        ("Trough T4", "64"),
    ),
    "rack": {
        "side": "right",
        "spacing": "2",
        "pipes": [
            {"name": "Kiln 5 feed", "end_name": "Trough T5"},
            {"name": "Kiln 6 feed", "end_name": "Trough T6"},
            {"name": "Spray booth", "end_name": "Booth box"},
            {"name": "Ceiling lights", "trade_size": "1/2", "shoe": _VAN_HALF, "end_name": "Light box"},
        ],
    },
}

# Beside the dust pipe, about the same centre.
SWEPT_RUN = _run(
    "Booth light",
    "1/2",
    _VAN_HALF,
    ("Junction J7", "right"),
    [
        {
            "kind": "sweep",
            "turn": "up",
            "to": "back",
            "at": "46",
            "around": {"trade_size": "2", "material": "EMT", "radius": "10 1/2", "gap": "1 1/2"},
            "shots": 9,
            "spacing": "exact",
        }
    ],
    ("Light over the booth", "38"),
)

CEILING_RUNS = [RACK_RUN, SWEPT_RUN]

# What was bent before: job, and its runs with how many days ago. The shoe has worn a little since its calibration.
OLD_JOB = ("Drying shed", "Cobblewick Pottery, behind the yard")
OLD_RUNS = [
    (
        days,
        _run(
            name,
            "3/4",
            _OLD_FAITHFUL,
            ("Shed panel", "up"),
            [_ninety("right", height), _ninety("down", across)],
            (f"{name} box", "21 1/2"),
        ),
    )
    for days, name, height, across in (
        (38, "Shed light", "38 1/4", "41 1/2"),
        (31, "Damp cupboard fan", "44 7/8", "36 3/4"),
        (17, "Rack heater", "31 1/2", "47 1/8"),
        (6, "Door sensor", "36 5/8", "40 1/4"),
    )
]
WORN_DEDUCT, WORN_GAIN, RADIUS = 1 / 16, 1 / 32, 5.42
