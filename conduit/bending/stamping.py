"""How an end is stamped by a lever tool once the stick is bent: which way round it goes in, and what must read then."""

import math

from conduit.bender import Hook
from conduit.bending.readings import clock
from conduit.bending.stick import Stick
from conduit.geometry import Vec
from conduit.layout import PathBend, StampedEnd
from conduit.units import Tape


def counted(stamp: StampedEnd, tape: Tape) -> str:
    """That the cut counts the pipe that goes into the offset."""
    reach, end = tape.shows(stamp.reach), end_of(stamp)
    return f"End {end} keeps {reach} straight until the lever tool stamps it; the cut counts that."


def stamping(stamp: StampedEnd, stick: Stick) -> list[str]:
    """What to do with the lever tool, in turn."""
    tape, end = stick.measured.head.tape, end_of(stamp)
    rise, straight = tape.shows(stamp.rise), tape.shows(stamp.straight)
    return [
        f"When all else is bent, and end {end} is cut to length: put it into the lever tool with {straight} beyond the "
        f"offset. {_way_round(stamp, stick)} One pull.",
        f"Straight edge along the leg: end {end} stands off it by {rise}, and lies parallel to it.",
    ]


def end_of(stamp: StampedEnd) -> Hook:
    """The pipe's end that is stamped."""
    return "A" if stamp.end == "start" else "B"


def _way_round(stamp: StampedEnd, stick: Stick) -> str:
    """Toward where the end moves, against the nearest bend; seen from that end, clockwise."""
    if not stick.arcs:
        return "Any way round."
    near = min(stick.arcs) if stamp.end == "start" else max(stick.arcs)
    bend = stick.layout.path.bends[near]
    looking, beyond = _seen(bend, stamp)
    moves = stamp.toward.times(-1)
    degrees = math.degrees(math.atan2(moves.dot(looking.cross(beyond)), moves.dot(beyond))) % 360
    seen = f"seen from end {end_of(stamp)}"
    says = f"With the pipe beyond bend {near + 1} at 12 o’clock, {seen}"
    return f"{says}, the end moves to {clock(degrees)}."


def _seen(bend: PathBend, stamp: StampedEnd) -> tuple[Vec, Vec]:
    """Which way one looks from the end along the pipe, and to which side the pipe goes on beyond the bend."""
    if stamp.end == "start":
        return bend.heading_before, bend.inward
    back = bend.heading_before.times(-1)
    return bend.heading_after.times(-1), back.along(bend.heading_after, -back.dot(bend.heading_after)).unit()
