"""Struts that runs of their own share where their straps come to lie beside each other. Inches."""

from collections.abc import Iterable, Iterator, Sequence
from typing import NamedTuple

from conduit.geometry import Vec
from conduit.racks import strut_under
from conduit.space.standing import StandingRun
from conduit.tables import STRUT_WIDE
from conduit.units import TOLERANCE

# Farther apart than this each run has a short piece of its own.
MOST_BETWEEN = 12.0
# Straights that differ by no more of their direction lie beside each other.
ALIKE = 1e-4
# So much nearer to the wall or farther from it lies on the same strut.
OFF_ALIKE = 1 / 32


class _Strap(NamedTuple):
    """A strap of a run that stands off: how far along its straight, to the side, and off the wall."""

    run: StandingRun
    ahead: float
    aside: float
    off: float


class SharedStrut(NamedTuple):
    """A strut under runs beside each other; `places`: their centres along it, from its end."""

    runs: tuple[StandingRun, ...]
    places: tuple[float, ...]
    length: float


def shared_struts(standing: Iterable[StandingRun]) -> list[SharedStrut]:
    """Each strut that carries several runs, once. Those of racks are not among them: a rack knows its own.

    Only runs that stand off lie on struts, and only straps that fall on the width of one strut share it.
    """
    own = [run for run in standing if not run.in_rack and run.checked.measured.head.stand_off > TOLERANCE]
    families: dict[tuple[Vec, Vec], list[_Strap]] = {}
    for run in own:
        for way, strap in _straps(run):
            families.setdefault((way, run.frame.out), []).append(strap)
    groups = [group for straps in families.values() for group in _beside(straps)]
    return [_strut(group) for group in groups if len(group) > 1]


def _straps(run: StandingRun) -> Iterator[tuple[Vec, _Strap]]:
    """The straps on straights along the run's wall, each with the way of its straight, whichever end it came from."""
    out = run.frame.out
    for part in run.parts:
        if part.is_arc or abs(part.ahead.dot(out)) > ALIKE:
            continue
        way = max(_rounded(part.ahead), _rounded(part.ahead.times(-1)), key=lambda one: (one.x, one.y, one.z))
        for s in run.checked.straps:
            if part.low <= s <= part.high:
                point = part.origin.along(part.ahead, s - part.low)
                aside = point.dot(way.cross(out))
                yield way, _Strap(run, point.dot(way), aside, point.dot(out) - run.diameter / 2)


def _rounded(way: Vec) -> Vec:
    return Vec(*(round(part, 4) + 0.0 for part in (way.x, way.y, way.z)))


def _beside(straps: Sequence[_Strap]) -> list[list[_Strap]]:
    """Straps that one strut can carry: on its width, off the wall alike, each near enough to the next."""
    groups: list[list[_Strap]] = []
    for strap in sorted(straps, key=lambda one: one.aside):
        group = next((group for group in groups if _goes_on(group, strap)), None)
        if group:
            group.append(strap)
        else:
            groups.append([strap])
    return groups


def _goes_on(group: Sequence[_Strap], strap: _Strap) -> bool:
    first, last = group[0], group[-1]
    return (
        abs(strap.ahead - first.ahead) <= STRUT_WIDE / 2
        and abs(strap.off - first.off) <= OFF_ALIKE
        and strap.aside - last.aside <= MOST_BETWEEN
        and all(strap.run is not one.run for one in group)
    )


def _strut(group: Sequence[_Strap]) -> SharedStrut:
    low, high = strut_under((one.aside, one.run.diameter) for one in group)
    return SharedStrut(
        tuple(one.run for one in group),
        tuple(one.aside - low for one in group),
        high - low,
    )
