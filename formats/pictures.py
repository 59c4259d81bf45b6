"""Pictures for paper and screen: the views of a model, a stick with its marks, a bar with its cuts."""

from collections.abc import Iterator

from formats.model import SpaceModel
from formats.paper import PaperBar, PaperStick
from formats.svg import StripMark, write_strip, write_view
from formats.views import Side, view_of

# Pixels on paper, 96 to the inch, that a stick and the views may take: the side stands beside the front.
WIDE = 680.0
ON_PAPER: dict[Side, tuple[float, float]] = {"front": (440.0, 330.0), "side": (215.0, 330.0), "plan": (680.0, 230.0)}


def views_of(model: SpaceModel) -> Iterator[tuple[Side, str]]:
    """Its views, each as a picture within a page."""
    for side, (wide, high) in ON_PAPER.items():
        yield side, inline(write_view(view_of(model, side), wide, high, measures=not model.is_job))


def strip_of_stick(stick: PaperStick) -> str:
    """A stick with its marks."""
    marks = [
        StripMark(bend.number, (bend.arc_start, bend.arc_end), bend.use.at.inches, bend.use.at.reads)
        for bend in sorted(stick.sheet.bends, key=lambda one: one.use.at.inches)
    ]
    return inline(write_strip(stick.sheet.cut.inches, stick.sheet.cut.reads, marks, WIDE))


def strip_of_bar(bar: PaperBar) -> str:
    """A bar with its cuts."""
    marks = [StripMark(number, (cut.start, cut.end), cut.end, cut.saw_at) for number, cut in enumerate(bar.cuts, 1)]
    return inline(write_strip(bar.length, bar.called, marks, WIDE))


def inline(svg: str) -> str:
    """An SVG file as it stands within a page."""
    return svg.split("?>", 1)[-1]
