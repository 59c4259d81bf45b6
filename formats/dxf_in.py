"""DXF read, by ezdxf: lines, arcs and polylines become runs; what was not understood is told by its entity."""

import io
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import islice
from typing import Any, Literal

from ezdxf import recover, units
from ezdxf.lldxf.const import DXFError

from conduit.catalogue import Message
from conduit.geometry import Vec
from formats.chains import Chain, DrawnPart, arc_part, chains_of
from formats.dxf import CENTRELINE
from formats.refusal import Refusal
from formats.words import message

# What is looked at: of a larger file nothing is.
MOST_BYTES, MOST_ENTITIES = 32 * 2**20, 20_000
Up = Literal["y", "z"]


class UnreadableDrawing(Refusal):
    """It is no drawing that can be read; the message says why."""


class UnitNotSaid(UnreadableDrawing):
    """It can be read once its unit is said."""


@dataclass(frozen=True)
class Drawing:
    """What was read: lines with the name of each where the drawing has one, and what was passed over, with why.

    `inches`: how many of them one of the drawing's units is; `up`: which of its axes was taken for up.
    """

    chains: tuple[tuple[str, Chain], ...]
    passed_over: tuple[tuple[str, Message], ...]
    inches: float
    up: Up


def read_dxf(data: bytes, layer: str = "", inches: float | None = None, up: Up | None = None) -> Drawing:
    """The centrelines in a drawing: of the layer named, else of `CENTRELINE`, else of all of it.

    `inches`: of its units, where it does not say them itself; `up`: as we write it, else z, as most do. Raises
    UnreadableDrawing, of which UnitNotSaid where it does not say its unit and `inches` does not either.
    """
    if len(data) > MOST_BYTES:
        raise UnreadableDrawing(message("import.too_large", most=MOST_BYTES // 2**20))
    try:
        document, _ = recover.read(io.BytesIO(data))
    except (DXFError, OSError, ValueError, KeyError, IndexError, TypeError, AttributeError, RecursionError) as error:
        raise UnreadableDrawing(message("import.no_dxf")) from error
    own = any(entity.dxf.layer == CENTRELINE for entity in document.modelspace())
    wanted = layer or (CENTRELINE if own else "")
    upward: Up = up or ("y" if own else "z")
    entities = [one for one in document.modelspace() if not wanted or one.dxf.layer == wanted]
    if len(entities) > MOST_ENTITIES:
        raise UnreadableDrawing(message("import.too_many", most=MOST_ENTITIES))
    # Of an empty drawing nothing is asked.
    unit = inches or (_unit(document) if entities else 1.0)
    named = _names(document)
    by_name: dict[str, list[DrawnPart]] = {}
    passed, count = list[tuple[str, Message]](), 0
    for entity in entities:
        found = list(islice(_parts(entity), MOST_ENTITIES + 1))
        count += len(found)
        if count > MOST_ENTITIES:
            raise UnreadableDrawing(message("import.too_many", most=MOST_ENTITIES))
        if not found:
            passed.append((_called(entity), message("import.not_a_line")))
        for part in found:
            moved = _moved(part, unit, upward)
            if moved:
                by_name.setdefault(named.get(entity.dxf.handle, ""), []).append(moved)
            else:
                passed.append((part.called, message("import.half_round")))
    chains = list[tuple[str, Chain]]()
    for name, parts in by_name.items():
        joined, refused = chains_of(parts)
        chains += [(name, chain) for chain in joined]
        passed += refused
    return Drawing(tuple(chains), tuple(passed), unit, upward)


def _unit(document: Any) -> float:
    """How many inches a unit is. Raises UnitNotSaid."""
    if not document.units:
        raise UnitNotSaid(message("import.which_unit"))
    return float(units.conversion_factor(document.units, units.IN))


def _names(document: Any) -> dict[str, str]:
    """Of entities in groups that we wrote, the run's name and pipe."""
    return {
        entity.dxf.handle: group.dxf.description for _, group in document.groups for entity in group if entity.is_alive
    }


@dataclass(frozen=True)
class _Raw:
    """An entity's part in the drawing's own units and axes; an arc by its middle and centre."""

    called: str
    start: Vec
    end: Vec
    middle: Vec | None = None
    centre: Vec | None = None


def _called(entity: Any) -> str:
    return f"{entity.dxftype()} {entity.dxf.handle}"


def _parts(entity: Any) -> Iterator[_Raw]:
    called = _called(entity)
    if entity.dxftype() == "LINE":
        yield _Raw(called, Vec(*entity.dxf.start), Vec(*entity.dxf.end))
    elif entity.dxftype() == "ARC":
        middle = entity.dxf.start_angle + ((entity.dxf.end_angle - entity.dxf.start_angle) % 360) / 2
        [at] = entity.vertices([middle])
        centre = entity.ocs().to_wcs(entity.dxf.center)
        yield _Raw(called, Vec(*entity.start_point), Vec(*entity.end_point), Vec(*at), Vec(*centre))
    elif entity.dxftype() in ("LWPOLYLINE", "POLYLINE") and not getattr(entity, "is_poly_face_mesh", False):
        for part in entity.virtual_entities():
            yield from (replace(one, called=called) for one in _parts(part))


def _moved(raw: _Raw, unit: float, up: Up) -> DrawnPart | None:
    """In inches, up as we have it; None for an arc of half round or more."""

    def place(at: Vec) -> Vec:
        return Vec(at.x, at.y, at.z).times(unit) if up == "y" else Vec(at.x, at.z, -at.y).times(unit)

    if raw.middle is None or raw.centre is None:
        return DrawnPart(raw.called, place(raw.start), place(raw.end))
    return arc_part(raw.called, place(raw.start), place(raw.middle), place(raw.end), place(raw.centre))
