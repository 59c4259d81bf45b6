"""The drawings of docs/trade.md: each kind of bend as the core lays it out on the typical 3/4 shoe, with its marks."""

import sys
from pathlib import Path
from typing import Any

from conduit.geometry import Vec
from conduit.layout import Hindrance, points_along
from conduit.plan import check_run, plan_of

OVER = {"height": 3, "clear": 0.5}
# By name: the step, and how long the run goes on after it.
STEPS: dict[str, tuple[dict[str, Any], float]] = {
    "ninety": ({"kind": "bend", "turn": "up", "at": 14}, 10),
    "offset": ({"kind": "offset", "toward": "up", "rise": 4, "angle": 30, "ref": "starts_at", "at": 6}, 26),
    "box-offset": ({"kind": "box_offset", "surface": "down", "knockout": 1.5, "straight": 2}, 18),
    "saddle-of-three": (
        {"kind": "saddle3", "toward": "up", "over": {**OVER, "shape": "round"}, "angle": 45, "at": 16},
        32,
    ),
    "saddle-of-four": (
        {"kind": "saddle4", "toward": "up", "over": {**OVER, "shape": "box"}, "angle": 30, "near": 14, "width": 6},
        36,
    ),
    "kick": ({"kind": "kick90", "turn": "out", "toward": "up", "at": 22, "rise": 4, "kick_back": 12}, 8),
    "sweep": ({"kind": "sweep", "turn": "up", "at": 18, "radius": 12, "shots": 6}, 16),
}
SCALE, MARGIN = 14, 2.5


def _run(step: dict[str, Any], end: float) -> dict[str, Any]:
    return {"trade_size": "3/4", "start": {"heading": "right"}, "steps": [step], "end": {"at": end}}


def _thing(thing: Hindrance, place: Any) -> str:
    (x, y), size = place(thing.foot.along(thing.along, thing.near)), SCALE * thing.height
    wide = SCALE * (thing.far - thing.near)
    if thing.shape == "round":
        return f'<circle class="thing" cx="{x + wide / 2:.1f}" cy="{y - size / 2:.1f}" r="{size / 2:.1f}"/>'
    return f'<rect class="thing" x="{x:.1f}" y="{y - size:.1f}" width="{wide:.1f}" height="{size:.1f}"/>'


def drawing(name: str) -> str:
    """One drawing as SVG, seen from the front: the pipe in true proportion, where arrows go as if it were straight."""
    raw = _run(*STEPS[name])
    laid = check_run(raw)
    plan = plan_of(raw, laid)
    if not laid.layout or not laid.shoe:
        raise AssertionError(f"{name} cannot be laid out")
    lines = [point for line in points_along(laid.layout.path) for point in line]
    low = min(point.y for point in lines) - laid.shoe.diameter / 2
    high = max(point.y for point in lines)
    wide = max(max(point.x for point in lines), laid.layout.path.length)

    def place(point: Vec) -> tuple[float, float]:
        return SCALE * (point.x + MARGIN), SCALE * (high - point.y + MARGIN)

    pipe = " ".join(f"{x:.1f},{y:.1f}" for x, y in map(place, lines))
    below = SCALE * (high - low + MARGIN + 3)
    straight, across = SCALE * MARGIN, SCALE * laid.shoe.diameter
    things = "".join(_thing(one, place) for one in laid.layout.hindrances)
    marks = "".join(
        f'<path class="mark" d="M{straight + SCALE * bend.use.at.inches:.1f} {below - across / 2:.1f}v{across:.1f}"/>'
        f'<text x="{straight + SCALE * bend.use.at.inches:.1f}" y="{below + 24:.1f}">{bend.use.at.reads}</text>'
        for bend in plan.pieces[0].bends
    )
    size = f"{SCALE * (wide + 2 * MARGIN):.0f} {below + 36:.0f}"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {size}">\n'
        "<style>.pipe{fill:none;stroke:#8a94a0;stroke-linejoin:round}.thing{fill:#e7d9c3;stroke:#7c5b2b}"
        ".mark{stroke:#5b2153;stroke-width:2}text{font:12px sans-serif;text-anchor:middle;fill:#20242a}</style>\n"
        f'{things}<polyline class="pipe" stroke-width="{across:.1f}" points="{pipe}"/>\n'
        f'<path class="pipe" stroke-width="{across:.1f}" d="M{straight} {below:.1f}h{SCALE * plan_length(plan):.1f}"/>'
        f"{marks}\n</svg>\n"
    )


def plan_length(plan: Any) -> float:
    """The straight pipe that a run takes, in inches."""
    return float(plan.developed_length.inches)


if __name__ == "__main__":
    folder = Path(sys.argv[1])
    folder.mkdir(exist_ok=True)
    for name in STEPS:
        (folder / f"{name}.svg").write_text(drawing(name))
