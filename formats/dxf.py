"""DXF, by ezdxf: each pipe's centreline in space as lines and arcs, and front, plan and side beside it. Inches.

Layers: `CENTRELINE` (in space, a group for each run, named as the run), `FITTINGS` (a point where each sits), and for
each view `FRONT-PIPE`, `FRONT-BOX`, `FRONT-THING`, `FRONT-WALL`, `FRONT-COUPLING`, `FRONT-STRAP`, `FRONT-DIMENSIONS`
and `FRONT-NAMES`, with `PLAN-…` and `SIDE-…` alike.
"""

import io
from collections.abc import Iterator

import ezdxf
from ezdxf.document import Drawing
from ezdxf.entities import DXFEntity
from ezdxf.layouts import Modelspace
from ezdxf.math import OCS
from ezdxf.units import IN

from conduit.geometry import Vec
from formats.model import Arc, Part, Pipe, SpaceModel
from formats.views import LOOKS, At, Layer, Side, View, view_of

CENTRELINE, FITTINGS = "CENTRELINE", "FITTINGS"
# Colours by their number in the format: what is far is grey, what is bent is dark.
COLOURS: dict[Layer | str, int] = {
    "pipe": 7,
    "box": 5,
    "thing": 30,
    "wall": 9,
    "coupling": 3,
    "strap": 8,
    "dimensions": 6,
    "names": 7,
}
SPACE_BETWEEN = 24.0
TEXT_HIGH = 1.5
# How far from its pipe a dimension's line lies.
AWAY = 4.0


def write_dxf(model: SpaceModel) -> bytes:
    """A model as DXF (R2013), with its views right of the model, so that nothing lies upon another."""
    ezdxf.options.write_fixed_meta_data_for_testing = True
    document = ezdxf.new("R2013", setup=["linetypes"])
    document.units = IN
    document.header["$MEASUREMENT"] = 0
    space = document.modelspace()
    document.layers.add(CENTRELINE, color=1, linetype="CENTER")
    document.layers.add(FITTINGS, color=3)
    for number, pipe in enumerate(model.pipes, 1):
        _centreline(document, space, pipe, number)
    _views(document, space, model)
    text = io.StringIO()
    document.write(text)
    return text.getvalue().encode(document.output_encoding, "dxfreplace")


def _centreline(document: Drawing, space: Modelspace, pipe: Pipe, number: int) -> None:
    group = document.groups.new(f"RUN{number}", description=f"{pipe.name} {pipe.trade_size} {pipe.material}"[:250])
    with group.edit_data() as members:
        for part in pipe.parts:
            members.append(_entity(space, part))
    for one in pipe.fittings:
        space.add_point(one.point, dxfattribs={"layer": FITTINGS})


def _entity(space: Modelspace, part: Part) -> DXFEntity:
    layer = {"layer": CENTRELINE}
    if not isinstance(part, Arc):
        return space.add_line(part.start, part.end, dxfattribs=layer)
    # An arc lies in a plane of its own, square to its axis, where it turns counter-clockwise.
    ocs = OCS(part.axis)
    centre = ocs.from_wcs(part.centre)
    start, end = (ocs.from_wcs(at.minus(part.centre)) for at in (part.start, part.end))
    attributes = {**layer, "extrusion": part.axis}
    return space.add_arc(centre, part.radius, start.angle_deg, end.angle_deg, dxfattribs=attributes)


def _views(document: Drawing, space: Modelspace, model: SpaceModel) -> None:
    seen: dict[Side, View] = {side: view_of(model, side) for side in LOOKS}
    front, plan, side = seen["front"], seen["plan"], seen["side"]
    left = max(at.x for at in _corners(model)) + SPACE_BETWEEN
    low = min(at.y for at in _corners(model))
    moves: dict[Side, At] = {
        "front": (left - front.low[0], low - front.low[1]),
        "plan": (left - plan.low[0], low + front.size[1] + SPACE_BETWEEN - plan.low[1]),
        "side": (left + front.size[0] + SPACE_BETWEEN - side.low[0], low - side.low[1]),
    }
    for name, view in seen.items():
        _view(document, space, view, name.upper(), moves[name])


def _corners(model: SpaceModel) -> Iterator[Vec]:
    for pipe in model.pipes:
        yield from pipe.points()
    for surface in model.walls:
        yield from (Vec(*corner) for corner in surface.corners)


def _view(document: Drawing, space: Modelspace, view: View, name: str, move: At) -> None:
    def moved(at: At) -> At:
        return at[0] + move[0], at[1] + move[1]

    for layer, colour in COLOURS.items():
        document.layers.add(f"{name}-{layer.upper()}", color=colour)
    for outline in view.outlines:
        on = {"layer": f"{name}-{outline.layer.upper()}"}
        for ring in (outline.ring, *outline.holes):
            space.add_lwpolyline([moved(at) for at in ring[:-1]], close=True, dxfattribs=on)
    on = {"layer": f"{name}-DIMENSIONS"}
    for one in view.dimensions:
        start, end = moved(one.start), moved(one.end)
        drawn = space.add_aligned_dim(
            start, end, distance=AWAY, text=one.reads, override={"dimtxt": TEXT_HIGH, "dimasz": 1.0}, dxfattribs=on
        )
        drawn.render()
    for written in view.names:
        text = space.add_text(written.says, height=TEXT_HIGH, dxfattribs={"layer": f"{name}-NAMES"})
        text.set_placement(moved(written.at))
