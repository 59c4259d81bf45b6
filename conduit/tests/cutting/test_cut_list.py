from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.cutting import (
    CutTerms,
    Kind,
    PlannedRun,
    ScrapOnRack,
    bring_list,
    digests,
    joined,
    make_cut_list,
    read_scrap_list,
)
from conduit.cutting.optimizer import JointPlanner
from conduit.plan import make_plan
from conduit.tests.support import Steps, document, ninety

SIZES = ["1/2", "3/4", "1"]


def stub(key, size, height, other, **more):
    return PlannedRun(key, f"Stub {key}", make_plan({**document([ninety(height, "up")], other, size), **more}))


@st.composite
def jobs(draw):
    """Some stubs and long runs, and a rack."""
    lengths = st.floats(12, 110)
    runs = [
        stub(str(i), draw(st.sampled_from(SIZES)), draw(lengths), draw(lengths)) for i in range(draw(st.integers(0, 5)))
    ]
    rack = [
        ScrapOnRack(f"S{i}", Kind("EMT", draw(st.sampled_from(SIZES))), draw(lengths), draw(st.sampled_from("ab")))
        for i in range(draw(st.integers(0, 6)))
    ]
    return runs, rack


def listed(runs, rack=(), terms=None, known=()):
    return make_cut_list(runs, list(rack), terms or CutTerms(), JointPlanner(Steps(30)), known)


def chosen(found):
    return [kind.choices[kind.chosen] for kind in found.kinds]


class CutLists(TestCase):
    @settings(max_examples=6)
    @given(jobs())
    def test_every_run_is_made_of_its_pieces_and_nothing_is_cut_twice(self, job):
        runs, rack = job
        choices = chosen(listed(runs, rack))
        sources = [source for choice in choices for source in choice.sources]
        for run in runs:
            cuts = [cut for source in sources for cut in source.cuts if cut.run == run.key]
            self.assertEqual(sorted(cut.piece for cut in cuts), list(range(1, len(cuts) + 1)))
            total = sum(cut.length.inches for cut in cuts)
            self.assertAlmostEqual(total, run.plan.developed_length.inches, delta=1 / 32 + 1e-9)
        tags = [source.scrap for source in sources if source.scrap]
        self.assertEqual(len(tags), len(set(tags)))
        for source in sources:
            used = sum(cut.length.inches for cut in source.cuts)
            self.assertLessEqual(used + source.left.inches, source.length.inches + 1e-6)
            self.assertEqual(source.keep, source.left.inches >= 12)

    def test_the_couplings_of_the_list_make_the_runs_own_pieces(self):
        run = stub("1", "3/4", 100, 150)
        choice = chosen(listed([run], [ScrapOnRack("S1", Kind("EMT", "3/4"), 41.375)]))[0]
        at = choice.places[0].at
        pieces = make_plan({**document([ninety(100, "up")], 150, "3/4"), "couplings": at}).pieces
        cuts = {cut.piece: cut.length.reads for source in choice.sources for cut in source.cuts}
        self.assertEqual({piece.number: piece.length.reads for piece in pieces}, cuts)

    def test_a_scrap_that_is_far_away_or_not_trusted_is_taken_where_it_still_pays(self):
        run, rack = stub("1", "3/4", 20, 30), [ScrapOnRack("S1", Kind("EMT", "3/4"), 50.0)]
        length = run.plan.developed_length.inches
        for terms, tags in (
            (CutTerms(), ["S1"]),
            (CutTerms(fetch=0.3), ["S1"]),
            (CutTerms(fetch=3), [None]),
            (CutTerms(doubt=50 - length - 1 / 8), ["S1"]),
            (CutTerms(doubt=50 - length + 1 / 8), [None]),
        ):
            found = listed([run], rack, terms)
            self.assertEqual([source.scrap for source in chosen(found)[0].sources], tags, terms)
            self.assertAlmostEqual(chosen(found)[0].bill, terms.fetch if tags == ["S1"] else 1)
        self.assertEqual(chosen(listed([run], rack))[0].says, "No new stick and no coupling.")
        self.assertTrue(chosen(listed([run], rack))[0].cheapest)

    def test_a_box_in_the_run_takes_no_pipe_and_no_coupling(self):
        box = {"kind": "pull_point", "name": "J1", "at": 100, "width": 4}
        run = PlannedRun("1", "Feed", make_plan(document([box, ninety(150, "up")], 40)))
        cuts = [cut for source in chosen(listed([run]))[0].sources for cut in source.cuts]
        lengths = {cut.piece: cut.length.reads for cut in cuts}
        self.assertEqual(lengths, {piece.number: piece.length.reads for piece in run.plan.pieces})
        self.assertEqual({(cut.end_a, cut.end_b) for cut in cuts}, {("start box", "J1"), ("J1", "end box")})
        lines = bring_list([run], {"1": {"start": {"name": "KP"}, "end": {"name": "K2"}}}, {}, {joined(run): 0})
        found = {line.what: line.count for line in lines if line.what != "box"}
        self.assertEqual((found["connector"], sum(line.what == "box" for line in lines)), (4, 3))
        self.assertNotIn("coupling", found)

    def test_a_run_that_cannot_be_made_is_told(self):
        found = listed([stub("1", "3/4", 3, 40)])
        self.assertEqual([(run.run_name, run.whole) for run in found.left_out], [("Stub 1", True)])
        self.assertEqual(found.kinds, [])

    def test_what_is_tried(self):
        run, rack = stub("1", "3/4", 40, 30), [ScrapOnRack("S1", Kind("EMT", "3/4"), 80.0)]
        self.assertEqual(chosen(listed([run], rack))[0].sticks, 0)
        for tried in ({"use_scrap": False}, {"excluded": ["S1"]}):
            self.assertEqual(chosen(listed([run], rack, CutTerms(**tried)))[0].sticks, 1)
        long = chosen(listed([run], rack, CutTerms(spare="1 1/2", kerf="1/8")))[0].sources[0].cuts[0]
        self.assertAlmostEqual(long.length.inches, run.plan.developed_length.inches + 1.5, delta=1 / 32)
        pinned = CutTerms(couplings=[{"run": "1", "at": "20"}])
        self.assertEqual(chosen(listed([run], rack, pinned))[0].places[0].at, [20.0])
        length = run.plan.developed_length.inches
        held = CutTerms(pieces=[{"run": "1", "start": 0, "end": round(length * 16) / 16, "scrap": None}])
        self.assertEqual(chosen(listed([run], rack, held))[0].sticks, 1)

    def test_a_pin_that_no_longer_fits_is_told_and_left_out(self):
        run = stub("1", "3/4", 40, 30)
        for pin in ({"start": 0, "end": 500, "scrap": None}, {"start": 0, "end": 20, "scrap": "S7"}):
            found = listed([run], [], CutTerms(pieces=[{"run": "1", **pin}]))
            self.assertIn("its pin is left out", found.left_out[0].says)
            self.assertEqual(chosen(found)[0].sticks, 1)

    def test_a_coupling_takes_its_gap(self):
        with_gap, without = stub("1", "3/4", 100, 100, coupling_gap="1/2"), stub("2", "3/4", 100, 100)
        for run, gap in ((with_gap, 0.5), (without, 0.0)):
            choice = chosen(listed([run]))[0]
            cut = sum(cut.length.inches for source in choice.sources for cut in source.cuts)
            wanted = run.plan.developed_length.inches - gap * choice.couplings
            self.assertAlmostEqual(cut, wanted, delta=1 / 16)
            self.assertAlmostEqual(sum(piece.length.inches for piece in run.plan.pieces), wanted, delta=1e-6)

    def test_threads_are_counted_for_threaded_pipe(self):
        run = PlannedRun("1", "Feed", make_plan({**document([ninety(30, "up")], 40, "1/2"), "material": "rigid"}))
        source = chosen(listed([run]))[0].sources[0]
        self.assertEqual(source.threads, 1, "the stick brings one thread; the piece's other end is cut")
        clamped = {**document([ninety(30, "up")], 40, "1/2"), "material": "rigid", "joints": "threadless"}
        source = chosen(listed([PlannedRun("1", "Feed", make_plan(clamped))]))[0].sources[0]
        self.assertEqual((source.threads, source.ream), (0, 1))

    def test_an_end_that_is_not_square_is_squared_first_or_left_for_the_last(self):
        run, kind = stub("1", "3/4", 20, 30), Kind("EMT", "3/4")
        length = round(run.plan.developed_length.inches * 16) / 16

        def source(over, ends, **terms):
            rack = [ScrapOnRack("S1", kind, length + over, ends=ends)]
            [one] = chosen(listed([run], rack, CutTerms(**terms)))[0].sources
            return one

        # As long as the run, to the sixteenth: only ends that are square serve.
        self.assertEqual(source(1 / 16, ("cut", "factory")).scrap, "S1")
        for ends in (("rough", "cut"), ("cut", "rough"), ("rough", "rough")):
            self.assertIsNone(source(1 / 16, ends).scrap)
        begun_on = {("rough", "cut"): ("B", None), ("cut", "rough"): ("A", None), ("rough", "rough"): ("A", 0.5)}
        for ends, (begin, square) in begun_on.items():
            one = source(1.125, ends)
            self.assertEqual((one.scrap, one.begin, one.square and one.square.inches), ("S1", begin, square))
            # Hooked on the squared end: the piece itself is measured from there.
            self.assertEqual((one.cuts[0].start.inches, one.cuts[0].length.inches), (0, length))
            self.assertEqual(one.left.inches, 1.125 - (square or 0) - 1 / 16)
        self.assertIsNone(source(1.125, ("rough", "rough"), square=1).scrap)

    def test_of_a_bent_scrap_what_is_straight_serves(self):
        run, kind = stub("1", "3/4", 20, 30), Kind("EMT", "3/4")
        length = run.plan.developed_length.inches
        for ends, begin, square, saw_cuts in (
            (("cut", "bent"), "A", None, 1),
            (("bent", "cut"), "B", None, 1),
            (("bent", "bent"), "A", 0, 2),
        ):
            rack = [ScrapOnRack("S1", kind, length + 1 / 16, ends=ends)]
            [one] = chosen(listed([run], rack))[0].sources
            said = (one.scrap, one.begin, one.square and one.square.inches, one.saw_cuts)
            self.assertEqual(said, ("S1", begin, square, saw_cuts))
            # It still must be cut off at the bend.
            self.assertIsNone(chosen(listed([run], [ScrapOnRack("S1", kind, length, ends=ends)]))[0].sources[0].scrap)

    def test_an_offcut_is_worth_what_the_crew_says_and_nothing_where_the_rack_is_full(self):
        run, kind = stub("1", "3/4", 20, 30), Kind("EMT", "3/4")
        length = run.plan.developed_length.inches
        rack = [ScrapOnRack("S1", kind, length + 6), ScrapOnRack("S2", kind, length + 40)]
        for terms, tag in (
            (CutTerms(), "S2"),
            (CutTerms(offcut=0.9), "S2"),
            (CutTerms(offcut=0.5), "S1"),
            (CutTerms(rack_most=2), "S2"),
            (CutTerms(rack_most=1, fetch=2), "S1"),
        ):
            found = listed([run], rack, terms)
            [source] = chosen(found)[0].sources
            self.assertEqual(source.scrap, tag, terms)
            self.assertEqual("2 pieces are on the rack" in str(found.crowded), terms.rack_most == 1)

    def test_threads_make_a_coupling_dear_on_pipe_that_is_threaded(self):
        for kind, worth in ((Kind("EMT", "1"), 0.25), (Kind("rigid", "1"), 0.45)):
            self.assertAlmostEqual(CutTerms(thread=0.1).for_kind(kind).coupling, worth)
        # A scrap that saves a stick's worth of pipe is not worth the coupling then.
        run = stub("1", "1", 40, 70, material="rigid")
        rack = [ScrapOnRack("S1", run.kind, 50.0), ScrapOnRack("S2", run.kind, 62.0)]
        couplings = [chosen(listed([run], rack, CutTerms(thread=thread)))[0].couplings for thread in (0.0, 2.0)]
        self.assertEqual(couplings, [1, 0])

    def test_saw_cuts_and_the_ends_they_leave_to_ream_are_counted(self):
        """A stick of 120 for a piece of 100 and one of 20 less the blade: one cut, its two ends; a scrap's are sawn."""
        straights = [
            PlannedRun(str(at), "Feed", make_plan(document([], end, "1/2"))) for at, end in enumerate((100, 19.9375))
        ]
        source = chosen(listed(straights))[0].sources[0]
        self.assertEqual((len(source.cuts), source.saw_cuts, source.ream), (2, 1, 2))
        source = chosen(listed(straights[:1]))[0].sources[0]
        self.assertEqual((source.saw_cuts, source.ream), (1, 1))
        scrap = ScrapOnRack("S1", Kind("EMT", "1/2"), 100.0)
        source = chosen(listed(straights[:1], [scrap]))[0].sources[0]
        self.assertEqual((source.saw_cuts, source.ream), (0, 2), "it takes the scrap whole, whose ends were sawn")

    def test_only_what_changed_is_planned_anew(self):
        runs = [stub("1", "3/4", 40, 30), stub("2", "1", 40, 30)]
        first = listed(runs)
        more = [ScrapOnRack("S1", Kind("EMT", "1"), 80.0)]
        again = listed(runs, more, known=first.kinds)
        self.assertIs(again.kinds[0], first.kinds[0])
        self.assertEqual(chosen(again)[1].sticks, 0)
        before, after = digests(runs, [], CutTerms()), digests(runs, more, CutTerms())
        changed = {key for key in after if before.get(key) != after[key]}
        self.assertEqual(changed, {"rack", "1 EMT", "all"})


class Lists(TestCase):
    def test_a_rack_as_people_write_it(self):
        text = "3/4 EMT 41 3/8 x2 at bay 2\n# older\n1-1/4 rigid 5' 2\"\n1, 30 1/2\n"
        lines = list(read_scrap_list(text).lines.values())
        self.assertEqual([(one.trade_size, one.material, one.length) for one in lines[:1]], [("3/4", "EMT", 41.375)])
        self.assertEqual((lines[0].count, lines[0].place), (2, "bay 2"))
        self.assertEqual((lines[1].material, lines[1].length), ("rigid", 62.0))
        self.assertEqual((lines[2].trade_size, lines[2].length), ("1", 30.5))

    def test_a_line_is_read_however_its_parts_are_written_and_ordered(self):
        for line in (
            '3/4" EMT 41 3/8"',
            "¾ EMT 41⅜",
            "EMT 3/4 41 3/8",
            "3/4; EMT; 41 3/8",
            "3/4 in thinwall 3' 5-3/8\"",
            "3/4 41 and 3/8",
        ):
            [one] = read_scrap_list(line).lines.values()
            told = (one.trade_size, one.material, one.length, one.count, one.place)
            self.assertEqual(told, ("3/4", "EMT", 41.375, 1, ""), line)
        for line in (
            "2x 1-1/4 RMC 50 bay 2",
            "1 1/4 rigid 50 qty 2 at bay 2",
            "GRC 1¼ 50 x2 bay 2",
            "1 1/4 RGS 50 2 pcs, bay 2",
        ):
            [one] = read_scrap_list(line).lines.values()
            told = (one.trade_size, one.material, one.length, one.count, one.place)
            self.assertEqual(told, ("1-1/4", "rigid", 50, 2, "bay 2"), line)

    def test_a_rack_as_csv(self):
        text = "Trade size,material,length,place,end a\n3/4,EMT,41 3/8,bay 1,factory\n1,IMC,20,,\n"
        found = read_scrap_list(text)
        self.assertEqual(
            [(n, one.length, one.end_a) for n, one in found.lines.items()], [(2, 41.375, "factory"), (3, 20.0, "cut")]
        )

    def test_each_line_that_cannot_be_read_is_told(self):
        text = "3/4 EMT 41 3/8\n7/8 EMT 20\n3/4 EMT -5\n3/4 PVC 20\nhello\n3/4 EMT 20 x900"
        self.assertEqual([fault.line for fault in read_scrap_list(text).faults], [2, 3, 4, 5, 6])

    def test_what_to_bring(self):
        heavy = {**document([ninety(30, "up")], 40, "1/2"), "material": "IMC"}
        runs = [stub("1", "3/4", 100, 100), PlannedRun("2", "IMC", make_plan(heavy))]
        box = {"start": {"name": "KP"}, "end": {"open": True}}
        imc = runs[1].kind
        lines = bring_list(runs, {"1": box, "2": box}, {(imc, 120.0): 2}, {joined(runs[1]): 3, joined(runs[0]): 1})
        found = {(line.what, line.material): (line.count, line.note) for line in lines}
        self.assertEqual(found["coupling", "IMC"], (1, "threaded; 2 more come on the new sticks"))
        self.assertEqual(found["connector", "EMT"], (1, "set-screw"))
        self.assertEqual(found["bushing", "IMC"][0], 1)
        self.assertEqual(found["box", ""], (1, "KP: Stub 1, IMC"))
        wet = PlannedRun("3", "Yard", make_plan({**document([], 40), "joints": "compression"}))
        off = {**box, "stand_off": "9.525 mm"}
        lines = bring_list([wet, stub("1", "3/4", 30, 30)], {"3": off, "1": {**box, "stand_off": 0.375}}, {}, {})
        found = sorted((line.what, line.note, line.count) for line in lines if line.what in ("connector", "strap"))
        self.assertEqual(found[:2], [("connector", "compression", 1), ("connector", "set-screw", 1)])
        self.assertEqual([note for what, note, _ in found if what == "strap"], ["standing off 3/8"])
