"""An account of its own on five hundred runs: the pipe is bent from the planned marks, and then measured.

It knows the document, the shoe and the simulation, and nothing of how layout, marks, verdicts or orders come about.
"""

import math
from unittest import TestCase

from hypothesis import Phase, given, seed, settings

from conduit.bending import Bencher
from conduit.geometry import DIRECTIONS, ORIGIN
from conduit.sequence import arcs_on
from conduit.simulation import Pose, Setting, bend_pipe
from conduit.tests.support import runs
from conduit.tests.watcher import any_order, faults

FIVE_HUNDRED = settings(max_examples=500, derandomize=True, phases=[Phase.generate])


def bent_as_planned(plan, shoe, heading, inward):
    """The run's pipe, end A at the origin, bent from the mark that the plan says to use for each bend."""
    marks = [
        Setting(
            bend.use.at.inches + piece.start,
            bend.use.reference,
            bend.use.hook,
            math.radians(plan.bends[bend.number - 1].roll),
            math.radians(bend.angle),
        )
        for piece in plan.pieces
        for bend in piece.bends
    ]
    return bend_pipe(plan.developed_length.inches, marks, shoe, Pose(ORIGIN, DIRECTIONS[heading], inward))


class Measurer:
    """Takes a tape to a bent pipe, as the steps' measures are taken."""

    def __init__(self, bent, shoe):
        self.bent, self.half, self.next = bent, shoe.diameter / 2, 0
        self.datum, self.heading = bent.start.point, bent.start.heading

    def arcs(self, count):
        """The next step's bends."""
        self.next += count
        return self.bent.arcs[self.next - count : self.next]

    def along(self, point):
        return point.minus(self.datum).dot(self.heading)

    def corner(self, first, last):
        """Where the legs before and after some bends meet, those in one plane."""
        enters, leaves = self.bent.pose_at(first.start), self.bent.pose_at(last.end)
        off, cosine = leaves.point.minus(enters.point), enters.heading.dot(leaves.heading)
        back = (off.dot(leaves.heading) - cosine * off.dot(enters.heading)) / (1 - cosine**2)
        return leaves.point.along(leaves.heading, -back)

    def turned(self, last, corner, from_back):
        """On to the leg after a turn."""
        self.heading = self.bent.pose_at(last.end).heading
        self.datum = corner.along(self.heading, -self.half if from_back else 0.0)

    def moved(self, last):
        """On to the leg after an offset: the datum goes aside with it."""
        there = self.bent.pose_at(last.end).point
        self.datum = there.along(self.heading, -self.along(there))


def measures(step, measurer):
    """What a step's figures are on the bent pipe: (what, measured, asked)."""
    half, bent = measurer.half, measurer.bent
    match step.kind:
        case "bend" | "sweep":
            arcs = measurer.arcs(1 if step.kind == "bend" else step.count)
            corner = measurer.corner(arcs[0], arcs[-1])
            yield "back", measurer.along(corner) + half, step.at
            measurer.turned(arcs[-1], corner, getattr(step, "next_from", "back") == "back")
        case "kick90":
            first, last = measurer.arcs(2)
            meets, reach = bent.pose_at(last.start), bent.radius * math.tan(last.angle / 2)
            corner = meets.point.along(meets.heading, reach)
            lifted = corner.minus(bent.point_at(first.start))
            yield "back", measurer.along(corner) + half, step.at
            yield "rise", lifted.along(measurer.heading, -lifted.dot(measurer.heading)).length(), step.rise
            measurer.turned(last, corner, True)
        case "offset" | "rolled":
            first, last = measurer.arcs(2)
            rise = math.hypot(step.rise, step.roll) if step.kind == "rolled" else step.rise
            if rise is None:
                rise = step.over.height + step.over.clear
            off = bent.point_at(last.end).minus(bent.point_at(first.start))
            yield "rise", off.along(measurer.heading, -off.dot(measurer.heading)).length(), rise
            place = {"raised_by": last.end, "starts_at": first.start}.get(step.ref)
            if place is not None:
                yield step.ref, measurer.along(bent.point_at(place)), step.at
            measurer.moved(last)
        case "saddle3":
            first, centre, _ = measurer.arcs(3)
            top = bent.point_at((centre.start + centre.end) / 2)
            off = top.minus(bent.point_at(first.start))
            yield "rise", off.along(measurer.heading, -off.dot(measurer.heading)).length(), step.rise
            yield "centre", measurer.along(top), step.at
        case "saddle4":
            first, up, down, _ = measurer.arcs(4)
            off = bent.point_at(up.end).minus(bent.point_at(first.start))
            yield "rise", off.along(measurer.heading, -off.dot(measurer.heading)).length(), step.rise
            yield "near", measurer.along(bent.point_at(up.end)), step.near - step.margin
            yield "far", measurer.along(bent.point_at(down.start)), step.near + step.width + step.margin


class FiveHundred(TestCase):
    """What was asked for is what the bent pipe measures, and nothing strikes anything or has no order."""

    @seed(13)
    @FIVE_HUNDRED
    @given(runs())
    def test_runs(self, raw):
        bencher = Bencher(raw)
        if bencher.plan.makeable:
            self.measured(bencher)
        # The watcher takes one bend at a time, with the shoe's own radius.
        if not any(step["kind"] == "sweep" for step in raw["steps"]):
            self.watched(bencher)

    def measured(self, bencher):
        reading, first = bencher.measured, bencher.layout.path.bends[0]
        inward = first.axis.cross(first.heading_before)
        bent = bent_as_planned(bencher.plan, bencher.shoe, reading.start.heading, inward)
        measurer = Measurer(bent, bencher.shoe)
        for step in reading.steps:
            for what, measured, asked in measures(step, measurer):
                self.assertAlmostEqual(measured, asked, 6, f"{step.kind}: {what}")
        self.assertAlmostEqual(measurer.along(bent.end.point), reading.end.at, 6)

    def watched(self, bencher):
        for piece in bencher.plan.pieces:
            sheet = bencher.sheet(piece.number)
            self.assertEqual(sheet.why_not, "")
            arcs = arcs_on(bencher.layout, piece.start, piece.start + piece.length.inches)
            turns = [(bend.number - 1, bend.use.hook, bend.where) for bend in sheet.bends]
            # Alone on a piece a bend has nothing beside it that could be struck.
            if len(turns) > 1:
                self.assertEqual(faults(arcs, turns, bencher.shoe, sheet.cut.inches, coarse=True), [])
        for finding in bencher.plan.findings:
            if finding.code == "no_order":
                start, end = bencher.checked.pieces[int(finding.says.split(":")[0].removeprefix("Piece ")) - 1]
                arcs = arcs_on(bencher.layout, start, end)
                self.assertTrue(len(arcs) > 5 or not any_order(arcs, bencher.shoe, end - start))
