"""What a rack's struts add to what is brought to a job."""

from collections import Counter

from conduit.catalogue import message
from conduit.cutting import StrutNeeded
from conduit.racks.schema import RackPlan


def struts_needed(plan: RackPlan, name: str) -> Counter[StrutNeeded]:
    """The struts of a rack, alike ones counted together."""
    struts = Counter[StrutNeeded]()
    for one in plan.struts:
        holes = ", ".join(hole.reads for hole in one.holes)
        struts[
            StrutNeeded(one.length.reads, message("bring.struts", rack=name or message("bring.a_rack"), places=holes))
        ] += 1
    return struts
