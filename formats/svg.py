"""SVG, by drawsvg: a view of a model, and a stick as it lies on the bench with its pencil marks. True to scale.

Figures stand in `<text>` as the tape reads them; the drawing's own unit is a pixel, `PIXELS` of them an inch.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import drawsvg

from formats.views import At, Layer, Outline, View

INK, GRAPHITE, ZINC, ACCENT = "#20242a", "#4a5058", "#c9ced6", "#5b2153"
FILLS: dict[Layer, tuple[str, str]] = {
    "wall": ("#f3f4f6", "#c9ced6"),
    "thing": ("#e7d9c3", "#7c5b2b"),
    "box": ("#dde2ea", "#4a5058"),
    "pipe": ("#aeb6c0", INK),
    "coupling": ("#7d8691", INK),
    "strap": ("#8f98a3", GRAPHITE),
}
FONT = "Inter, sans-serif"
# Where a point of a view lies in the drawing.
Placing = Callable[[At], At]
TEXT, MARGIN, AWAY = 14.0, 40.0, 22.0
MOST_AWAY = 6 * AWAY
# A label's width by its letters.
LETTER = 0.58
MOST_PIXELS_AN_INCH = 14.0


def write_view(view: View, width: float = 900.0, most_high: float = 900.0, measures: bool = True) -> str:
    """A view as a picture of at most this width and height in pixels; `measures`: with its dimensions."""
    wide, high = (max(size, 1.0) for size in view.size)
    scale = min((width - 2 * MARGIN) / wide, (most_high - 2 * MARGIN) / high, MOST_PIXELS_AN_INCH)
    drawing = drawsvg.Drawing(wide * scale + 2 * MARGIN, high * scale + 2 * MARGIN, id_prefix=view.side)

    def place(at: At) -> At:
        return MARGIN + (at[0] - view.low[0]) * scale, MARGIN + (view.high[1] - at[1]) * scale

    for outline in view.outlines:
        drawing.append(_outline(outline, place))
    for line in view.centrelines:
        points = [value for at in line for value in place(at)]
        drawing.append(
            drawsvg.Lines(*points, fill="none", stroke=GRAPHITE, stroke_width=0.7, stroke_dasharray="10 3 2 3")
        )
    labels = _Labels()
    for name in view.names:
        at = labels.room_for(*place(name.at), name.says, drawing.width)
        if at:
            labels.take(*at, name.says)
            _label(drawing, name.says, at, INK, 0.75)
    middle = place(((view.low[0] + view.high[0]) / 2, (view.low[1] + view.high[1]) / 2))
    for one in view.dimensions if measures else ():
        _dimension(drawing, one.reads, (place(one.start), place(one.end)), middle, labels)
    _hold(drawing, labels)
    return svg_text(drawing)


def _hold(drawing: drawsvg.Drawing, labels: "_Labels") -> None:
    """Make it as large as what is written beside the pipe needs."""
    corners = [corner for x, y, wide in labels.taken for corner in ((x - wide / 2, y - TEXT), (x + wide / 2, y + TEXT))]
    xs, ys = ([*(corner[axis] for corner in corners), 0.0] for axis in (0, 1))
    left, top = min(xs), min(ys)
    drawing.width, drawing.height = max(*xs, drawing.width) - left, max(*ys, drawing.height) - top
    drawing.view_box = left, top, drawing.width, drawing.height


def _outline(outline: Outline, place: Placing) -> drawsvg.Path:
    fill, stroke = FILLS[outline.layer]
    path = drawsvg.Path(fill=fill, stroke=stroke, stroke_width=1, fill_rule="evenodd", class_=outline.layer)
    for ring in (outline.ring, *outline.holes):
        first, *others = [place(at) for at in ring]
        path.M(*first)
        for at in others:
            path.L(*at)
        path.Z()
    return path


class _Labels:
    """What is written already, so that nothing is written upon it."""

    def __init__(self) -> None:
        self.taken = list[tuple[float, float, float]]()

    def take(self, x: float, y: float, says: str) -> None:
        """What says this stands there."""
        self.taken.append((x, y, _width(says)))

    def room_for(self, x: float, y: float, says: str, width: float) -> At | None:
        """Where a name can stand, on its thing or a few lines above or below it; None: it is left out."""
        half = _width(says) / 2
        inside = min(max(x, half), max(width - half, half))
        tries = (inside, y), *((inside, y + lines * (TEXT + 3)) for lines in (-1, 1, -2, 2, -3, 3))
        return next((at for at in tries if self.is_free(*at, says)), None)

    def is_free(self, x: float, y: float, says: str) -> bool:
        """Whether it can stand there."""
        wide = _width(says)
        return not any(abs(x - at) < (wide + other) / 2 and abs(y - high) < TEXT + 2 for at, high, other in self.taken)


def _width(says: str) -> float:
    return len(says) * TEXT * LETTER


def _dimension(drawing: drawsvg.Drawing, reads: str, ends: tuple[At, At], middle: At, labels: _Labels) -> None:
    """A measure's line on the outer side of what it measures; where something is written there, further off."""
    (ax, ay), (bx, by) = ends
    length = math.hypot(bx - ax, by - ay)
    if length < 1:
        return
    nx, ny = (by - ay) / length, -(bx - ax) / length
    if nx * (middle[0] - (ax + bx) / 2) + ny * (middle[1] - (ay + by) / 2) > 0:
        nx, ny = -nx, -ny
    away = AWAY
    while away < MOST_AWAY and not labels.is_free((ax + bx) / 2 + nx * away, (ay + by) / 2 + ny * away, reads):
        away += TEXT + 4
    x, y = (ax + bx) / 2 + nx * away, (ay + by) / 2 + ny * away
    labels.take(x, y, reads)
    line = [(ax + nx * away, ay + ny * away), (bx + nx * away, by + ny * away)]
    for (x0, y0), (x1, y1) in zip(ends, line, strict=True):
        drawing.append(drawsvg.Line(x0, y0, x1 + nx * 4, y1 + ny * 4, stroke=ACCENT, stroke_width=0.6, opacity=0.6))
    drawing.append(drawsvg.Line(*line[0], *line[1], stroke=ACCENT, stroke_width=1))
    _label(drawing, reads, (x, y), ACCENT, 0.9)


def _label(drawing: drawsvg.Drawing, says: str, at: At, colour: str, opacity: float) -> None:
    """What is written about a place, on a light ground of its own: it is read across the pipe too."""
    (x, y), wide = at, _width(says) + 4
    ground = drawsvg.Rectangle(x - wide / 2, y - TEXT / 2 - 1, wide, TEXT + 2, fill="#ffffff", opacity=opacity)
    drawing.append(ground)
    drawing.append(_text(says, x, y + TEXT / 3, fill=colour, font_weight="600"))


@dataclass(frozen=True)
class StripMark:
    """A pencil mark on a stick: the bend's number, where its arc lies, where the mark is and how that reads. Inches."""

    number: int
    arc: tuple[float, float]
    at: float
    reads: str


def write_strip(length: float, reads: str, marks: Sequence[StripMark], width: float = 680.0) -> str:
    """A stick as it lies on the bench: end A a square, end B a circle, bends numbered, each mark with its figure."""
    side, top, high = 30.0, 8.0, 20.0
    scale = (width - 2 * side) / length
    rows = _rows([(side + mark.at * scale, _wide(mark)) for mark in marks], width)
    deepest = max((row for row, _ in rows), default=-1)
    drawing = drawsvg.Drawing(width, top + high + 12 + 18 * (deepest + 1), id_prefix="strip")
    drawing.append(drawsvg.Title(reads))
    drawing.append(drawsvg.Rectangle(side, top, length * scale, high, fill="#dfe3e8", stroke=INK, stroke_width=1))
    for mark in marks:
        begin, end = mark.arc
        drawing.append(
            drawsvg.Rectangle(side + begin * scale, top + 1, (end - begin) * scale, high - 2, fill="#b3aab6")
        )
    drawing.append(drawsvg.Rectangle(side - 22, top + 2, 16, 16, fill="none", stroke=INK, stroke_width=1.4))
    drawing.append(_text("A", side - 14, top + 15, fill=INK, font_weight="700"))
    drawing.append(drawsvg.Circle(width - side + 14, top + 10, 8.5, fill="none", stroke=INK, stroke_width=1.4))
    drawing.append(_text("B", width - side + 14, top + 15, fill=INK, font_weight="700"))
    for mark, (row, begin) in zip(marks, rows, strict=True):
        x, y = side + mark.at * scale, top + high + 20 + 18 * row
        drawing.append(drawsvg.Line(x, top - 3, x, top + high + 3, stroke=INK, stroke_width=1.6))
        drawing.append(drawsvg.Line(x, top + high + 3, x, y, stroke=INK, stroke_width=0.8))
        says = f"{mark.number}: {mark.reads}"
        drawing.append(_text(says, begin + 4, y, fill=INK, font_weight="600", font_size=12, text_anchor="start"))
    return svg_text(drawing)


def _wide(mark: StripMark) -> float:
    return 12 * LETTER * (len(mark.reads) + len(str(mark.number)) + 3)


def _rows(labels: Sequence[tuple[float, float]], width: float) -> list[tuple[int, float]]:
    """For labels at these places from the left, so wide, the row and where each begins; none lies on another.

    From the right on, each in the first row that is free, so that no mark's line down to its label crosses another's.
    """
    starts, placed = list[float](), list[tuple[int, float]]()
    for at, wide in reversed(labels):
        begin = min(at, width - wide)
        row = next((row for row, start in enumerate(starts) if begin + wide <= start), len(starts))
        starts[row : row + 1] = [begin]
        placed.append((row, begin))
    return placed[::-1]


def _text(says: str, x: float, y: float, **style: object) -> drawsvg.Text:
    return drawsvg.Text(
        says,
        style.pop("font_size", TEXT),
        x,
        y,
        text_anchor=style.pop("text_anchor", "middle"),
        font_family=FONT,
        style="font-feature-settings:'frac','tnum'",
        **style,
    )


def svg_text(drawing: drawsvg.Drawing) -> str:
    """A drawing as a file."""
    return str(drawing.as_svg(header='<?xml version="1.0" encoding="UTF-8"?>\n'))
