"""What the core's tests share: documents to plan, worked cases, random runs."""

import json
from pathlib import Path

from hypothesis import strategies as st

from conduit.document import read_document
from conduit.layout import lay_out
from conduit.shoe import typical_shoe

WORKED_CASES = json.loads((Path(__file__).parent / "worked_cases.json").read_text())
ACROSS = {"right": "up", "left": "up", "up": "out", "down": "out", "out": "right", "in": "right"}
AXES = [("right", "left"), ("up", "down"), ("out", "in")]


def document(steps, end=40, size="3/4", heading="right", **more):
    """A run document with what a test does not care about filled in."""
    return {"trade_size": size, "start": {"heading": heading}, "steps": steps, "end": {"at": end}, **more}


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
    return lay_out(reading, shoe), shoe


def across(heading):
    """The four directions across a heading."""
    return [word for pair in AXES if heading not in pair for word in pair]


@st.composite
def runs(draw):
    """Random run documents; most of them can be made."""
    heading = start = draw(st.sampled_from(list(ACROSS)))
    steps = []
    for _ in range(draw(st.integers(1, 5))):
        if draw(st.booleans()):
            at, rise = draw(st.floats(2, 20)), draw(st.floats(1, 8))
            angle = draw(st.sampled_from([10, 15, 22.5, 30, 45, 60]))
            steps.append(offset(at, rise, angle, draw(st.sampled_from(across(heading)))))
        turn = draw(st.sampled_from(across(heading)))
        steps.append(ninety(draw(st.floats(50, 90)), turn, next_from=draw(st.sampled_from(["back", "centre"]))))
        heading = turn
    return document(steps, draw(st.floats(15, 60)), draw(st.sampled_from(["1/2", "3/4", "1"])), start)
