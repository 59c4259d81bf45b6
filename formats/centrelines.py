"""Runs from centrelines, as a drawing, a model, surveyed points or a bending machine's table say them."""

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import replace
from importlib import import_module
from typing import Any

from conduit.bender import Shoe
from conduit.catalogue import Message
from conduit.document import UnreadableDocument
from conduit.geometry import Vec
from conduit.plan import check_run
from conduit.tables import OUTSIDE_DIAMETER, TRADE_SIZES, Limits
from conduit.units import INCH_TAPE
from formats.brought import MOST_RUNS, Brought, BroughtRun, Meant, UnreadableFile
from formats.corners import NotARun, run_of
from formats.raised import Drawn
from formats.solids import Solid, hit_by
from formats.words import message

# Another radius is told from so much on, in inches.
OTHER_RADIUS = 1 / 16
# A model's pipe is of the size whose outside it has, to so much.
SAME_OUTSIDE = 1 / 64
_PIPE = re.compile(rf"(.*?) ?({'|'.join(map(re.escape, TRADE_SIZES))}) (EMT|IMC|rigid)")


def of_drawing(data: bytes, meant: Meant, limits: Limits) -> Brought:
    """The runs in a drawing (DXF). Raises UnreadableFile."""
    dxf = import_module("formats.dxf_in")
    try:
        drawing = dxf.read_dxf(data, meant.layer, meant.inches, meant.up)
    except dxf.UnreadableDrawing as error:
        raise UnreadableFile(error.says, "unit" if isinstance(error, dxf.UnitNotSaid) else "") from error
    lines = [
        (chain.parts[0], centreline(about(name, meant), chain.points, chain.radii, limits))
        for name, chain in drawing.chains[:MOST_RUNS]
    ]
    return brought_of(lines, drawing.passed_over)


def of_model(data: bytes, meant: Meant, limits: Limits) -> Brought:
    """The runs in a model (IFC), each with the things that its saddles go over. Raises UnreadableFile."""
    ifc = import_module("formats.ifc_in")
    try:
        model = ifc.read_ifc(data, meant.things)
    except ifc.UnreadableModel as error:
        raise UnreadableFile(error.says) from error
    lines = []
    for carrier, chain in model.chains[:MOST_RUNS]:
        size, material = carrier.trade_size, carrier.material
        if (size, material) not in _KNOWN:
            size, material = _by_outside(carrier.diameter, meant)
        of_it = about(carrier.name, replace(meant, trade_size=size, material=material))
        ends = tuple(ifc.box_at(point, model.boxes) for point in (chain.points[0], chain.points[-1]))
        lines.append((chain.parts[0], centreline(of_it, chain.points, chain.radii, limits, model.things, ends)))
    return brought_of(lines, model.passed_over)


_KNOWN = {(size, material) for material, sizes in OUTSIDE_DIAMETER.items() for size in sizes}


def _by_outside(diameter: float | None, meant: Meant) -> tuple[str, str]:
    """The pipe that is so thick; of the material that is meant, if it has such a size. What is meant, if none has."""
    same = [
        (abs(outside - diameter), material != meant.material, size, material)
        for material, sizes in OUTSIDE_DIAMETER.items()
        for size, outside in sizes.items()
        if diameter and abs(outside - diameter) < SAME_OUTSIDE
    ]
    best = min(same, key=lambda one: (one[1], one[0]), default=None)
    return best[2:] if best else (meant.trade_size, meant.material)


def about(name: str, meant: Meant) -> dict[str, Any]:
    """A run's name and pipe, as we write both into a drawing; else as they are meant."""
    ours = _PIPE.fullmatch(name)
    called, size, material = ours.groups() if ours else (name, meant.trade_size, meant.material)
    return {"name": called[:80], "trade_size": size, "material": material}


def centreline(
    of_it: Mapping[str, Any],
    points: Sequence[Vec],
    radii: Sequence[float],
    limits: Limits,
    things: Sequence[Solid] = (),
    ends: Sequence[str] = ("", ""),
) -> BroughtRun | NotARun:
    """A run by its corners, with what to look at; or why it is none. `ends`: the boxes where it ends."""
    shoe = shoe_of(of_it, limits)
    diameter = shoe.diameter if shoe else 0.0
    radius = radii[0] if radii else shoe.radius if shoe else 0.0
    try:
        document = run_of(points, of_it, Drawn(radius, diameter, things))
    except NotARun as error:
        return error
    for end, name in zip(("start", "end"), ends, strict=True):
        if name:
            document[end]["name"] = name
    hits = [
        message("import.runs_into", thing=solid.name, at=INCH_TAPE.shows(at))
        for solid, at in hit_by(points, diameter, things)
    ]
    return BroughtRun(document, (*_radius_told(shoe, radii), *hits))


def shoe_of(of_it: Mapping[str, Any], limits: Limits) -> Shoe | None:
    """The usual shoe for a pipe."""
    try:
        return check_run(of_it, limits).shoe
    except UnreadableDocument:
        return None


def _radius_told(shoe: Shoe | None, radii: Sequence[float]) -> Iterator[Message]:
    """That the arcs were drawn with another radius than the shoe's: the corners count, the pipe is the shoe's."""
    other = next((one for one in radii if shoe and abs(one - shoe.radius) > OTHER_RADIUS), None)
    if shoe and other:
        yield message("import.other_radius", drawn=INCH_TAPE.shows(other), own=INCH_TAPE.shows(shoe.radius))


def brought_of(
    lines: Iterable[tuple[str, BroughtRun | NotARun]], passed_over: Iterable[tuple[str, Message]]
) -> Brought:
    """What became of each line; `lines`: where each stands, with it."""
    runs, passed = list[BroughtRun](), [*passed_over]
    for where, one in lines:
        if isinstance(one, NotARun):
            passed.append((where, one.says))
        else:
            runs.append(one)
    return Brought(tuple(runs), tuple(passed))
