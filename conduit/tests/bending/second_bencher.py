"""A second bencher: it bends a stick by its sheet's marks, and measures on the pipe's surface as it is told to.

It knows how the tape lies (hooked on what, along what, read where) and the bent pipe; it shares no sum with the sheet.
"""

import math

import numpy as np

from conduit.simulation import bend_pipe

SAMPLES = 400


class BentStick:
    """A stick with some bends made: `made` maps each bend's number to the setting that it really has."""

    def __init__(self, made, length, shoe, held):
        self.made = dict(sorted(made.items()))
        self.bent = bend_pipe(length, list(self.made.values()), shoe, held)
        self.radius = shoe.diameter / 2

    def at(self, s):
        """A point of the centreline, and which way it runs there."""
        pose = self.bent.pose_at(s)
        return np.array([*pose.point]), np.array([*pose.heading])

    def span(self, numbers):
        """Where bends begin and end along the pipe."""
        arcs = [self.bent.arcs[list(self.made).index(number)] for number in numbers]
        return min(arc.start for arc in arcs), max(arc.end for arc in arcs)

    def legs(self, numbers):
        """A point on the leg before bends and its direction, and the same after."""
        start, end = self.span(numbers)
        return self.at(start - 1e-6), self.at(end + 1e-6)

    def measured(self, lies):
        """What the tape reads that lies so."""
        return getattr(self, f"_{lies.kind}")(lies)

    def _end(self, hook):
        return self.at(0.0 if hook == "end_a" else self.bent.length)

    def _crossing(self, numbers):
        """Where a line along the outside of the leg before bends crosses one along the outside of the leg after."""
        (p, h), (q, g) = self.legs(numbers)
        normal = np.cross(h, g)
        p, q = self._outer(p, h, normal, q - p + g), self._outer(q, g, normal, p - q - h)
        # Least squares: where the two lines come nearest to each other.
        (along, back), *_ = np.linalg.lstsq(np.array([h, -g]).T, q - p, rcond=None)
        crossing = p + along * h
        # A sweep with a dog-leg in it has legs that pass each other; its tape and edge all but cross.
        assert np.linalg.norm(crossing - (q + back * g)) < 2, "tape and edge cross"
        return crossing

    def _outer(self, point, heading, normal, toward):
        """The line along a leg's outside, away from where the other leg lies."""
        aside = np.cross(normal, heading)
        aside /= np.linalg.norm(aside)
        return point - aside * math.copysign(self.radius, toward.dot(aside))

    def _corner(self, lies):
        """Both the tape and the straight edge lie on the outside of their leg; where they cross it is read."""
        before, after = self.legs(lies.bends)
        end, _ = self._end(lies.hook)
        heading = before[1] if lies.hook == "end_a" else -after[1]
        return float((self._crossing(lies.bends) - end).dot(heading))

    def _back(self, lies):
        """The tape runs along the leg that leads to the 90; across from the hook if that lies beside it."""
        (_, heading), _ = self.legs(lies.bends)
        return float(self._crossing(lies.bends).dot(heading)) - self._hooked(lies, heading)

    def _hooked(self, lies, heading):
        at = self._crossing([lies.back]) if lies.hook == "back" else self._end(lies.hook)[0]
        return float(at.dot(heading))

    def _end_b(self, lies):
        end, heading = self._end("end_b")
        return float(end.dot(heading)) - self._hooked(lies, heading)

    def _off(self, leg, point):
        start, heading = leg
        between = point - start
        return float(np.linalg.norm(between - heading * between.dot(heading)))

    def _rise(self, lies):
        before, after = self.legs(lies.bends)
        return self._off(before, after[0])

    def _height(self, lies):
        before, _ = self.legs(lies.bends[:1])
        start, end = self.span(lies.bends[1:])
        return max(self._off(before, self.at(float(s))[0]) for s in np.linspace(start, end, SAMPLES))

    def _kick(self, lies):
        """Between the planes on the same side of both, each along one leg and the other's direction."""
        kick, ninety = lies.bends
        before, after = self.legs([kick])
        legs = self.legs([ninety])
        leg, far = (before, legs[1]) if kick < ninety else (after, legs[0])
        square = np.cross(leg[1], far[1])
        return abs(float((far[0] - leg[0]).dot(square / np.linalg.norm(square))))
