"""Steps over something and back down."""

from conduit.clauses.conditions import both, filled, given, has, no
from conduit.clauses.kind import Ask, Clause, StepKind
from conduit.clauses.placing import ANGLES, CLEAR, GOT_OVER, OVER, RISE_BY, over_asks
from conduit.document import Saddle3Step, Saddle4Step

_HEAD = f"saddle {{toward}}[ {{rise}}][ {OVER}]"
_OTHER_HEADS = (f"saddle[ {{toward}}][ {{rise}}][ {OVER}][ at {{angle}}]",)
_EXAMPLE = "saddle over round 1 3/4, clear 1/2, at 45, centre 43"
_AT_ANGLE = Clause("at {angle}", when=given("angle"))

SADDLE3 = StepKind(
    Saddle3Step,
    3,
    "M1 17H6L14 9L20 9L28 17H33",
    tapes={
        "rise": (31, 17, 31, 9),
        "over.height": (17, 20, 17, 13),
        "over.clear": (17, 13, 17, 10.5),
        "over.stand_off": (3, 20.5, 3, 18.5),
        "at": (1, 21, 17, 21),
        "width": (14, 15, 20, 15),
    },
    asks=(
        Ask("toward", "outward"),
        Ask("rise"),
        *over_asks("round"),
        Ask("angle", "45", offered=("22 1/2", "30", "45", "60")),
        Ask("at", ""),
        Ask("width"),
    ),
    clauses=(
        Clause(_HEAD, _OTHER_HEADS, says="saddle3", example=_EXAMPLE),
        *GOT_OVER,
        _AT_ANGLE,
        Clause("centre {at}"),
        Clause("width {width}", when=given("width")),
        Clause(says="square_width", when=both(given("over"), has("over.shape", "box"))),
    ),
    ways={"rise_by": RISE_BY},
)

SADDLE4 = StepKind(
    Saddle4Step,
    4,
    "M1 17H4L9 8H25L30 17H33",
    told_by="near",
    tapes={
        "rise": (32, 17, 32, 8),
        "over.height": (17, 20, 17, 12),
        "over.clear": (20, 12, 20, 9.5),
        "over.stand_off": (2.5, 20.5, 2.5, 18.5),
        "near": (1, 21, 11, 21),
        "width": (11, 15, 23, 15),
        "margin": (9, 12, 11, 12),
        "beyond": (31.5, 20, 31.5, 18),
    },
    asks=(
        Ask("toward", "outward"),
        Ask("rise"),
        *over_asks("box"),
        Ask("angle", "30", offered=ANGLES),
        Ask("near", ""),
        Ask("width", ""),
        Ask("margin", CLEAR),
        Ask("beyond"),
    ),
    clauses=(
        Clause(_HEAD, _OTHER_HEADS, says="saddle4", example=_EXAMPLE),
        *GOT_OVER,
        _AT_ANGLE,
        Clause("near {near}"),
        Clause("width {width}"),
        Clause("margin {margin}", when=given("margin")),
        Clause("beyond {beyond}", when=given("beyond")),
        Clause(says="beyond", when=both(filled("beyond"), no(has("beyond", 0))), on_request=True),
    ),
    ways={"rise_by": RISE_BY},
)

SADDLES = (SADDLE3, SADDLE4)
