"""An independent geometry kernel (OpenCASCADE), which makes the bends its own way: as fillets of a polyline."""

from dataclasses import replace
from itertools import pairwise

from OCP.BRep import BRep_Builder
from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeEdge
from OCP.BRepExtrema import BRepExtrema_DistShapeShape
from OCP.BRepGProp import BRepGProp
from OCP.BRepPrimAPI import BRepPrimAPI_MakeBox, BRepPrimAPI_MakeCylinder
from OCP.ChFi2d import ChFi2d_FilletAlgo
from OCP.gp import gp_Ax2, gp_Dir, gp_Pln, gp_Pnt
from OCP.GProp import GProp_GProps
from OCP.TopoDS import TopoDS_Compound, TopoDS_Edge

WIDE = 400.0


def centreline(path):
    """The edges of a centreline: its vertices joined by lines, every corner rounded by the kernel's own fillet."""
    points = [path.origin, *(bend.vertex for bend in path.bends), path.end_point]
    lines = [BRepBuilderAPI_MakeEdge(gp_Pnt(*a), gp_Pnt(*b)).Edge() for a, b in pairwise(points)]
    edges, here = [], lines[0]
    for bend, following in zip(path.bends, lines[1:], strict=True):
        corner = gp_Pnt(*bend.vertex)
        normal = bend.heading_before.cross(bend.heading_after)
        fillet = ChFi2d_FilletAlgo(here, following, gp_Pln(corner, gp_Dir(*normal)))
        assert fillet.Perform(path.radius)
        before, after = TopoDS_Edge(), TopoDS_Edge()
        edges += [None, fillet.Result(corner, before, after)]
        edges[-2], here = before, after
    return [*edges, here]


def length_of(edges):
    total = 0.0
    for edge in edges:
        properties = GProp_GProps()
        BRepGProp.LinearProperties_s(edge, properties)
        total += properties.Mass()
    return total


def compound(edges):
    builder, whole = BRep_Builder(), TopoDS_Compound()
    builder.MakeCompound(whole)
    for edge in edges:
        builder.Add(whole, edge)
    return whole


def solid(thing):
    """A thing on the surface as a solid, very long across the leg."""
    across = thing.along.cross(thing.toward)
    start = thing.foot.along(across, -WIDE / 2)
    if thing.shape == "round":
        middle = start.along(thing.along, (thing.near + thing.far) / 2).along(thing.toward, thing.height / 2)
        return BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(*middle), gp_Dir(*across)), thing.height / 2, WIDE).Shape()
    far_side = start.along(across, WIDE).along(thing.along, thing.near)
    corner = gp_Ax2(gp_Pnt(*far_side), gp_Dir(*thing.toward), gp_Dir(*thing.along))
    return BRepPrimAPI_MakeBox(corner, min(thing.far, thing.near + WIDE) - thing.near, WIDE, thing.height).Shape()


def clearance(edges, thing, diameter):
    """Least distance between the pipe's surface and a thing that it does not touch."""
    return BRepExtrema_DistShapeShape(compound(edges), solid(thing)).Value() - diameter / 2


def moved_path(path, by):
    """A centreline where it stands beside another."""
    bends = tuple(replace(bend, vertex=bend.vertex.plus(by), entry=bend.entry.plus(by)) for bend in path.bends)
    return replace(path, origin=path.origin.plus(by), bends=bends, end_point=path.end_point.plus(by))
