"""A rack on the floor: the squared line, the marks, and the stages of bending."""

from unittest import TestCase

from conduit.bending import Bencher
from conduit.racks import FloorRun, floor_of, members_of
from conduit.tests.racks.test_racks import rack
from conduit.tests.support import document, ninety, offset


def on_floor(raw):
    """The rack's sticks."""
    return floor_of([FloorRun(one.number, one.raw, len(one.taken)) for one in members_of(raw).pipes if not one.free])


class OnTheFloor(TestCase):
    def kicked(self):
        turn = ninety(60, "out", rack={"how": "kicks", "after": "up"})
        return rack(document([turn], 30), "in", *["3/4"] * 7, spacing=2)

    def test_equal_90s_lie_flush_and_are_bent_with_one_setting(self):
        [stick] = on_floor(rack(document([ninety(60, "up")], 50), "out", *["3/4"] * 3))
        self.assertTrue(stick.line.flush)
        self.assertEqual([pipe.ahead.inches for pipe in stick.pipes], [0, 0, 0, 0])
        self.assertEqual([(stage.what, stage.same, len(stage.items)) for stage in stick.stages], [("90", True, 4)])

    def test_the_line_is_square_and_the_kicks_make_a_diagonal(self):
        raw = self.kicked()
        [stick] = on_floor(raw)
        self.assertFalse(stick.line.flush)
        for pipe, member in zip(stick.pipes, members_of(raw).pipes, strict=True):
            star = next(
                mark.at.inches
                for bend in Bencher(member.raw).sheet(1).bends
                for mark in bend.marks
                if (bend.angle, mark.reference, mark.hook) == (90, "star", "A")
            )
            self.assertAlmostEqual(pipe.ahead.inches + star, stick.line.at, 9)
        kicks = [(pipe.ahead.inches + mark.at.inches) for pipe in stick.pipes for mark in pipe.marks if mark.lifts]
        self.assertEqual(sorted(kicks, reverse=True), kicks)
        self.assertEqual(len(kicks), 7)

    def test_all_90s_are_bent_first_and_then_the_kicks_from_small_to_large(self):
        [stick] = on_floor(self.kicked())
        turns, kicks = stick.stages
        self.assertEqual((turns.what, [item.pipe for item in turns.items]), ("90", [1, 2, 3, 4, 5, 6, 7, 8]))
        self.assertEqual((kicks.what, [item.lifts.inches for item in kicks.items]), ("kick", [2, 4, 6, 8, 10, 12, 14]))

    def test_the_card_s_marks_stand_beside_with_what_they_cost(self):
        [stick] = on_floor(self.kicked())
        pipes = stick.pipes
        self.assertTrue(all(mark.card and mark.card.off is not None for pipe in pipes for mark in pipe.marks))
        self.assertLess(pipes[0].marks[0].card.off.inches, 1 / 16)
        missed = [
            next(one.miss_reads for one in Bencher(member.raw).plan.simulated if one.marks == "card")
            for member in members_of(self.kicked()).pipes
        ]
        self.assertEqual([pipe.card_miss_reads for pipe in pipes], missed)
        self.assertNotEqual(missed[0], missed[-1])
        swept = {"kind": "sweep", "turn": "up", "at": 60, "angle": 60, "radius": 30, "shots": 6}
        [stick] = on_floor(rack(document([swept], 40), "up", "3/4", gap=2))
        self.assertIsNone(stick.pipes[0].marks[0].card)
        self.assertIsNone(stick.pipes[0].card_miss_reads)

    def test_sizes_come_in_turn_on_their_own_shoes(self):
        [stick] = on_floor(rack(document([offset(20, 4), ninety(70, "up")], 30), "out", "1/2", "3/4", "1/2"))
        self.assertEqual({(stage.trade_size, len(stage.items)) for stage in stick.stages}, {("3/4", 2), ("1/2", 2)})
        bent = [(item.pipe, item.bend) for stage in stick.stages for item in stage.items]
        self.assertEqual(sorted(bent), [(pipe, bend) for pipe in (1, 2, 3, 4) for bend in (1, 2, 3)])

    def test_sticks_lie_by_number_and_a_pipe_that_left_is_bent_by_itself(self):
        own = {"leaves": 1, "steps": [ninety(30, "down")], "end": {"at": 20}}
        raw = rack(document([ninety(60, "out"), ninety(80, "right")], 60), "up", "3/4", own, gap=3)
        first, second = on_floor(raw)
        self.assertEqual([pipe.number for pipe in first.pipes], [1, 2, 3])
        self.assertNotIn(3, [pipe.number for pipe in second.pipes])
        alone = [stage for stage in first.stages if stage.step is None]
        self.assertEqual([[item.pipe for item in stage.items] for stage in alone], [[3]])

    def test_what_cannot_be_bent_does_not_lie_there(self):
        self.assertEqual(on_floor(rack(document([ninety(2, "up")], 50), "out", "3/4")), [])
