"""What the core's tests share: documents to plan, worked cases, random runs."""

import json
from pathlib import Path
from time import process_time

from hypothesis import strategies as st

from conduit.bender import typical_shoe
from conduit.cutting.optimizer import Meter
from conduit.document import read_document
from conduit.layout import lay_out
from conduit.marking import marks_of_arc
from conduit.tables import DEFAULT_LIMITS

WORKED_CASES = json.loads((Path(__file__).parent / "worked_cases.json").read_text())
ACROSS = {"right": "up", "left": "up", "up": "out", "down": "out", "out": "right", "in": "right"}
AXES = [("right", "left"), ("up", "down"), ("out", "in")]


def document(steps, end=40, size="3/4", heading="right", **more):
    """A run document with what a test does not care about filled in."""
    return {"trade_size": size, "start": {"heading": heading}, "steps": steps, "end": {"at": end}, **more}


def between(start, end, steps, at, name, heading="up"):
    """A run from one named box to another."""
    raw = document(steps, at, heading=heading, name=name)
    return {**raw, "start": {"name": start, "heading": heading}, "end": {"name": end, "at": at}}


def ninety(at, turn, **more):
    return {"kind": "bend", "at": at, "turn": turn, **more}


def offset(at, rise, angle=30, toward="out", ref="starts_at"):
    return {"kind": "offset", "at": at, "rise": rise, "angle": angle, "toward": toward, "ref": ref}


def worked_case(name):
    """A worked case's document and what must come of it."""
    case = WORKED_CASES[name]
    return document(case["steps"], case["end"], case["trade_size"], case["heading"]), case


def laid_out(raw):
    """The layout of a document on the typical shoe, and the shoe."""
    reading = read_document(raw)
    shoe = typical_shoe(reading.head.material, reading.head.trade_size)
    return lay_out(reading, shoe, DEFAULT_LIMITS), shoe


def across(heading):
    """The four directions across a heading."""
    return [word for pair in AXES if heading not in pair for word in pair]


def in_between(draw, heading):
    """A step that leaves the heading as it is."""
    side = st.sampled_from(across(heading))
    rise, angle = draw(st.floats(1, 8)), draw(st.sampled_from([10, 15, 22.5, 30, 45, 60]))
    at = draw(st.floats(2, 30))
    kind = draw(st.sampled_from(["offset", "rolled", "saddle3", "saddle4", "over", "coupling"]))
    toward = draw(side)
    if kind == "rolled":
        aside = next(word for word in ACROSS if word in across(heading) and word in across(toward))
        moved = {"toward": toward, "rise": rise, "roll_toward": aside, "roll": draw(st.floats(1, 6))}
        return {"kind": kind, **moved, "angle": angle, "at": at + 20}
    if kind == "saddle3":
        return {"kind": kind, "toward": toward, "rise": rise / 2, "angle": angle, "at": at + 20}
    if kind == "saddle4":
        return {
            "kind": kind,
            "toward": toward,
            "rise": rise,
            "angle": angle,
            "near": at + 15,
            "width": 6,
            "margin": 0.5,
        }
    if kind == "over":
        thing = {"shape": "box", "height": rise, "clear": 0.5, "name": "duct"}
        return {"kind": "offset", "toward": toward, "over": thing, "angle": angle, "ref": "raised_by", "at": at + 25}
    return {"kind": "coupling", "at": at} if kind == "coupling" else offset(at, rise, angle, toward)


def turning(draw, heading):
    """A step that turns to another heading, and that heading."""
    turn, at = draw(st.sampled_from(across(heading))), draw(st.floats(60, 100))
    kind = draw(st.sampled_from(["bend", "bend", "kick90", "sweep"]))
    if kind == "kick90":
        lift = {"toward": draw(st.sampled_from(across(heading))), "rise": draw(st.floats(1, 5)), "kick_back": 16}
        return {"kind": kind, "turn": turn, "at": at, **lift}, turn
    if kind == "sweep":
        return {
            "kind": kind,
            "turn": turn,
            "at": at,
            "radius": draw(st.floats(12, 24)),
            "shots": draw(st.integers(2, 9)),
        }, turn
    return ninety(at, turn, next_from=draw(st.sampled_from(["back", "centre"]))), turn


@st.composite
def runs(draw):
    """Random run documents with steps of every kind; most of them can be made."""
    heading = start = draw(st.sampled_from(list(ACROSS)))
    steps = []
    for _ in range(draw(st.integers(1, 4))):
        if draw(st.booleans()):
            steps.append(in_between(draw, heading))
        step, heading = turning(draw, heading)
        steps.append(step)
    return document(steps, draw(st.floats(20, 60)), draw(st.sampled_from(["1/2", "3/4", "1"])), start)


def run_marks(plan):
    """All marks of each bend, measured along the whole run; on the typical shoe of its size."""
    shoe = typical_shoe(plan.material, plan.trade_size)
    return [marks_of_arc(bend.start.inches, bend.end.inches, shoe) for bend in plan.bends]


class Steps:
    """A budget of so many questions for the time, not of time: the same on every machine."""

    def __init__(self, count):
        self.count = count

    def left(self):
        self.count -= 1
        return 2.0 if self.count > 0 else 0.0


class StepMeter(Meter):
    """Work for two seconds, ended by so many questions; no solver is stopped by time, however busy the machine is."""

    def __init__(self, count):
        super().__init__(Steps(count))

    def seconds(self):
        return 100.0


def assert_linear(test, read, text_of, count=2000):
    """Text four times as long takes about four times the work to read, and never sixteen times."""

    def work(text):
        began = process_time()
        read(text)
        return process_time() - began

    # So much that a clock can tell, and never so much that a fault would hold up all other tests.
    while (short := work(text_of(count))) < 0.002 and count < 100_000:
        count *= 2
    test.assertLess(short, 1, f"{count} times")
    tries = ((work(text_of(count)), work(text_of(4 * count))) for _ in range(5))
    test.assertTrue(any(four < 8 * one + 0.002 for one, four in tries), f"{count} and {4 * count} times")
