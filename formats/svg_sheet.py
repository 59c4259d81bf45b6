"""One SVG of all views of a model and the sticks of its run, or of one of them."""

from collections.abc import Sequence

import drawsvg

from formats.model import SpaceModel
from formats.paper import PaperStick
from formats.pictures import inline, strip_of_stick
from formats.svg import svg_text, write_view
from formats.views import LOOKS, view_of

BETWEEN = 24.0


def svg_sheet(model: SpaceModel, part: str, sticks: Sequence[PaperStick]) -> bytes:
    """`part`: a view's name, `sticks`, or `sheet` for all of it, one below another."""
    views = {
        side: write_view(view_of(model, side), measures=not model.is_job) for side in LOOKS if part in (side, "sheet")
    }
    if part in views:
        return views[part].encode()
    return _below_each_other([*map(inline, views.values()), *map(strip_of_stick, sticks)]).encode()


def _below_each_other(pictures: Sequence[str]) -> str:
    sizes = [_size(picture) for picture in pictures]
    wide = max((width for width, _ in sizes), default=1.0)
    sheet = drawsvg.Drawing(wide, sum(high + BETWEEN for _, high in sizes) or 1.0)
    at = 0.0
    for picture, (_, high) in zip(pictures, sizes, strict=True):
        place = drawsvg.Group(transform=f"translate(0,{at:g})")
        place.append(drawsvg.Raw(picture))
        sheet.append(place)
        at += high + BETWEEN
    return svg_text(sheet)


def _size(picture: str) -> tuple[float, float]:
    """Width and height as an SVG says them of itself."""
    head = picture[: picture.index(">")]
    width, height = (float(head.split(f'{name}="', 1)[1].split('"', 1)[0]) for name in ("width", "height"))
    return width, height
