"""Text from outside is read in time that grows with its length alone, whatever stands in it."""

from contextlib import suppress
from unittest import TestCase

from conduit.cutting import read_scrap_list
from conduit.notes import read_note
from conduit.tests.support import assert_linear
from conduit.units import UnreadableAngle, UnreadableLength, parse_angle, parse_length, parse_signed_length

HEADS = ("offset out 1", "rolled offset out 1", "saddle", "90 right", "start", "end", "pipe 3/4", "pull point", "")
PARTS = (" ", '"', " at", " and right 1", ", at", " over round 1", "#", ",", "1/", "x", "\t")


class Linear(TestCase):
    def test_notes(self):
        for head in HEADS:
            for part in PARTS:
                with self.subTest(f"{head} | {part}"):
                    assert_linear(self, read_note, lambda count, h=head, p=part: h + p * count + "!")
                    assert_linear(self, read_note, lambda count, h=head, p=part: f"{h}{p * 60}!\n" * (count // 400))

    def test_rack_lists(self):
        for head in ("3/4 EMT 1", "3/4", "3/4 in", "length\n", "length,size\n"):
            for part in (" ", ",", ";", " at", " x2", "\t", '"', "1", "@ ", "\n", ',"\n'):
                with self.subTest(f"{head} | {part}"):
                    assert_linear(self, read_scrap_list, lambda count, h=head, p=part: h + p * count + "!")

    def test_figures(self):
        def read(text):
            for parse in (parse_length, parse_angle, parse_signed_length):
                with suppress(UnreadableLength, UnreadableAngle):
                    parse(text)

        for part in ("1", " ", "1 ", "'", "½", "-", "1/", "ft ", "°", "."):
            with self.subTest(part):
                assert_linear(self, read, lambda count, p=part: "1" + p * count)
