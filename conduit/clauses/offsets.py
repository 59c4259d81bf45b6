"""Steps that move the leg sideways with two bends."""

from conduit.clauses.conditions import both, given, has, no
from conduit.clauses.kind import Ask, Clause, StepKind, Usual
from conduit.clauses.placing import ANGLES, GOT_OVER, OVER, PLACED, PLACED_ASKS, RISE_BY, over_asks
from conduit.document import BoxOffsetStep, OffsetStep, RolledStep, SlopeStep

OFFSET = StepKind(
    OffsetStep,
    2,
    "M1 17H9L19 6H33",
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
