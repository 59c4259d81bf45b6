"""`crelda bench`: how fast it is, as medians, 95th percentiles and ratios within one run."""

import itertools
import math
import sys
from pathlib import Path
from typing import Any

from cli.bench_corrections import corrections
from cli.bench_cutting import cutting
from cli.bench_device import on_a_device
from cli.bench_everyday import everyday
from cli.bench_formats import given_out
from cli.bench_picture import picture
from cli.bench_server import through_the_api, while_plans_are_made
from cli.bench_space import space
from cli.runs_to_time import zigzag
from cli.timing import bounded, line, ratio, side_by_side, times
from conduit.bender import Shoe
from conduit.bending import Bencher, BendAsMade
from conduit.catalogue import Message
from conduit.document import read_document
from conduit.layout import lay_out
from conduit.marking import marks_of_arc
from conduit.plan import Prover, given_shoe, make_plan, remedies_of
from conduit.racks import make_rack_plan
from conduit.sequence import BendSequence, Unit, best_sequence
from conduit.simulation import Bent
from conduit.tables import DEFAULT_LIMITS
from server.demo.scene import RUNS

PLAN_BOUND_MS, ORDER_BOUND_MS, SHEET_BOUND_MS = 10.0, 150.0, 100.0
# Of more bends than are searched exactly; and of a verdict that says no, without what would mend it.
LONG_ORDER_BOUND_MS, REFUSAL_BOUND_MS = 1000.0, 50.0
# As multiples of a plain layout, marks and bend in pure Python in the same run.
MOST_FOR_A_PLAN, MOST_FOR_ALL_SHEETS = 4.0, 15.0
# A rack as a multiple of its lead's plan; and what is left of a tenth of a second for it from key to picture.
PIPES, MOST_FOR_A_RACK, RACK_BOUND_MS = 8, 8.0, 100.0
SHOE = Shoe("Typical 3/4", 0.922, 6.0, 3.25)


def _ordered(bends: int) -> BendSequence:
    """Search the order of so many slight bends on one stick, every other one turned half round."""
    units = [
        Unit(Message(i + 1), 8 + 108 / bends * i, 9 + 108 / bends * i, 0.18, math.pi * (i % 2)) for i in range(bends)
    ]
    return best_sequence(units, SHOE, 120)


def _plain(raw: dict[str, Any], shoe: Shoe) -> Bent:
    """What a plan cannot do without: read it, lay it out, its marks, bend it."""
    reading = read_document(raw)
    layout = lay_out(reading, shoe, DEFAULT_LIMITS)
    for bend in layout.path.bends:
        marks_of_arc(bend.start, bend.end, shoe)
    prover = Prover(reading, layout, shoe)
    return prover.bent(prover.exact_settings)


def _with_sheets(raw: dict[str, Any]) -> None:
    bencher = Bencher(raw)
    for piece in bencher.plan.pieces:
        bencher.sheet(piece.number)


def against_plain(bends: int) -> bool:
    """Plan and all sheets as multiples of the plain layout, marks and bend of the same runs, none planned before."""
    shoe = given_shoe(read_document({**zigzag(bends), "shoe": {"deduct": 6, "gain": 3.25}}).head)
    drawn = itertools.count()

    def fresh() -> dict[str, Any]:
        raw = zigzag(bends)
        return {**raw, "steps": [{**step, "at": 40 + next(drawn) % 97 / 64} for step in raw["steps"]]}

    plain, plan, sheets = side_by_side(
        40, lambda: _plain(fresh(), shoe), lambda: make_plan(fresh()), lambda: _with_sheets(fresh())
    )
    line(f"plain layout, marks and bend, {bends} bends", plain)
    line(f"plan of {bends} bends, never planned before", plan)
    line("the same with all its bench sheets", sheets)
    kept = [
        ratio("plan", plan, plain, MOST_FOR_A_PLAN),
        ratio("plan with all sheets", sheets, plain, MOST_FOR_ALL_SHEETS),
    ]
    return all(kept)


def refused() -> bool:
    """A U whose legs leave the handle no room: the verdict, and what would mend it, each time with another leg."""
    drawn = itertools.count()

    def fresh() -> dict[str, Any]:
        turns = [{"kind": "bend", "turn": turn, "at": at} for turn, at in (("right", 48), ("down", 18))]
        end = {"at": 46 + next(drawn) % 97 / 64}
        return {"trade_size": "3/4", "start": {"heading": "up"}, "steps": turns, "end": end}

    verdict = line("verdict that a run cannot be bent", times(lambda: make_plan(fresh()), 60))
    line("what would mend it, tried", times(lambda: remedies_of(fresh()), 30))
    return bounded("refusal", verdict, REFUSAL_BOUND_MS)


def racks() -> bool:
    """A rack of eight pipes with six steps, each time with another measure, against the plan of its lead alone."""
    turns = [{"kind": "bend", "turn": "out", "at": 60, "rack": {"how": "kicks", "after": "up"}}]
    turns += [{"kind": "bend", "turn": turn, "at": 70} for turn in ("left", "up")]
    raised = {"kind": "offset", "rise": 4, "angle": 30, "at": 20, "ref": "starts_at"}
    legs = [{**raised, "toward": toward} for toward in ("up", "left", "in")]
    drawn = itertools.count()

    def fresh(pipes: int) -> dict[str, Any]:
        steps = [step for pair in zip(legs, turns, strict=True) for step in pair]
        end = {"at": 50 + next(drawn) % 97 / 64}
        raw = {"trade_size": "3/4", "start": {"heading": "right"}, "steps": steps, "end": end}
        return {**raw, "rack": {"side": "in", "spacing": 2, "pipes": [{}] * pipes}} if pipes else raw

    alone, rack = side_by_side(20, lambda: make_plan(fresh(0)), lambda: make_rack_plan(fresh(PIPES - 1)))
    line("plan of a rack's lead alone, six steps", alone)
    bounded("rack of 8 pipes", line(f"rack of {PIPES} pipes with six steps", rack), RACK_BOUND_MS)
    return ratio("rack of 8 pipes", rack, alone, MOST_FOR_A_RACK)


def core() -> None:
    """Plan runs of growing length, and search orders."""
    medians = {}
    for bends in (2, 6, 12, 40):
        raw = zigzag(bends)
        medians[bends] = line(f"plan, {bends} bends", times(lambda raw=raw: make_plan(raw), 200))  # type: ignore[misc]
    orders = {}
    for bends in (4, 8, 12, 14, 18):
        took = times(lambda bends=bends: _ordered(bends), 20)  # type: ignore[misc]
        orders[bends] = line(f"order of bending, {bends} bends", took)
    bad = [BendAsMade(bend=2, angle=41, left=True)]
    sheet = line("bench sheet of 7 bends and two saddles", times(lambda: Bencher(RUNS[4]).sheet(1), 10))
    line("the same re-planned after a bad bend", times(lambda: Bencher(RUNS[4]).sheet(1, made=bad), 10))
    bounded("plan of 12 bends", medians[12], PLAN_BOUND_MS)
    bounded("order of 14 bends", orders[14], ORDER_BOUND_MS)
    bounded("order of 18 bends", orders[18], LONG_ORDER_BOUND_MS)
    bounded("bench sheet", sheet, SHEET_BOUND_MS)
    against_plain(12)
    refused()
    racks()
    growth = math.log(medians[40] / medians[6]) / math.log(40 / 6)
    print(f"time grows as bends to the power of {growth:.2f} (from 6 to 40)")


if __name__ == "__main__":
    core()
    everyday()
    corrections()
    cutting()
    address, device = sys.argv[1:]
    kept = [
        space(),
        given_out(),
        on_a_device(Path(device)),
        picture(address),
        through_the_api(address),
        while_plans_are_made(address),
    ]
    sys.exit(0 if all(kept) else 1)
