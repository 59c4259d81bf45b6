"""A piece's bends as the search for an order sees them."""

from collections.abc import Iterator, Mapping, Sequence
from functools import singledispatch
from types import MappingProxyType

from conduit.bender import Hook
from conduit.catalogue import Message, message
from conduit.document import AnyStep, BoxOffsetStep, KickStep, Saddle3Step, Saddle4Step
from conduit.layout import Layout
from conduit.sequence.costs import ALONG, FIRST, TIDY, Habit
from conduit.sequence.reach import Unit
from conduit.simulation import Arc


def units_of(
    arcs: Mapping[int, Arc],
    layout: Layout,
    hooks: Mapping[int, Hook] = MappingProxyType({}),
) -> tuple[list[Unit], list[list[int]]]:
    """A piece's units from its arcs (by index in the run), and each unit's bends; a sweep's shots are one unit.

    `hooks`: which end the hook faces by habit, where that is asked.
    """
    units: list[Unit] = []
    groups: list[list[int]] = []
    for index, arc in arcs.items():
        same_step = groups and layout.owners[groups[-1][0]] == layout.owners[index]
        step = layout.step_of(index)
        if same_step and step and step.swept:
            last = units.pop()
            groups[-1].append(index)
            called = message("order.bends", first=groups[-1][0] + 1, last=index + 1)
            units.append(Unit(called, last.start, arc.end, last.angle + arc.angle, last.roll, last.hook))
            continue
        units.append(Unit(Message(index + 1), arc.start, arc.end, arc.angle, arc.roll, hooks.get(index, "A")))
        groups.append([index])
    return units, groups


def habits_of(layout: Layout, groups: Sequence[Sequence[int]]) -> list[Habit]:
    """The rules of the trade for these units, as preferences with reasons (docs/trade.md, Order of bending).

    `groups`: the bends of each unit, by their index in the run. A habit names a unit, the set (bits) that should be
    done before it, what it costs to break it, and the sentence that is shown.
    """
    owners, steps = [layout.owners[group[0]] for group in groups], layout.steps
    habits: list[Habit] = []
    for number, owner in enumerate(owners):
        habits += _own_habits(steps[owner], number, owner, owners)
        habits += _finish_first(steps, owners, number, owner)
    return habits


def _mates(owner: int, owners: Sequence[int]) -> list[int]:
    """The units of one step."""
    return [i for i, other in enumerate(owners) if other == owner]


def _along(number: int, owner: int, owners: Sequence[int]) -> Iterator[Habit]:
    """A step's first bend before its others."""
    mates = _mates(owner, owners)
    if number not in mates[:1]:
        yield Habit(number, 1 << mates[0], ALONG, message("habit.along_offset"))


@singledispatch
def _own_habits(step: AnyStep | None, number: int, owner: int, owners: Sequence[int]) -> Iterator[Habit]:
    """The habits of a unit among those of its own step: of most kinds, along the pipe. `owner`: its step."""
    return _along(number, owner, owners)


@_own_habits.register
def _of_three_bend_saddle(step: Saddle3Step, number: int, owner: int, owners: Sequence[int]) -> Iterator[Habit]:
    """The centre first."""
    mates = _mates(owner, owners)
    if len(mates) == 3 and number != mates[1]:
        yield Habit(number, 1 << mates[1], FIRST, message("habit.saddle_centre"))


@_own_habits.register
def _of_four_bend_saddle(step: Saddle4Step, number: int, owner: int, owners: Sequence[int]) -> Iterator[Habit]:
    """Each side as an offset of its own, where the whole saddle is on this piece."""
    mates = _mates(owner, owners)
    yield from _by_pairs(mates, number) if len(mates) == 4 else _along(number, owner, owners)


@_own_habits.register
def _of_kick(step: KickStep, number: int, owner: int, owners: Sequence[int]) -> Iterator[Habit]:
    """The stub before its kick."""
    mates = _mates(owner, owners)
    if len(mates) == 2:
        kick, stub = (mates[0], mates[1]) if step.when == "before" else (mates[1], mates[0])
        if number == kick:
            yield Habit(number, 1 << stub, FIRST, message("habit.stub"))


@_own_habits.register
def _of_box_offset(step: BoxOffsetStep, number: int, owner: int, owners: Sequence[int]) -> Iterator[Habit]:
    """At the far end last of all, and along the pipe."""
    if step.end == "end":
        others = sum(1 << i for i, other in enumerate(owners) if other != owner)
        yield Habit(number, others, TIDY, message("habit.box_offset_last"))
    yield from _along(number, owner, owners)


def _by_pairs(mates: Sequence[int], number: int) -> list[Habit]:
    """A four-bend saddle is two offsets: each made along the pipe and checked before the other."""
    near, far = mates[:2], mates[2:]
    mine, other = (near, far) if number in near else (far, near)
    habits = [Habit(number, 1 << other[0] | 1 << other[1], TIDY, message("habit.one_side"), begun=True)]
    if number == mine[1]:
        habits.append(Habit(number, 1 << mine[0], ALONG, message("habit.along_side")))
    return habits


def _finish_first(steps: Sequence[AnyStep | None], owners: Sequence[int], number: int, owner: int) -> list[Habit]:
    """A box offset at the measured end comes first; what is begun is finished before the next along the pipe."""
    habits = [Habit(number, mates, TIDY, message("habit.finish"), begun=True) for mates in _other_steps(owners, owner)]
    first = [i for i, other in enumerate(owners) if isinstance(steps[other], BoxOffsetStep) and other < owner]
    begun = sum(1 << i for i in first)
    return [*habits, Habit(number, begun, TIDY, message("habit.box_offset_first"))] if begun else habits


def _other_steps(owners: Sequence[int], owner: int) -> list[int]:
    """The bends of each other step that has several, as bits."""
    others = [other for other in dict.fromkeys(owners) if other != owner and owners.count(other) > 1]
    return [sum(1 << i for i, one in enumerate(owners) if one == other) for other in others]
