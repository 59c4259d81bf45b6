from django.test import SimpleTestCase

from server.csv_out import csv_answer


class Cells(SimpleTestCase):
    def written(self, column, value):
        return csv_answer("table", [column], [{column: value}]).content.decode().splitlines()[1]

    def test_a_number_keeps_its_sign_and_nothing_else_begins_with_one(self):
        for value, cell in (
            ("-1/8", "-1/8"),
            ("+0.1°", "+0.1°"),
            (-3, "-3"),
            ("-3+4", "'-3+4"),
            ("+SUM(A1)", "'+SUM(A1)"),
            ("-SUM(A1)", "'-SUM(A1)"),
            ("=1", "'=1"),
            ("@now", "'@now"),
            ("-", "'-"),
        ):
            with self.subTest(value):
                self.assertEqual(self.written("note", value), cell)

    def test_a_length_has_its_unit(self):
        self.assertEqual(self.written("length", "71 1/2"), '"71 1/2"""')
        self.assertEqual(self.written("length", "=1"), "'=1")
