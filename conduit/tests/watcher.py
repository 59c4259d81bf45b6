"""Watches a piece being bent, by samples: an account of floor, handle and room that shares no code with the search.

The pipe is bent in simulation, and looked at every few degrees while each bend is made.
"""

import math

from conduit.geometry import DIRECTIONS, ORIGIN
from conduit.simulation import Bent, Pose

EVERY, TURNING = 0.5, math.radians(5)
HANDLE, TUBE, SHOE, LYING, HANGS = 38.0, 1.315, 6.0, 1.0, 1.0
# So near the bend an edge, or a machine, is under the pipe.
ON_EDGE, MACHINE = 6.0, 12.0
# The search rounds to the safe side; what hands and floors can tell is more than this.
TELLABLE = 1e-6
SLIGHT = math.radians(15) + TELLABLE


def faults(arcs, turns, shoe, length, coarse=False):
    """What is wrong with making `arcs`, by number, in turns of (number, hook, way)."""
    made = [[number for number, _, _ in turns[:so_far]] for so_far in range(len(turns))]
    return [
        fault for done, turn in zip(made, turns, strict=True) for fault in faults_of(arcs, done, *turn, shoe, length)
    ]


def faults_of(arcs, made, number, hook, where, shoe, length, coarser=1):
    """What is wrong with making one bend when some are made."""
    faults = list(_room(arcs, made, number, hook, shoe, length))
    # What hangs over an edge hangs on one side; a machine's bend lies level or stands upright.
    for posture in {"edge": ("heel", "hook"), "machine": ("upright", "level")}.get(where, (where,)):
        seen = list(_watched(arcs, made, number, hook, posture, shoe, length, coarser))
        if not seen:
            return faults
    return [*faults, *seen]


def any_order(arcs, shoe, length):
    """Whether the bends can be made in some order at all, tried one by one."""
    known = {frozenset(arcs): True}

    def goes_on(done):
        if done not in known:
            known[done] = any(
                not faults_of(arcs, sorted(done), number, hook, where, shoe, length) and goes_on(done | {number})
                for number in arcs
                if number not in done
                for hook in "AB"
                for where in (("machine",) if shoe.handle_up is None else ("floor", "edge", "air"))
            )
        return known[done]

    return goes_on(frozenset())


def _room(arcs, made, number, hook, shoe, length):
    """Straight pipe under hook, shoe and heel."""
    arc, ahead = arcs[number], max(0.0, shoe.arc_offset)
    for other in [arcs[one] for one in made]:
        slight = other.angle <= SLIGHT
        front, heel = (ahead, 0.0) if slight else (shoe.straight_ahead, shoe.straight_behind)
        low, high = (arc.start - front, arc.end + heel) if hook == "A" else (arc.start - heel, arc.end + front)
        if other.end > low + TELLABLE and other.start < high - TELLABLE:
            yield "no straight pipe"
    front, heel = (ahead, 0.0) if arc.angle <= SLIGHT else (shoe.straight_ahead, shoe.straight_behind)
    low, high = (arc.start - front, arc.end + heel) if hook == "A" else (arc.start - heel, arc.end + front)
    if low < -TELLABLE or high > length + TELLABLE:
        yield "off the pipe"


def _bent(arcs, length, radius):
    entries, exits, pose, at = [], [], Pose(ORIGIN, DIRECTIONS["right"], DIRECTIONS["up"]), 0.0
    start = pose
    for arc in arcs:
        entries.append(pose.forward(arc.start - at))
        pose, at = entries[-1].around(arc.roll, arc.angle, radius), arc.end
        exits.append(pose)
    return Bent(start, radius, length, tuple(arcs), tuple(entries), tuple(exits), pose.forward(length - at), False)


def _too_low(on_heel, seen, ahead, posture, has):
    """Whether a part of the pipe is lower than the posture lets it be; `ahead`: how far it lies ahead of the hook."""
    x, y, z = seen
    side = "heel" if on_heel else "hook"
    if posture in ("upright", "level"):
        near, deep = MACHINE, has.machine_height
    else:
        near, deep = ON_EDGE, has.edge_height if posture == side else HANGS
    height = z if posture == "level" else y
    return height < -(HANGS if (x if on_heel else ahead) <= near else deep) - TELLABLE


def _watched(arcs, made, number, hook, posture, shoe, length, coarser):
    """Floor, edge, machine, ground and handle, every few degrees of the bend."""
    arc, radius = arcs[number], shoe.radius
    count = math.ceil(arc.angle / TURNING / coarser)
    for part in range(count + 1):
        angle = arc.angle * part / count
        long = radius * angle
        start, end = (arc.start, arc.start + long) if hook == "A" else (arc.end - long, arc.end)
        now = type(arc)(start, end, arc.roll, angle)
        bent = _bent(sorted([arcs[one] for one in made] + [now], key=lambda one: one.start), length, radius)
        at_heel, at_hook = (end, start) if hook == "A" else (start, end)
        heel, ahead = _frame(bent, at_heel, arc.roll, hook == "A"), _frame(bent, at_hook, arc.roll, hook == "B")
        left = arc.end - arc.start - long
        for step in range(int(length / EVERY / coarser) + 1):
            s = step * EVERY * coarser
            on_heel = s > at_heel if hook == "A" else s < at_heel
            x, y, z = _seen(bent.point_at(s), heel)
            u, v, w = _seen(bent.point_at(s), ahead)
            if posture != "air" and _too_low(on_heel, (x, y, z), u, posture, shoe.handling):
                yield "too low"
            if posture == "air" and v > HANDLE + radius + TELLABLE:
                yield "into the ground"
            if shoe.handle_up is None:
                continue
            lean = math.radians(shoe.handle_up)
            # The shoe's own body lies along all of the arc, in front of the handle.
            if on_heel and y > LYING and math.hypot(x - min(max(x, -long), left), y) > SHOE:
                struck = _on_handle(x, y, z, angle - lean, shoe)
            else:
                struck = not on_heel and v > LYING and math.hypot(u, v) > SHOE and _on_handle(u, v, w, lean, shoe)
            if struck:
                yield "into the handle"


def _frame(bent, at, roll, toward_b):
    """Where the pipe leaves the shoe, the way outward from it, and the way to the bend's inside."""
    pose = bent.pose_at(at)
    inside = pose.inward.times(math.cos(roll)).along(pose.heading.cross(pose.inward), math.sin(roll))
    return pose.point, pose.heading.times(1 if toward_b else -1), inside


def _seen(point, frame):
    origin, outward, inside = frame
    away = point.minus(origin)
    return away.dot(outward), away.dot(inside), away.dot(outward.cross(inside))


def _on_handle(x, y, z, lean, shoe):
    """Whether a pipe's middle touches the handle's tube; it stands a radius over the pipe and leans outward."""
    along = x * math.sin(lean) + (y - shoe.radius) * math.cos(lean)
    beside = x * math.cos(lean) - (y - shoe.radius) * math.sin(lean)
    touching = (TUBE + shoe.diameter) / 2 - TELLABLE
    return abs(beside) < touching and abs(z) < touching and 0 < along < HANDLE
