"""Where the pipe goes over things in the way: neither straps nor couplings stand there."""

import math

from conduit.layout.run_layout import Layout


def over_things(layout: Layout) -> list[tuple[float, float]]:
    """Stretches that go over a thing in the way, in inches along the straight pipe.

    Not the leg that lies on one that goes on and on.
    """
    spans = []
    for thing in layout.hindrances:
        own = layout.bends_of(thing.step)
        if own and math.isfinite(thing.far):
            beyond = thing.far - thing.near if len(own) == 2 else 0.0
            spans.append((own[0].start, own[-1].end + beyond))
    return spans
