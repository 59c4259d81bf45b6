"""The house: a room is entered by its door, and one class name stands for one thing."""

import ast
from collections import defaultdict
from pathlib import Path
from unittest import TestCase

ROOT = Path(__file__).parents[2]
CORE = ROOT / "conduit"
SOURCES = [
    path
    for part in ("conduit", "cli", "server")
    for path in sorted((ROOT / part).rglob("*.py"))
    if "tests" not in path.parts and "migrations" not in path.parts
]


def name_of(path):
    return ".".join(path.relative_to(ROOT).with_suffix("").parts).removesuffix(".__init__")


ROOMS = {name_of(path) for path in CORE.rglob("__init__.py") if "tests" not in path.parts} - {"conduit"}


def room_of(module):
    """The innermost room that a module is in, or nothing."""
    return max((room for room in ROOMS if module == room or module.startswith(f"{room}.")), key=len, default="")


class Rooms(TestCase):
    def test_other_rooms_enter_by_the_door(self):
        deep = []
        for path in SOURCES:
            me = name_of(path)
            for node in ast.walk(ast.parse(path.read_text())):
                module = node.module if isinstance(node, ast.ImportFrom) else None
                room = room_of(module or "")
                if room and module != room and not f"{me}.".startswith(f"{room}."):
                    deep.append(f"{me}: {module}")
        self.assertEqual(deep, [])

    def test_each_door_says_what_is_behind_it(self):
        for room in ROOMS:
            told = ast.get_docstring(ast.parse((ROOT / room.replace(".", "/") / "__init__.py").read_text()))
            for word in ("Knows", "Gives", "Never imports|Imports nothing"):
                self.assertTrue(any(part in told for part in word.split("|")), f"{room}: {word}")

    def test_a_class_name_stands_once(self):
        homes = defaultdict(set)
        for path in SOURCES:
            if CORE in path.parents:
                for node in ast.parse(path.read_text()).body:
                    if isinstance(node, ast.ClassDef):
                        homes[node.name.lstrip("_")].add(name_of(path))
        self.assertEqual({name: sorted(found) for name, found in homes.items() if len(found) > 1}, {})

    def test_files_stay_short(self):
        long = {name_of(path): count for path in SOURCES if (count := len(path.read_text().splitlines())) > 400}
        self.assertEqual(long, {})
