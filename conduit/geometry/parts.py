"""Into how many parts something is cut."""

import math


def parts_of(whole: float, most: float) -> int:
    """How many equal parts no larger than `most` make a whole; what rounding adds to it makes no part more."""
    return math.ceil(whole / most - 1e-9)
