"""A stick's bends in order: as proposed, or as a person arranged them. Bends are named by their index in the run."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace

from conduit.bender import Hook
from conduit.bending.schema import Arranged
from conduit.bending.stick import Arcs, Stick
from conduit.sequence import (
    FREE_HOOKS,
    KEEP_HOOKS,
    BendSequence,
    SequenceStep,
    Unit,
    best_sequence,
    check_sequence,
    habits_of,
    units_of,
)


@dataclass(frozen=True)
class Arrangement:
    """An order, the bends of each of its units (a sweep's shots are one), and whether it is the one proposed."""

    order: BendSequence
    groups: list[list[int]]
    proposed: bool = True

    def bends(self, act: SequenceStep) -> list[int]:
        """The bends of one act."""
        return self.groups[act.unit]

    def act_of(self, index: int) -> SequenceStep:
        """The act in which a bend is made."""
        return next(act for act in self.order.acts if index in self.groups[act.unit])

    @property
    def sequence(self) -> list[int]:
        """The bends in the order of bending."""
        return [index for act in self.order.acts for index in self.groups[act.unit]]

    @property
    def hooks(self) -> dict[int, Hook]:
        """Which end the hook faces at each bend."""
        return {index: act.hook for act in self.order.acts for index in self.groups[act.unit]}

    def after(self, stick: Stick, arcs: Arcs, made: Collection[int]) -> "Arrangement":
        """The same order with the bends where these arcs have them: how each that is not made is to be made now."""
        units, _ = units_of(arcs, stick.layout, self.hooks)
        rest = [act for act in self.order.acts if not set(self.bends(act)) <= set(made)]
        done = [act for act in self.order.acts if act not in rest]
        chosen = [(act.unit, act.hook) for act in (*done, *rest)]
        order = check_sequence(units, stick.shoe, stick.cut, chosen, habits_of(stick.layout, self.groups))
        now = {act.unit: act for act in order.acts}
        acts = tuple(now[act.unit] if act in rest else act for act in self.order.acts)
        return replace(self, order=replace(self.order, acts=acts))

    @property
    def broken(self) -> set[int]:
        """The units that cannot be made where they come."""
        return {act.unit for act in self.order.acts if act.breaks}


def arrange(stick: Stick, arcs: Arcs, arranged: Arranged) -> Arrangement:
    """The order asked for, if it is one of this stick's bends; else the one proposed.

    Where none can be followed the bends come along the pipe, and it is told why.
    """
    one_way = arranged.hooks == "one_way"
    hooks: dict[int, Hook] = {
        index: "A" if one_way else stick.habit(index, arc).mark.hook for index, arc in arcs.items()
    }
    units, groups = units_of(arcs, stick.layout, hooks)
    habits = habits_of(stick.layout, groups)
    length = stick.cut
    chosen = _chosen(arranged, groups)
    if chosen:
        return Arrangement(check_sequence(units, stick.shoe, length, chosen, habits), groups, proposed=False)
    best = best_sequence(units, stick.shoe, length, habits, FREE_HOOKS if one_way else KEEP_HOOKS)
    if best.acts or not units:
        return Arrangement(best, groups)
    order = check_sequence(units, stick.shoe, length, _along(units), habits)
    return Arrangement(replace(order, why_not=best.why_not), groups)


def _along(units: Sequence[Unit]) -> list[tuple[int, Hook]]:
    return [(number, unit.hook) for number, unit in enumerate(units)]


def _chosen(arranged: Arranged, groups: Sequence[Sequence[int]]) -> list[tuple[int, Hook]]:
    """The order chosen by a person, if it is one of these bends."""
    units = {group[0] + 1: number for number, group in enumerate(groups)}
    chosen = [(units[turn.bend], turn.hook) for turn in arranged.order or [] if turn.bend in units]
    return chosen if sorted(unit for unit, _ in chosen) == list(range(len(groups))) else []
