"""What comes in: our own drawings come back as the same bends; what cannot be a run is told by where it stands."""

import io
import json
import logging
import math
from itertools import pairwise, product
from random import Random
from unittest import TestCase

import ezdxf

from conduit.geometry import Vec
from conduit.notes import write_note
from conduit.racks import make_rack_plan
from formats.from_runs import model_of_run
from formats.importing import Meant, UnreadableFile, read_file
from formats.tests.support import DUCT, EXAMPLES, document, given_out, job, model, run

# Its ends are stamped by a lever tool: what is drawn has slants there, which are read as bends.
STAMPED = "spray-booth-switch.note"
MILLIMETRES = 4


def drawing(draw, units=MILLIMETRES):
    made = ezdxf.new("R2013")
    made.units = units
    draw(made.modelspace())
    text = io.StringIO()
    made.write(text)
    return text.getvalue().encode()


def corners(pipe):
    """Where each bend begins and ends, from where its pipe begins."""
    first = pipe.parts[0].start
    return [at.minus(first) for arc in pipe.arcs for at in (arc.start, arc.end)]


class Drawings(TestCase):
    def test_our_own_drawings_and_models_come_back_as_the_same_bends(self):
        for path, kind in product(EXAMPLES, ("dxf", "ifc")):
            if path.name == STAMPED:
                continue
            with self.subTest(path.name, kind=kind):
                brought = read_file(given_out(run(path.name), kind))
                self.assertEqual(brought.passed_over, ())
                pipes = model(path.name).pipes
                self.assertEqual([one.name for one in brought.runs], [pipe.name for pipe in pipes])
                shoe = document(path.name).get("shoe")
                for one, pipe in zip(brought.runs, pipes, strict=True):
                    again = model_of_run({**one.document, "shoe": shoe}).pipes[0]
                    self.assertEqual((again.trade_size, again.material), (pipe.trade_size, pipe.material))
                    self.assertAlmostEqual(again.length, pipe.length, 6)
                    for mine, theirs in zip(corners(pipe), corners(again), strict=True):
                        self.assertLess(mine.minus(theirs).length(), 1e-6)

    def test_a_polyline_of_another_program_is_read_in_its_unit_with_its_up(self):
        data = drawing(lambda space: space.add_polyline3d([(0, 0, 0), (0, 0, 1000), (500, 0, 1000)]))
        [one] = read_file(data).runs
        [bend] = one.document["steps"]
        self.assertEqual((one.document["start"]["heading"], bend["turn"], bend["angle"]), ("up", "right", 90.0))
        self.assertAlmostEqual(bend["at"], 1000 / 25.4, 6)
        self.assertAlmostEqual(one.document["end"]["at"], 500 / 25.4, 6)

    def test_a_unit_that_is_not_said_is_asked_for(self):
        data = drawing(lambda space: space.add_line((0, 0, 0), (0, 0, 40)), units=0)
        with self.assertRaisesRegex(UnreadableFile, "does not say its unit"):
            read_file(data)
        self.assertEqual(read_file(data, Meant(inches=1.0)).runs[0].document["end"]["at"], 40)

    def test_what_is_no_run_is_told_by_its_entity(self):
        def draw(space):
            space.add_circle((0, 0, 0), 5)
            for end in ((900, 0, 0), (0, 900, 0), (0, 0, 900)):
                space.add_line((0, 0, 0), end)
            space.add_arc((5000, 0, 0), 100, 0, 270)
            space.add_polyline3d([(9000, 0, 0), (9500, 300, 400)])

        brought = read_file(drawing(draw))
        self.assertEqual(brought.runs, ())
        why = {where.split()[0]: str(says) for where, says in brought.passed_over}
        self.assertIn("no line, arc", why["CIRCLE"])
        self.assertIn("no branches", why["LINE"])
        self.assertIn("half round", why["ARC"])
        self.assertIn("runs aslant", why["POLYLINE"])

    def test_lines_drawn_in_any_order_and_way_are_one_run(self):
        corners = [Vec(0, 0, 0), Vec(0, 0, 1000), Vec(700, 0, 1000), Vec(700, 0, 300), Vec(700, 900, 300)]
        ends = list(pairwise(corners))
        for seed in range(20):
            luck = Random(seed)
            shuffled = [pair if luck.random() < 0.5 else pair[::-1] for pair in luck.sample(ends, len(ends))]
            brought = read_file(drawing(lambda space, lines=shuffled: [space.add_line(*one) for one in lines]))
            [one] = brought.runs
            self.assertEqual(len(one.document["steps"]), 3, seed)

    def test_another_radius_is_told(self):
        def draw(space):
            space.add_line((0, 0, 0), (500, 0, 0))
            space.add_arc((500, 300, 0), 300, 270, 0)
            space.add_line((800, 300, 0), (800, 900, 0))

        [one] = read_file(drawing(draw), Meant(up="y")).runs
        self.assertEqual(one.document["steps"][0]["angle"], 90)
        self.assertIn("a bend radius of 11 13/16", str(one.told[0]))


class Texts(TestCase):
    def test_surveyed_points_are_a_run_by_name(self):
        text = 'run,right,up,out\nA,0,0,0\nA,0,"71 1/2",0\nA,\'5 0,0\nA,88.75,71 1/2,0\nB,-10,0,0\nB,-10,50,0\n'
        brought = read_file(text.encode())
        self.assertEqual([where for where, _ in brought.passed_over], ["line 4"])
        first, second = brought.runs
        self.assertEqual((first.name, first.document["steps"][0]["at"]), ("A", 71.5))
        self.assertEqual((second.name, second.document["end"]["at"]), ("B", 50))

    def test_a_note_a_run_and_a_job_are_read_as_they_are(self):
        note = write_note(document(DUCT))
        self.assertEqual(write_note(read_file(note.encode()).runs[0].document), note)
        raw = given_out(run(), "json")
        self.assertEqual(read_file(raw).runs[0].document, document(DUCT))
        brought = read_file(given_out(job(), "json"))
        self.assertEqual(
            [one.name for one in brought.runs], ["Kiln 2 feed, the long way", "Kiln 2 feed", "Stands nowhere"]
        )
        self.assertEqual(len(brought.boxes), 2)

    def test_what_is_nothing_is_told(self):
        for data, says in ((b"\xff\xfe\x00", "neither a drawing nor text"), (b"{", "line 1"), (b"[]", "no line in it")):
            with self.assertRaisesRegex(UnreadableFile, says):
                read_file(data)
        self.assertEqual([where for where, _ in read_file(b'{"runs": [1]}').passed_over], ["runs.1"])


class Mutated(TestCase):
    def setUp(self):
        logging.disable(logging.CRITICAL)
        self.addCleanup(logging.disable, logging.NOTSET)

    def test_five_hundred_broken_files_of_each_kind_are_read_or_told(self):
        points = b"run,x,y,z\nA,0,0,0\nA,0,40,0\nA,30,40,0\nB,1,1,1\nB,1,1,60\n"
        whole = {
            "dxf": drawing(lambda space: space.add_polyline3d([(0, 0, 0), (0, 0, 1000), (500, 0, 1000)])),
            "json": json.dumps(document(DUCT)).encode(),
            "note": write_note(document(DUCT)).encode(),
            "points": points,
            "ifc": given_out(run("kiln-3-feed.json"), "ifc"),
        }
        for kind, data in whole.items():
            luck = Random(kind)
            for _ in range(500):
                broken = bytearray(data)
                for _ in range(min(len(broken), luck.randint(1, 6))):
                    at = luck.randrange(max(1, len(broken)))
                    what = luck.choice(("flip", "cut", "twice"))
                    if what == "flip" and broken:
                        broken[at] = luck.randrange(256)
                    elif what == "cut":
                        del broken[at : at + luck.randint(1, 40)]
                    else:
                        broken[at:at] = broken[at : at + luck.randint(1, 40)]
                try:
                    brought = read_file(bytes(broken), Meant(things=True))
                except UnreadableFile as error:
                    self.assertTrue(str(error))
                else:
                    self.assertTrue(brought.runs or brought.passed_over)


class Chains(TestCase):
    def test_a_great_heap_of_lines_is_joined_in_time_that_grows_with_it(self):
        def draw(space):
            for number in range(3000):
                turn = 0.0 if number % 2 else math.pi / 2
                space.add_line((number * 50, 0, 0), (number * 50 + 40 * math.cos(turn), 0, 40 * math.sin(turn)))

        self.assertEqual(len(read_file(drawing(draw)).runs), 400)

    def test_a_star_of_thousands_and_a_spiral_of_thousands_are_told_at_once(self):
        star = [((0, 0, 0), (900 * math.cos(i), 0, 900 * math.sin(i))) for i in range(4000)]
        brought = read_file(drawing(lambda space: [space.add_line(*one) for one in star]))
        self.assertEqual((len(brought.runs), len(brought.passed_over)), (0, 4000))
        steps = [(0, 0, 0)]
        for i in range(2000):
            x, y, z = steps[-1]
            steps.append((x + 300, y, z) if i % 2 else (x, y, z + 300))
        [(_, why)] = read_file(drawing(lambda space: space.add_polyline3d(steps))).passed_over
        self.assertIn("corners", why)


class Racks(TestCase):
    def test_a_racks_pipes_come_back_as_runs_of_their_own(self):
        brought = read_file(given_out(run("ceiling-rack.note"), "dxf"))
        self.assertEqual(len(brought.runs), len(make_rack_plan(document("ceiling-rack.note")).pipes))
