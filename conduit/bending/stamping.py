"""How an end is stamped by a lever tool once the stick is bent: which way round it goes in, and what must read then."""

import math

from conduit.bender import Hook
from conduit.bending.readings import clock
from conduit.bending.stick import Stick
from conduit.catalogue import Message, message
from conduit.geometry import Vec
from conduit.layout import PathBend, StampedEnd
from conduit.units import Tape


def counted(stamp: StampedEnd, tape: Tape) -> Message:
    """That the cut counts the pipe that goes into the offset."""
    return message("stamp.counted", end=end_of(stamp), reach=tape.shows(stamp.reach))


def stamping(stamp: StampedEnd, stick: Stick) -> list[Message]:
    """What to do with the lever tool, in turn."""
    tape, end = stick.measured.head.tape, end_of(stamp)
    rise, straight = tape.shows(stamp.rise), tape.shows(stamp.straight)
    return [
        message("stamp.pull", end=end, straight=straight, way=_way_round(stamp, stick)),
        message("stamp.check", end=end, rise=rise),
    ]


def end_of(stamp: StampedEnd) -> Hook:
    """The pipe's end that is stamped."""
    return "A" if stamp.end == "start" else "B"


def _way_round(stamp: StampedEnd, stick: Stick) -> Message:
    """Toward where the end moves, against the nearest bend; seen from that end, clockwise."""
    if not stick.arcs:
        return message("stamp.any_way")
    near = min(stick.arcs) if stamp.end == "start" else max(stick.arcs)
    bend = stick.layout.path.bends[near]
    looking, beyond = _seen(bend, stamp)
    moves = stamp.toward.times(-1)
    degrees = math.degrees(math.atan2(moves.dot(looking.cross(beyond)), moves.dot(beyond))) % 360
    return message("stamp.way", bend=near + 1, end=end_of(stamp), clock=clock(degrees))


def _seen(bend: PathBend, stamp: StampedEnd) -> tuple[Vec, Vec]:
    """Which way one looks from the end along the pipe, and to which side the pipe goes on beyond the bend."""
    if stamp.end == "start":
        return bend.heading_before, bend.inward
    back = bend.heading_before.times(-1)
    return bend.heading_after.times(-1), back.along(bend.heading_after, -back.dot(bend.heading_after)).unit()
