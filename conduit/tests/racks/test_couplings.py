"""Couplings of a rack's neighbours, kept apart by choice, also where the planner of cuts puts them."""

from itertools import pairwise
from unittest import TestCase

from conduit.cutting import CutTerms, Kind, PlannedRun, ScrapOnRack, make_cut_list
from conduit.cutting.optimizer import JointPlanner
from conduit.geometry import Vec
from conduit.layout import blocked, free_windows, point_at
from conduit.plan import check_run, make_plan
from conduit.racks import members_of
from conduit.tests.racks.test_racks import rack
from conduit.tests.support import Steps, document, ninety

APART = 20


class Couplings(TestCase):
    """Couplings of neighbours are apart by choice, wherever the planner of cuts puts them."""

    LONG = document([ninety(150, "up"), ninety(140, "out")], 130)

    def test_apart_wherever_they_may_lie(self):
        members = members_of(rack(self.LONG, "in", *["3/4"] * 3, spacing=2, stagger=20))
        rows = []
        for member in members.pipes:
            checked = check_run(member.raw if member.number > 1 else {**self.LONG, "rack": {"stagger": 20}})
            spans = [(bend.start, bend.end) for bend in checked.layout.path.bends]
            first = spans[0][0]
            windows = free_windows(checked.layout.path.length, blocked(checked.layout), checked.limits)
            rows.append([(max(low, 0), min(high, first)) for low, high in windows if low < first])
            self.assertTrue(checked.couplings)
        for one, other in pairwise(rows):
            for low, high in one:
                for start, end in other:
                    self.assertTrue(start >= high + 20 - 1e-6 or low >= end + 20 - 1e-6, (one, other))

    def test_side_by_side_where_nothing_was_asked(self):
        members = members_of(rack(self.LONG, "in", "3/4", spacing=2))
        self.assertNotIn("in_rack", members.pipes[1].raw)
        places = {check_run(member.raw).couplings[0] for member in members.pipes}
        self.assertEqual(len(places), 1)

    def test_one_put_by_hand_beside_a_neighbour_s_is_told(self):
        found = make_plan({**self.LONG, "rack": {"stagger": 20}, "couplings": [60]}).findings
        self.assertIn("coupling_misplaced", [one.code for one in found])

    def places(self, raw, couplings):
        """Where a pipe's couplings lie in space, each with the heading of its leg."""
        place = raw.get("in_rack", {})
        origin = Vec(*(place.get(key, 0.0) for key in ("right", "up", "out")))
        path = check_run(raw).layout.path
        return [(point.plus(origin), heading) for point, heading in (point_at(path, s) for s in couplings)]

    def test_apart_where_the_planner_of_cuts_puts_them_to_use_up_scrap(self):
        raw = rack(self.LONG, "in", *["3/4"] * 3, spacing=2, stagger=APART)
        documents = [one.raw for one in members_of(raw).pipes]
        runs = [PlannedRun(str(at), f"Pipe {at}", make_plan(one)) for at, one in enumerate(documents, 1)]
        scraps = [
            ScrapOnRack(f"S{at}", Kind("EMT", "3/4"), long) for at, long in enumerate((88, 71.5, 64, 52.25, 47, 31))
        ]
        [kind] = make_cut_list(runs, scraps, CutTerms(), JointPlanner(Steps(60))).kinds
        for choice in kind.choices:
            at = {one.run: list(one.at) for one in choice.places}
            rows = [self.places(one, at[str(number)]) for number, one in enumerate(documents, 1)]
            self.assertTrue(all(rows), "each pipe is longer than a stick")
            for row, other in pairwise(rows):
                for point, heading in row:
                    for beside, along in other:
                        if heading.minus(along).length() < 1e-6:
                            off = beside.minus(point)
                            near = off.along(heading, -off.dot(heading)).length() < 3
                            self.assertFalse(near and abs(off.dot(heading)) < APART - 1 / 16, off)
