"""Steps without a bend: what stands on the leg."""

from conduit.clauses.conditions import given
from conduit.clauses.kind import Ask, Clause, StepKind, Usual
from conduit.document import CouplingStep, PullPointStep

COUPLING = StepKind(
    CouplingStep,
    10,
    "M1 11H13M21 11H33M13 7H21V15H13Z",
    tapes={
        "at": (1, 19, 17, 19),
    },
    asks=(Ask("at", ""),),
    clauses=(Clause("coupling at {at}", says="coupling", example="coupling at 40"),),
)

PULL_POINT = StepKind(
    PullPointStep,
    11,
    "M1 11H11M23 11H33M11 5H23V17H11Z",
    tapes={
        "at": (1, 19, 17, 19),
        "width": (11, 2.5, 23, 2.5),
    },
    asks=(Ask("name", ""), Ask("at", ""), Ask("width", Usual("4", "100"))),
    clauses=(
        Clause("pull point[ {name}] at {at}", says="pull_point", example="pull point C1 at 40, width 4"),
        Clause("width {width}", when=given("width")),
    ),
)

FITTINGS = (COUPLING, PULL_POINT)
