"""SVG, read as XML: true to scale, with every figure; and tables, followed by a hand of their own."""

import csv
import io
import math
import re
from unittest import TestCase
from xml.etree import ElementTree

from conduit.bending import Bencher
from conduit.geometry import Vec
from formats.from_runs import model_of_run
from formats.svg import StripMark, write_strip, write_view
from formats.tests.support import EXAMPLES, document, given_out, job, model, run
from formats.views import LOOKS, view_of

SVG = "{http://www.w3.org/2000/svg}"


def texts(svg):
    return [one.text for one in ElementTree.fromstring(svg).iter(f"{SVG}text")]


def rings(svg, layer):
    """The corners of each outline of a layer."""
    for path in ElementTree.fromstring(svg).iter(f"{SVG}path"):
        if path.get("class") == layer:
            for ring in path.get("d").split("Z")[:-1]:
                yield [tuple(map(float, pair.split(","))) for pair in re.split("[ML]", ring) if pair]


class Views(TestCase):
    def test_every_figure_stands_in_one_of_the_views(self):
        for path in EXAMPLES:
            with self.subTest(path.name):
                shown = model(path.name)
                seen = [text for side in LOOKS for text in texts(write_view(view_of(shown, side)))]
                for pipe in shown.pipes:
                    for one in pipe.dimensions:
                        self.assertIn(one.reads, seen)

    def test_a_pipe_is_as_thick_as_it_is_and_as_far_as_it_goes(self):
        view = view_of(model("kiln-2-feed.json"), "front")
        [pipe] = model("kiln-2-feed.json").pipes
        [outline] = [one for one in view.outlines if one.layer == "pipe"]
        points = [LOOKS["front"](at) for at in pipe.points()]
        for axis in (0, 1):
            drawn = max(at[axis] for at in outline.ring) - min(at[axis] for at in outline.ring)
            ends = max(at[axis] for at in points) - min(at[axis] for at in points)
            self.assertTrue(ends - 1e-6 < drawn < ends + pipe.diameter + 1e-6)
        [ring] = rings(write_view(view), "pipe")
        wide = [max(at[axis] for at in ring) - min(at[axis] for at in ring) for axis in (0, 1)]
        true = [max(at[axis] for at in outline.ring) - min(at[axis] for at in outline.ring) for axis in (0, 1)]
        self.assertAlmostEqual(wide[0] / true[0], wide[1] / true[1], 3)

    def test_a_leg_toward_the_eye_is_a_circle(self):
        straight = {"trade_size": "3/4", "start": {"heading": "out"}, "end": {"at": "20"}}
        from_front = view_of(model_of_run(straight), "front")
        [pipe] = [one for one in from_front.outlines if one.layer == "pipe"]
        self.assertTrue(all(abs(math.hypot(*at) - 0.922 / 2) < 1e-3 for at in pipe.ring))


class Strips(TestCase):
    def test_marks_lie_to_scale_and_no_label_upon_another(self):
        marks = [StripMark(number, (at, at + 2), at, f"{at}") for number, at in enumerate((3, 5, 7, 60, 118), 1)]
        drawn = ElementTree.fromstring(write_strip(120.0, "120", marks, 680.0))
        labels = [one for one in drawn.iter(f"{SVG}text") if ":" in one.text]
        self.assertEqual([one.text for one in labels], [f"{mark.number}: {mark.reads}" for mark in marks])
        places = [(float(one.get("x")), float(one.get("y")), 7 * len(one.text)) for one in labels]
        for i, (x, y, wide) in enumerate(places):
            for other_x, other_y, other_wide in places[:i]:
                self.assertTrue(y != other_y or x + wide <= other_x or other_x + other_wide <= x)
        self.assertTrue(all(x + wide <= 690 for x, _, wide in places))

    def test_a_sheet_holds_every_mark_of_every_stick(self):
        seen = texts(given_out(run(), "svg"))
        bencher = Bencher(run().raw)
        for piece in bencher.plan.pieces:
            for bend in bencher.sheet(piece.number).bends:
                self.assertIn(f"{bend.number}: {bend.use.at.reads}", seen)


def bent_by(rows):
    """Where a machine that knows straight, rotation, angle and radius brings the end of a piece, from its start."""
    at, ahead, side = Vec(0, 0, 0), Vec(1, 0, 0), Vec(0, 1, 0)
    used = 0.0
    for row in rows:
        feed, rotation, angle, radius, arc = (
            float(row[name]) for name in ("straight before", "rotation", "angle", "radius", "arc")
        )
        at, turned = at.along(ahead, feed), math.radians(angle)
        side = side.turned(ahead, math.radians(rotation))
        at = at.along(ahead, radius * math.sin(turned)).along(side, radius * (1 - math.cos(turned)))
        ahead, side = (
            ahead.times(math.cos(turned)).along(side, math.sin(turned)),
            side.times(math.cos(turned)).along(ahead, -math.sin(turned)),
        )
        used += feed + arc
    return at.along(ahead, float(rows[0]["piece length"]) - used)


class Tables(TestCase):
    def test_a_machine_that_follows_the_bends_comes_to_the_same_pipe(self):
        for path in EXAMPLES:
            bencher = Bencher(document(path.name))
            rows = list(csv.DictReader(io.StringIO(given_out(run(path.name), "csv").decode())))
            for piece in bencher.plan.pieces:
                bends = [row for row in rows if int(row["piece"]) == piece.number]
                if not bends or not bencher.checked.prover:
                    continue
                with self.subTest(path.name, piece=piece.number):
                    bent = bencher.checked.prover.exact_bent
                    ends = [bent.point_at(at) for at in (piece.start, piece.start + piece.length.inches)]
                    self.assertAlmostEqual(bent_by(bends).length(), ends[1].minus(ends[0]).length(), 3)

    def test_marks_say_which_is_proposed(self):
        rows = list(csv.DictReader(io.StringIO(given_out(job(), "csv", "marks").decode())))
        self.assertEqual({row["run"] for row in rows}, {"Kiln 2 feed", "Kiln 2 feed, the long way"})
        by_bend = {}
        for row in rows:
            by_bend.setdefault((row["run"], row["bend"]), []).append(row["proposed"])
        self.assertTrue(all(said.count("yes") == 1 for said in by_bend.values()))
