"""A job in one space: where runs stand, how near they come by sampling both pipes, what closes, what would do."""

import math
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.document import apply_edits
from conduit.plan import closing_of
from conduit.space import RunGiven, among_others, make_space, met, placed_in, remedies_for, shared_struts
from conduit.tables import DEFAULT_LIMITS
from conduit.tests.support import document, ninety, runs

WALLS = ("ahead", "right", "left", "behind")
# How far apart the sampled places of a pipe lie, and so how far the truth may lie under what they tell.
SAMPLE = 1 / 4


def box(name, along, up, out=0, size=(4, 4, 2), **more):
    return {
        "name": name,
        "along": along,
        "up": up,
        "out": out,
        **dict(zip(("wide", "high", "deep"), size, strict=bool(size))),
        **more,
    }


def run(key, steps, end=40, start="P", to="Q", **more):
    raw = document(steps, end, **{"heading": "up", **more})
    return RunGiven(
        key, {**raw, "name": f"Run {key}", "start": {**raw["start"], "name": start}, "end": {"at": end, "name": to}}
    )


def centred(at, turn):
    return ninety(at, turn, to="centre", next_from="centre")


def sampled(standing):
    """Places all along a standing pipe."""
    count = math.ceil(standing.bent.length / SAMPLE)
    return np.array([standing.point_at(standing.bent.length * i / count) for i in range(count + 1)])


def least_by_sampling(one, other):
    mine, theirs = sampled(one), sampled(other)
    apart = min(float(np.sqrt(((theirs - place) ** 2).sum(axis=1)).min()) for place in mine)
    return apart - (one.diameter + other.diameter) / 2


@st.composite
def jobs(draw):
    """Two or three runs from boxes of their own, near each other, on walls of any side."""
    given_runs, boxes = [], []
    for number in range(draw(st.integers(2, 3))):
        # Some without a bend.
        raw = draw(st.one_of(runs(), st.just(document([], 90))))
        name = f"Box {number}"
        place = [draw(st.floats(-40, 40)) for _ in range(3)]
        boxes.append(box(name, *place, wall=draw(st.sampled_from(WALLS))))
        raw = {**raw, "name": f"Run {number}", "start": {**raw["start"], "name": name}}
        given_runs.append(RunGiven(str(number), raw))
    return boxes, given_runs


class Clashes(TestCase):
    @settings(max_examples=200, deadline=None)
    @given(jobs())
    def test_what_is_told_is_what_sampling_finds(self, job):
        placed = placed_in(*job)
        standing = list(placed.standing.values())
        for number, one in enumerate(standing):
            for other in standing[number + 1 :]:
                found = [each for each in met(one, other, 2.0) if hasattr(each, "asked")]
                least = least_by_sampling(one, other)
                if found:
                    # Couplings and straps are thicker than the pipe, on which the samples lie.
                    self.assertLess(found[0].least, least + 1e-6)
                    at = [run.point_at(s) for run, s in ((one, found[0].first), (other, found[0].second))]
                    thick = (one.diameter + other.diameter) / 2
                    told = at[0].minus(at[1]).length() - thick
                    self.assertLess(told - found[0].least, 0.5 + 1e-6)
                else:
                    self.assertGreaterEqual(least, 2.0 - 1e-4)
                if least < 2.0 - 1e-3:
                    self.assertTrue(found)


class Standing(TestCase):
    def test_it_starts_at_the_side_of_its_box_that_it_leaves_by(self):
        boxes = [box("P", 10, 48, knockouts=[{"run": "1", "end": "A", "aside": "1"}])]
        standing = placed_in(boxes, [run("1", [ninety(40, "right")])]).standing["1"]
        # An EMT of 3/4 tight to the wall has its axis half its thickness off it.
        self.assertEqual([round(value, 3) for value in standing.point_at(0)], [11, 50, 0.461])

    def test_a_box_on_another_wall_turns_its_run(self):
        for wall, way in (("ahead", (1, 0, 0)), ("right", (0, 0, 1)), ("left", (0, 0, -1)), ("behind", (-1, 0, 0))):
            placed = placed_in([box("P", 0, 0, size=(), wall=wall)], [run("1", [ninety(40, "right")])])
            one = placed.standing["1"]
            ends = one.point_at(one.bent.length).minus(one.point_at(0))
            self.assertGreater(sum(a * b for a, b in zip(ends, way, strict=True)), 30, wall)

    def test_a_run_without_a_placed_box_stands_aside(self):
        space = make_space([box("P", 0, 0)], [run("1", []), run("2", [], start="R", to="")])
        told = {one.key: (one.stands, str(one.why_not)) for one in space.runs}
        self.assertEqual(told["1"], (True, ""))
        self.assertEqual(told["2"], (False, "Box “R” is not placed yet."))
        self.assertEqual([one.name for one in space.unplaced], ["Q", "R"])
        self.assertFalse(space.clear)

    def test_a_box_is_the_same_however_it_is_spaced_and_cased(self):
        space = make_space([box("Panel  KP", 0, 0)], [run("1", [], start=" panel kp ")])
        self.assertTrue(space.runs[0].stands)

    def test_a_box_that_cannot_be_read_is_a_finding(self):
        space = make_space([box("P", "1/0", 0)], [run("1", [])])
        self.assertEqual([(one.place, one.code) for one in space.findings], [("boxes.0.along", "unreadable")])


class SharedStruts(TestCase):
    """Two 3/4 EMT straight up from boxes 4 apart: a strap within 36 of each box."""

    def struts(self, up=0.0, aside=4.0, **more):
        boxes = [box("P", 0, 0), box("R", aside, up)]
        given_runs = [run("1", [], end=90, **more), run("2", [], end=90, start="R", to="S", **more)]
        return shared_struts(placed_in(boxes, given_runs).standing.values())

    def test_one_strut_carries_both_and_is_as_long_as_by_hand(self):
        shared = self.struts(stand_off="1 5/8")
        self.assertEqual({len(one.runs) for one in shared}, {2})
        one_run = placed_in([box("P", 0, 0)], [run("1", [], end=90)]).standing["1"]
        self.assertEqual(len(shared), len(one_run.checked.straps))
        self.assertAlmostEqual(shared[0].length, 4 + 0.922 + 3)
        self.assertEqual([round(place, 3) for place in shared[0].places], [1.961, 5.961])

    def test_straps_that_fall_beside_it_or_far_off_or_tight_to_the_wall_share_none(self):
        self.assertTrue(self.struts(up=0.8, stand_off="1 5/8"))
        self.assertTrue(self.struts(aside=12, stand_off="1 5/8"))
        self.assertEqual(self.struts(up=0.85, stand_off="1 5/8"), [])
        self.assertEqual(self.struts(aside=12.1, stand_off="1 5/8"), [])
        self.assertEqual(self.struts(), [])

    def test_a_run_beside_others_on_another_strut_is_left_out(self):
        boxes = [box("P", 0, 0), box("R", 4, 0)]
        given_runs = [
            run("1", [], end=90, stand_off="1 5/8"),
            run("2", [], end=90, start="R", to="S", stand_off="1"),
        ]
        self.assertEqual(shared_struts(placed_in(boxes, given_runs).standing.values()), [])


def crossing(apart=0.0):
    """A run up the wall, and one across it `apart` farther out."""
    return (
        [box("P", 0, 0), box("R", -60, 50, out=apart)],
        [run("1", [ninety(90, "right")]), run("2", [], end=120, heading="right", start="R", to="S")],
    )


class Remedies(TestCase):
    def test_runs_that_cross_on_a_wall_touch_and_a_saddle_would_do(self):
        boxes, given_runs = crossing()
        space = make_space(boxes, given_runs)
        self.assertEqual([one.severity for one in space.clashes], ["stop"])
        self.mended(boxes, given_runs, "1", "2")

    def test_a_leg_that_is_too_near_is_moved(self):
        """Two runs up, across beside each other, and down: the lower one goes lower, or the upper one higher."""
        boxes = [box("P", 0, 0), box("R", 30, 0), box("Q", 80, 20), box("S", 60, 30)]
        steps = [ninety(60, "right"), ninety(80, "down")]
        other = [ninety(58.5, "right"), ninety(40, "down")]
        given_runs = [run("1", steps), run("2", other, start="R", to="S", end=30)]
        space = make_space(boxes, given_runs)
        self.assertIn("runs", [one.kind for one in space.clashes])
        self.mended(boxes, given_runs, "1", "2")

    def mended(self, boxes, given_runs, one, other):
        placed = placed_in(boxes, given_runs)
        found = remedies_for(placed, one, other)
        self.assertTrue(found)
        for remedy in found:
            after = [
                RunGiven(each.key, apply_edits(each.document, remedy.edits)) if each.key == remedy.run else each
                for each in given_runs
            ]
            space = make_space(boxes, after)
            self.assertEqual([str(each.says) for each in space.clashes], [], remedy.says)
            standing = list(placed_in(boxes, after).standing.values())
            self.assertGreaterEqual(least_by_sampling(*standing), DEFAULT_LIMITS.between_runs - 1e-6)

    def test_a_run_that_is_cut_stays_as_it_is(self):
        boxes, given_runs = crossing()
        found = remedies_for(placed_in(boxes, given_runs), "1", "2", fixed=frozenset(["2"]))
        self.assertEqual({one.run for one in found}, {"1"})


class SharedBoxes(TestCase):
    def test_two_runs_from_one_side_are_asked_for_their_knockouts(self):
        given_runs = [run("1", [ninety(40, "left")]), run("2", [ninety(60, "right")], to="T")]
        space = make_space([box("P", 0, 0)], given_runs)
        self.assertEqual([one.kind for one in space.clashes], ["knockout"])
        knockouts = [{"run": "1", "end": "A", "aside": "-1 1/4"}, {"run": "2", "end": "A", "aside": "1 1/4"}]
        space = make_space([box("P", 0, 0, knockouts=knockouts)], given_runs)
        self.assertEqual(space.clashes, [])
        # Two knockouts at one place do not go.
        same = [{**one, "aside": "0"} for one in knockouts]
        space = make_space([box("P", 0, 0, knockouts=same)], given_runs)
        self.assertEqual([one.severity for one in space.clashes], ["stop"])


class Closings(TestCase):
    """Three runs between three boxes, one of which is placed wrong, or one run measured wrong."""

    def closings(self, moved=(0, 0), longer=0.0):
        p, q, r = box("P", 0, 0, size=()), box("Q", 80, 60, size=()), box("R", 80, 140, size=())
        # Up to a height, across and up or down again: each ends where its box is.
        given_runs = [
            run("1", [centred(90, "right"), centred(80, "down")], end=30 + longer),
            run("2", [centred(40, "right"), centred(80, "up")], end=20),
            run("3", [centred(160, "right"), centred(80, "down")], end=20, to="R"),
        ]
        q = {**q, "along": 80 + moved[0], "up": 60 + moved[1]}
        self.placed = placed_in([p, q, r], given_runs)
        return make_space([p, q, r], given_runs).closings

    def test_all_close_where_all_is_measured_right(self):
        self.assertEqual([one.closes for one in self.closings()], [True, True, True])

    def test_a_box_that_two_runs_miss_alike_is_placed_wrong(self):
        told = [str(one.says) for one in self.closings(moved=(1, 0)) if not one.closes]
        self.assertEqual(len(told), 2)
        for says in told:
            self.assertIn("“Q” is placed wrong", says)
            self.assertIn("1 left", says)

    def test_a_run_that_others_at_its_boxes_do_not_bear_out_is_out(self):
        told = [str(one.says) for one in self.closings(longer=2) if not one.closes]
        self.assertEqual(len(told), 1)
        self.assertIn("2 down", told[0])
        self.assertIn("measure this run again", told[0])

    def test_the_places_become_the_runs_own_measure_of_its_end(self):
        self.closings(longer=2)
        finding = next(one for one in among_others(self.placed, "1").findings if one.code == "box_elsewhere")
        run = next(one for one in self.placed.runs if one.key == "1")
        shared = closing_of(apply_edits(run.document, finding.fixes[0].edits), ["end.at"])
        self.assertEqual((shared.misses.reads, shared.left.reads), ("2", "0"))


class AtTheSteps(TestCase):
    """What the job says of a run comes to the step at which it is."""

    def codes(self, boxes, given_runs, key):
        return [(one.code, one.place) for one in among_others(placed_in(boxes, given_runs), key).findings]

    def test_runs_that_touch_or_come_near(self):
        self.assertEqual(self.codes(*crossing(), "1"), [("runs_touch", "steps.0")])
        # Its axis so far out that both surfaces are a quarter apart.
        self.assertEqual(self.codes(*crossing(0.922 + 0.25), "1"), [("runs_too_near", "steps.0")])
        self.assertEqual(self.codes(*crossing(0.922 + 0.25), "2"), [("runs_too_near", "start")])
        self.assertEqual(self.codes(*crossing(3), "1"), [])

    def test_what_is_in_anothers_way(self):
        over = {"shape": "box", "name": "duct", "height": 4, "clear": 0.5}
        saddle = {"kind": "saddle4", "toward": "out", "over": over, "angle": 30, "near": 50, "width": 10, "margin": 0.5}
        boxes = [box("P", 0, 0), box("R", 6, 0)]
        given_runs = [run("1", [saddle], end=140), run("2", [], start="R", to="", end=140)]
        self.assertIn(("runs_touch", "start"), self.codes(boxes, given_runs, "2"))
        told = make_space([box("P", 0, 0), box("R", 9 + 0.6, 0)], given_runs).clashes
        self.assertEqual([one.kind for one in told], ["thing"])
        self.assertIn(("run_near_thing", "start"), self.codes([box("P", 0, 0), box("R", 9.6, 0)], given_runs, "2"))
