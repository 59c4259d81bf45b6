"""A piece's bends as the search for an order sees them."""

from collections.abc import Mapping, Sequence
from types import MappingProxyType

from conduit.bender import Hook
from conduit.catalogue import Message, message
from conduit.document import AnyStep, BoxOffsetStep, KickStep, Saddle3Step, Saddle4Step, SweepStep
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
        if same_step and isinstance(layout.step_of(index), SweepStep):
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
        step = steps[owner]
        mates = [i for i, other in enumerate(owners) if other == owner]
        if isinstance(step, Saddle3Step) and len(mates) == 3 and number != mates[1]:
            habits.append(Habit(number, 1 << mates[1], FIRST, message("habit.saddle_centre")))
        if isinstance(step, KickStep) and len(mates) == 2:
            kick, stub = (mates[0], mates[1]) if step.when == "before" else (mates[1], mates[0])
            if number == kick:
                habits.append(Habit(number, 1 << stub, FIRST, message("habit.stub")))
        if isinstance(step, BoxOffsetStep) and step.end == "end":
            others = sum(1 << i for i, other in enumerate(owners) if other != owner)
            habits.append(Habit(number, others, TIDY, message("habit.box_offset_last")))
        if isinstance(step, Saddle4Step) and len(mates) == 4:
            habits += _by_pairs(mates, number)
        elif number not in mates[:1] and not isinstance(step, Saddle3Step | KickStep):
            habits.append(Habit(number, 1 << mates[0], ALONG, message("habit.along_offset")))
        habits += _finish_first(steps, owners, number, owner)
    return habits


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
