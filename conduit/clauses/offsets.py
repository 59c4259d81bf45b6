"""Steps that move the leg sideways with two bends."""

from conduit.clauses.conditions import both, given, has, no
from conduit.clauses.kind import Ask, Clause, StepKind, Usual
from conduit.clauses.placing import ANGLES, GOT_OVER, OVER, PLACED, PLACED_ASKS, RISE_BY, over_asks
from conduit.document import BoxOffsetStep, OffsetStep, RolledStep, SlopeStep

OFFSET = StepKind(
    OffsetStep,
    2,
    "M1 17H9L19 6H33",
    tapes={
        "rise": (28, 17, 28, 6),
        "over.height": (24, 20, 24, 11),
        "over.clear": (28, 11, 28, 7.5),
        "over.stand_off": (5, 20.5, 5, 18.5),
        "at.raised_by": (1, 20.5, 19, 20.5),
        "at.starts_at": (1, 20.5, 9, 20.5),
        "at.centred_at": (1, 20.5, 14, 20.5),
    },
    asks=(Ask("toward", "across"), Ask("rise", ""), *over_asks(""), Ask("angle", "30", offered=ANGLES), *PLACED_ASKS),
    clauses=(
        Clause(
            f"offset {{toward}}[ {{rise}}][ {OVER}][ at {{angle}}]",
            says="offset",
            example="offset out 3 1/2 at 30, raised by 38",
        ),
        Clause(also=("at {angle}",)),
        *GOT_OVER,
        PLACED,
    ),
    ways={"rise_by": RISE_BY},
)

SLOPE = StepKind(
    SlopeStep,
    8,
    "M1 18H8L17 10L33 4",
    tapes={
        "rise": (17, 18, 17, 10),
        "at.raised_by": (1, 21, 17, 21),
        "at.starts_at": (1, 21, 8, 21),
        "at.centred_at": (1, 21, 12.5, 21),
    },
    asks=(
        Ask("toward", "across"),
        Ask("rise", ""),
        Ask("angle", "30", offered=ANGLES),
        Ask("second_angle", "15", offered=ANGLES),
        Ask("ref", "starts_at"),
        Ask("at", ""),
    ),
    clauses=(
        Clause(
            "slope {toward} {rise} at {angle} then {second_angle}",
            says="slope",
            example="slope up 6 at 30 then 15, starts at 20",
        ),
        PLACED,
    ),
)

ROLLED = StepKind(
    RolledStep,
    7,
    "M1 18H8L22 5H33M8 18L22 12",
    tapes={
        "rise": (27, 12, 27, 5),
        "roll": (22, 18, 22, 12),
        "at.raised_by": (1, 21, 22, 21),
        "at.starts_at": (1, 21, 8, 21),
        "at.centred_at": (1, 21, 15, 21),
    },
    asks=(
        Ask("toward", "outward"),
        Ask("rise", ""),
        Ask("roll_toward", "across"),
        Ask("roll", ""),
        Ask("angle", "30", offered=ANGLES),
        *PLACED_ASKS,
    ),
    clauses=(
        Clause(
            "rolled offset {toward} {rise} and {roll_toward} {roll}[ at {angle}]",
            says="rolled",
            example="rolled offset out 4 1/2 and right 6 at 30, raised by 58",
        ),
        Clause(also=("at {angle}",)),
        PLACED,
    ),
)

_STAMPED = given("stamped")
BOX_OFFSET = StepKind(
    BoxOffsetStep,
    5,
    "M2 3V19M2 11H8L13 15H33",
    tapes={
        "knockout": (4.5, 20, 4.5, 11),
        "stand_off": (28, 20, 28, 16.5),
        "straight": (2, 8, 8, 8),
        "stamped": (20, 11, 20, 15),
        "stamped_length": (8, 7, 13, 7),
    },
    asks=(
        Ask("end", "box_end"),
        Ask("surface", "surface"),
        Ask("knockout", ""),
        Ask("stand_off", "0"),
        Ask("straight", Usual("2", "50")),
        Ask("angle", "10", offered=ANGLES),
        Ask("stamped"),
        Ask("stamped_length"),
    ),
    clauses=(
        Clause(
            "box offset to {surface}", says="box_offset", example="box offset to in, knockout 27/32, at 10, straight 2"
        ),
        *(
            Clause(f"{words} {{{key}}}", when=given(key))
            for words, key in (("knockout", "knockout"), ("strap off", "stand_off"), ("straight", "straight"))
        ),
        Clause("at {angle}", when=both(given("angle"), no(_STAMPED))),
        Clause(says="on_the_shoe", when=no(_STAMPED)),
        Clause("stamped {stamped}[ in {stamped_length}]", when=_STAMPED, says="stamped", adds=("stamped",)),
        Clause("at the end", when=has("end", "end"), sets={"end": "end"}),
    ),
)

OFFSETS = (OFFSET, SLOPE, ROLLED, BOX_OFFSET)
