"""A stand-in for a digital angle finder: a made-up bender that springs back, hands that miss, a tool that trembles."""

# What the made-up bender does with its dial, and the standard deviations of hands and tool, in degrees.
FACTOR, CONSTANT = 0.992, -0.3
HANDS, TREMBLE = 0.35, 0.1


def finder_reads(dial: float, hands: float, tremble: float) -> float:
    """What the finder shows, to a tenth of a degree, after a bend to `dial` degrees.

    `hands` and `tremble` are draws from a normal distribution of standard deviation 1.
    """
    true = FACTOR * dial + CONSTANT + HANDS * hands
    return round(min(max(true + TREMBLE * tremble, 0.1), 179.9), 1)
