"""Clauses that several kinds share: where a step stands on its leg, and what it goes over."""

from conduit.clauses.conditions import Condition, both, either, filled, given, has, no
from conduit.clauses.kind import Ask, Begins, Clause, Usual, WayToGive

ANGLES = ("10", "15", "22 1/2", "30", "45", "60")

_AT, _LOW, _HIGH = filled("at"), filled("at_least"), filled("at_most")
_NO_WINDOW = both(no(_LOW), no(_HIGH))
# A window alone is a measure that is still open.
_OPEN = {"at": ""}

# A turn's measure, to its back, its centre or a wall; or the window in which it may lie.
TURNED_AT = (
    Clause("{to} at {at}", when=either(_AT, _NO_WINDOW)),
    Clause("{to} at least {at_least}", when=both(_LOW, no(_AT)), sets=_OPEN),
    Clause("{to} at most {at_most}", when=both(_HIGH, no(_AT), no(_LOW)), sets=_OPEN),
    Clause("at least {at_least}", when=both(_LOW, _AT), sets=_OPEN),
    Clause("at most {at_most}", when=both(_HIGH, either(_AT, _LOW)), sets=_OPEN),
)
WINDOW = Clause(says="window", adds=("at_least", "at_most"))
TURNED_AT_ASKS = (Ask("to", "back"), Ask("at", ""), Ask("at_least"), Ask("at_most"))
NINETY = has("angle", 90)
BENT_TO = Clause(says="bent_to", when=no(NINETY), on_request=True)
BENT_TO_ASK = Ask("angle", offered=("30", "45", "60", "90"), late=True)

# An offset's place by what was measured: done by there, starting there, or its middle.
PLACED = Clause("{ref} {at}")
PLACED_ASKS = (Ask("ref", "raised_by"), Ask("at", ""))

OVER = 'over {over.shape} {over.height}[ "{over.name}"]'
GOT_OVER = (
    Clause(also=(OVER,)),
    *(
        Clause(f"{words} {{{key}}}", when=given(key))
        for words, key in (("clear", "over.clear"), ("pipe off", "over.stand_off"), ("reaching", "over.reach"))
    ),
)
_OVER_SAID = (
    Clause(says="got_over"),
    Clause(says="pipe_off", adds=("over.stand_off",)),
    Clause(says="reaching", adds=("over.reach",)),
)
CLEAR = Usual("1/2", "13")


def _over(shape: str) -> WayToGive:
    taken: Condition = both(given("over"), has("over.shape", shape))
    begins: dict[str, Begins] = {"over.name": "", "over.height": "", "over.clear": CLEAR}
    return WayToGive(shape, taken, _OVER_SAID, begins, sets={"over.shape": shape})


# The rise as measured, or by what is got over.
RISE_BY = (WayToGive("rise", no(given("over")), (Clause(says="rise"),), {"rise": ""}), _over("round"), _over("box"))


def over_asks(shape: str) -> tuple[Ask, ...]:
    """What is got over, its figures in the order of measuring; a shape where a new step begins with one."""
    begins = (shape, "", "", CLEAR) if shape else (None,) * 4
    keys = ("over.shape", "over.name", "over.height", "over.clear")
    return (*map(Ask, keys, begins), Ask("over.stand_off"), Ask("over.reach"))
