"""“Bend the same again”: how the same bend of another pipe of the rack came out is carried to the next one."""

from collections.abc import Iterator
from typing import Any

from django.db.models import Q

from conduit.bending import SheetBend
from conduit.racks import FloorRun, roles_of
from conduit.units import format_angle, shows_off
from server.bench.models import BendMade
from server.bench.schemas import Carried
from server.bench.sheets import Benches
from server.jobs.models import Run
from server.jobs.racks import follows_of, number_of

# Less than this a finder does not tell; bends that differ by more are not the same bend.
TELLING, THE_SAME = 0.5, 2.0
# So far out a reading is a mistake, and no habit of the shoe.
MOST = 8.0


def carried(benches: Benches) -> list[Carried]:
    """For each bend of a rack's pipe that is still to be made: what the last same one on another pipe says."""
    run = benches.run
    lead = run.rack_lead or run
    others = Run.objects.present().filter(Q(pk=lead.pk) | Q(rack_lead=lead)).exclude(pk=run.pk)
    made = BendMade.objects.filter(live=True, stick__live=True, stick__run__in=others).select_related("stick__run")
    if (run.rack_lead is None and not lead.document.get("rack")) or not benches.now.shoe or not made.exists():
        return []
    rack = lead.document.get("rack") or {}
    last = dict[Any, BendMade]()
    for one in made.filter(shoe_name=benches.now.shoe.name).order_by("at"):
        other = one.stick.run
        bencher = benches.bencher(one.stick.document or other.document, benches.limits)
        roles = roles_of(FloorRun(number_of(other), other.document, follows_of(other, rack)), bencher)
        last[roles.get(one.bend)] = one
    roles = roles_of(FloorRun(number_of(run), run.document, follows_of(run, rack)), benches.now)
    same = [piece for piece in benches.pieces() if benches.bent_on(benches.sticks.get(piece)).shoe == benches.now.shoe]
    bends = [bend for piece in same for bend in benches.sheet(piece).bends if not bend.made]
    return [found for bend in bends for found in _from(bend, last.get(roles.get(bend.number)), benches)]


def _from(bend: SheetBend, before: BendMade | None, benches: Benches) -> Iterator[Carried]:
    """The dial for a bend that came out otherwise than its dial when it was made before."""
    if not before or not benches.now.shoe or abs(before.planned_angle - bend.angle) > THE_SAME:
        return
    off = before.angle - before.planned_angle
    # What it was set to beyond what the shoe's own line says counts with what came of it.
    moved = before.dial - benches.now.shoe.dial.reads(before.planned_angle)
    dial = benches.now.shoe.dial.reads(bend.angle) + moved - off
    if TELLING <= abs(off) <= MOST or abs(moved) >= TELLING:
        yield Carried(
            bend=bend.number,
            pipe=number_of(before.stick.run),
            off_reads=shows_off(off),
            dial=round(dial * 2) / 2,
            dial_reads=format_angle(round(dial * 2) / 2),
        )
