"""Steps that turn to a new heading."""

from conduit.clauses.conditions import both, given, has, no
from conduit.clauses.kind import Ask, Clause, StepKind, Usual, WayToGive
from conduit.clauses.placing import ANGLES, BENT_TO, BENT_TO_ASK, NINETY, TURNED_AT, TURNED_AT_ASKS, WINDOW
from conduit.document import BendStep, KickStep, SweepStep

_AT_A_WALL = both(has("to", "wall"), given("stand_off"))

BEND = StepKind(
    BendStep,
    1,
    "M3 17H18Q25 17 25 10V3",
    tapes={
        "at.back": (3, 20.5, 26.5, 20.5),
        "at.centre": (3, 20.5, 25, 20.5),
        "at.wall": (3, 20.5, 30, 20.5),
        "stand_off": (26.5, 7, 30, 7),
    },
    asks=(
        Ask("turn", "across"),
        Ask("angle", "90", offered=BENT_TO_ASK.offered, late=True),
        *TURNED_AT_ASKS,
        Ask("stand_off", "0"),
        Ask("next_from", "back"),
    ),
    clauses=(
        Clause("90 {turn}", when=NINETY, says="ninety", example="90 right, back at 71 1/2"),
        Clause("bend {angle} {turn}", when=no(NINETY), says="bend", example="bend 45 right, back at 30"),
        *TURNED_AT,
        Clause(says="to_at"),
        WINDOW,
        Clause("standing off {stand_off}", when=_AT_A_WALL),
        Clause(says="standing_off", when=has("to", "wall")),
        BENT_TO,
        Clause("next from {next_from}", when=has("next_from", "centre"), says="next_from", on_request=True),
    ),
)

KICK = StepKind(
    KickStep,
    6,
    "M1 18H10L20 14Q26 12 26 6V2",
    told_by="toward",
    tapes={
        "at.back": (1, 21, 27.5, 21),
        "at.centre": (1, 21, 26, 21),
        "rise": (22, 18, 22, 13.5),
        "kick_back": (10, 21, 26, 21),
    },
    asks=(
        Ask("turn", "across"),
        *TURNED_AT_ASKS,
        Ask("toward", "outward"),
        Ask("rise", ""),
        Ask("kick_back", ""),
        Ask("kick_angle", offered=ANGLES),
        Ask("when", "before"),
    ),
    clauses=(
        Clause("90 {turn}", says="ninety", example="90 right, back at 71 1/2"),
        *TURNED_AT,
        Clause(says="to_at"),
        WINDOW,
        Clause("kicked {toward} {rise}", says="kicked"),
        Clause("setback {kick_back}", when=given("kick_back")),
        Clause("kick angle {kick_angle}", when=given("kick_angle")),
        Clause("kick {when}", when=has("when", "after")),
    ),
    ways={
        "kick_by": (
            WayToGive("kick_back", no(given("kick_angle")), (Clause(says="kick_back"),), {"kick_back": ""}),
            WayToGive("kick_angle", given("kick_angle"), (Clause(says="kick_angle"),), {"kick_angle": ""}),
        )
    },
)

_AROUND = given("around")
SWEEP = StepKind(
    SweepStep,
    9,
    "M2 18L9 17L16 14L21 9L24 2",
    tapes={
        "at.back": (2, 21, 25.5, 21),
        "at.centre": (2, 21, 24, 21),
        "radius": (6, 4, 17.5, 13),
        "around.radius": (6, 4, 14, 10),
        "around.gap": (14, 10, 17, 12.5),
    },
    asks=(
        Ask("turn", "across"),
        BENT_TO_ASK,
        *TURNED_AT_ASKS,
        Ask("radius", Usual("24", "600")),
        Ask("around.material"),
        Ask("around.trade_size"),
        Ask("around.radius"),
        Ask("around.gap"),
        Ask("shots", 9, offered=("3", "4", "5", "6", "9", "10", "12", "15", "18")),
        Ask("shot_angle", offered=("3", "5", "6", "7 1/2", "9", "10", "15")),
        Ask("spacing", "exact"),
    ),
    clauses=(
        Clause("sweep {turn}", when=NINETY, says="sweep", example="sweep right, back at 60, radius 24, 9 shots"),
        Clause("sweep {angle} {turn}", when=no(NINETY), example="sweep 45 right, back at 60, radius 24, 9 shots"),
        *TURNED_AT,
        Clause(says="to_at"),
        WINDOW,
        Clause(says="swept"),
        Clause("radius {radius}", when=both(given("radius"), no(_AROUND))),
        Clause("around[ {around.material}] {around.trade_size} of radius {around.radius}", when=_AROUND),
        Clause("gap {around.gap}", when=given("around.gap")),
        Clause("{shots} shots", when=no(given("shot_angle"))),
        Clause("{shot_angle} a shot", when=given("shot_angle")),
        Clause("spaced over the gaps", when=has("spacing", "ends"), sets={"spacing": "ends"}),
        BENT_TO,
    ),
    ways={
        "radius_by": (
            WayToGive("given", no(_AROUND), (Clause(says="radius"),), {"radius": ""}),
            WayToGive(
                "around",
                _AROUND,
                (Clause(says="around"),),
                {"around.trade_size": "2", "around.radius": "", "around.gap": Usual("1 1/2", "38")},
            ),
        ),
        "shots_by": (
            WayToGive("shots", no(given("shot_angle")), (Clause(says="shots"),), {"shots": ""}),
            WayToGive("shot_angle", given("shot_angle"), (Clause(says="shot_angle"),), {"shot_angle": ""}),
        ),
    },
)

TURNS = (BEND, KICK, SWEEP)
