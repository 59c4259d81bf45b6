"""The picture of docs/architecture.md: the rooms of the core on their floors, and who enters whom, from the imports."""

import ast
import sys
from functools import cache
from pathlib import Path

CORE = Path(__file__).parents[1] / "conduit"
BOX, HIGH, GAP, FLOOR = 132, 40, 24, 92


def _room(module: str) -> str:
    return module.split(".")[1] if module.startswith("conduit.") else ""


@cache
def arrows() -> dict[str, set[str]]:
    """Each room (or module at the root) with those that it imports."""
    found: dict[str, set[str]] = {}
    for path in CORE.rglob("*.py"):
        parts = path.relative_to(CORE).with_suffix("").parts
        if parts[0] in ("tests", "__init__"):
            continue
        used = {
            _room(node.module or "")
            for node in ast.walk(ast.parse(path.read_text()))
            if isinstance(node, ast.ImportFrom)
        }
        found.setdefault(parts[0], set()).update(used - {"", parts[0]})
    return found


@cache
def _floor(room: str) -> int:
    return 1 + max((_floor(below) for below in arrows()[room]), default=-1)


@cache
def _under(room: str) -> set[str]:
    """All that a room stands on."""
    return arrows()[room].union(*(_under(below) for below in arrows()[room]))


def _told(room: str) -> list[str]:
    """The rooms that one imports and no other that it imports stands on: the rest follows."""
    own = arrows()[room]
    return sorted(below for below in own if not any(below in _under(other) for other in own))


def picture() -> str:
    """The rooms as SVG, the ground floor below: lines go down to what is imported; what follows is left out."""
    floors: dict[int, list[str]] = {}
    for room in sorted(arrows()):
        floors.setdefault(_floor(room), []).append(room)
    wide = max(len(rooms) for rooms in floors.values()) * (BOX + GAP) + GAP
    high = len(floors) * FLOOR
    place = {
        room: ((wide - len(rooms) * (BOX + GAP) + GAP) / 2 + number * (BOX + GAP), high - (floor + 1) * FLOOR + GAP)
        for floor, rooms in floors.items()
        for number, room in enumerate(rooms)
    }
    lines = "".join(
        f'<path d="M{place[room][0] + BOX / 2:.0f} {place[room][1] + HIGH:.0f}'
        f'L{place[below][0] + BOX / 2:.0f} {place[below][1]:.0f}"/>'
        for room in sorted(arrows())
        for below in _told(room)
    )
    boxes = "".join(
        f'<rect x="{x:.0f}" y="{y:.0f}" width="{BOX}" height="{HIGH}" rx="4"/>'
        f'<text x="{x + BOX / 2:.0f}" y="{y + 25:.0f}">{room}</text>'
        for room, (x, y) in sorted(place.items())
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {wide} {high}">\n'
        "<style>path{stroke:#8a94a0;fill:none}rect{fill:#f4eef3;stroke:#5b2153}"
        "text{font:15px sans-serif;text-anchor:middle;fill:#20242a}</style>\n"
        f"{lines}\n{boxes}\n</svg>\n"
    )


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(picture())
