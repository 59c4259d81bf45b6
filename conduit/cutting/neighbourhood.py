"""A few stretches made anew, as cheaply as can be, from their own bars and some that lie free.

The model lets each stretch take one length from any bar and leaves out where couplings may lie; that is
decided afterwards, exactly, and a combination that cannot be laid is forbidden and the model asked again.
Without the couplings' windows only more can be made (two pieces of a stretch from one bar would be one), so
what the model proves to be the least cost is a bound for the real thing as well.
"""

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from ortools.sat.python import cp_model

from conduit.cutting.problem import BarKey, Load, Pieces, Placed, Problem
from conduit.cutting.solver import FOUND, solver_for

# How often a combination that cannot be laid is forbidden before giving up.
TRIES = 3


class Room(NamedTuple):
    """What is left of a bar beside the stretches that stay as they are. `begun`: it is cut anyway."""

    key: BarKey
    cap: int
    cost: int
    dislike: int
    begun: bool


def rooms_for(problem: Problem, keys: Sequence[BarKey], kept: Mapping[BarKey, Load]) -> list[Room]:
    """What can be cut from bars that also hold what is `kept`; a bar that is cut anyway costs nothing more."""
    rooms = []
    for key in keys:
        bar, load = problem.bar(key), kept.get(key, Load())
        cap = bar.cap - load.need - problem.weights.kerf * load.count
        begun = bool(load.count) or bar.opened
        if cap >= problem.least:
            rooms.append(Room(key, cap, 0 if begun else bar.cost, 0 if load.count else bar.dislike, begun))
    return rooms


class Remake:
    """The model of some stretches (by number) and the room on some bars.

    `emptying`: a new stick that had better be emptied; each sixteenth cut from it costs its part of a stick.
    """

    def __init__(
        self, problem: Problem, numbers: Sequence[int], rooms: Sequence[Room], emptying: BarKey | None = None
    ) -> None:
        self.problem, self.numbers, self.rooms, self.emptying = problem, numbers, rooms, emptying
        self.model = cp_model.CpModel()
        self.takes: dict[tuple[int, int], cp_model.IntVar] = {}
        self.lengths: dict[tuple[int, int], cp_model.IntVar] = {}
        self.bound = 0.0
        costs = [self._stretch(number) for number in numbers]
        costs += [self._bar(at, room) for at, room in enumerate(rooms)]
        self.model.minimize(sum(costs))

    def _stretch(self, number: int) -> cp_model.LinearExprT:
        model, stretch = self.model, self.problem.stretches[number]
        for at, room in enumerate(self.rooms):
            most = min(room.cap, stretch.length + stretch.spare)
            take, length = model.new_bool_var(""), model.new_int_var(0, most, "")
            model.add(length <= most * take)
            model.add(length >= min(stretch.least, stretch.length) * take)
            self.takes[number, at], self.lengths[number, at] = take, length
        count = sum(self.takes[number, at] for at in range(len(self.rooms)))
        cut = sum(self.lengths[number, at] for at in range(len(self.rooms)))
        model.add(cut + (stretch.gap - stretch.spare) * count == stretch.length + stretch.gap)
        return self.problem.weights.coupling * (count - 1)

    def _bar(self, at: int, room: Room) -> cp_model.LinearExprT:
        model, weights = self.model, self.problem.weights
        takes = [self.takes[number, at] for number in self.numbers]
        load, count = sum(self.lengths[number, at] for number in self.numbers), sum(takes)
        used = model.new_bool_var("")
        model.add_max_equality(used, takes)
        model.add(load + weights.kerf * count <= room.cap + weights.kerf)
        if at and room.key.is_new and room[1:] == self.rooms[at - 1][1:] and self.rooms[at - 1].key.is_new:
            model.add(count <= sum(self.takes[number, at - 1] for number in self.numbers))
        cost = (room.cost + room.dislike) * used
        if room.key == self.emptying:
            cost += self.problem.emptying(room.key) * load
        if not weights.waste:
            return cost
        kept, waste = model.new_bool_var(""), model.new_int_var(0, room.cap, "")
        left = room.cap - load - weights.kerf * count
        model.add(left >= weights.keep).only_enforce_if(kept)
        lost = model.add(waste >= left - room.cap * kept)
        if not room.begun:
            lost.only_enforce_if(used)
        return cost + weights.waste * (waste + weights.kerf * (count - used))

    def hint(self, pieces: Mapping[int, Pieces]) -> None:
        """Start from what is there."""
        places = {room.key: at for at, room in enumerate(self.rooms)}
        for number in self.numbers:
            needs = dict.fromkeys(range(len(self.rooms)), 0)
            for piece in pieces[number]:
                needs[places[piece.bar]] += piece.need
            for at, need in needs.items():
                self.model.add_hint(self.lengths[number, at], need)
                self.model.add_hint(self.takes[number, at], need > 0)

    def solve(self, seconds: float, effort: float) -> dict[int, Pieces] | None:
        """New pieces of the stretches, or None. Sets `bound`: no plan of them from these bars costs less."""
        if seconds <= 0:
            return None
        for turn in range(TRIES):
            solver = solver_for(seconds, effort)
            status = solver.solve(self.model)
            if turn == 0:
                self.bound = solver.best_objective_bound
            if status not in FOUND:
                return None
            made, stuck = self._laid(solver)
            if stuck is None:
                return made
            self._forbid(solver, stuck)
        return None

    def _laid(self, solver: cp_model.CpSolver) -> tuple[dict[int, Pieces], int | None]:
        """The answer with its couplings placed; or the number of a stretch that cannot be laid so."""
        weights, made = self.problem.weights, dict[int, Pieces]()
        left = []
        for at, room in enumerate(self.rooms):
            cut = [solver.value(self.lengths[n, at]) for n in self.numbers if solver.value(self.takes[n, at])]
            left.append(room.cap - sum(cut) - weights.kerf * max(0, len(cut) - 1))
        for number in self.numbers:
            stretch = self.problem.stretches[number]
            ats = [at for at in range(len(self.rooms)) if solver.value(self.takes[number, at])]
            # What is left of a bar may all go to one piece that needs it.
            caps = [solver.value(self.lengths[number, at]) + left[at] for at in ats]
            joints = stretch.made_of(caps)
            if joints is None:
                return made, number
            pieces = []
            for joint in joints:
                at, need = ats[joint.index], stretch.needs(joint.start, joint.end)
                left[at] = caps[joint.index] - need
                pieces.append(Placed(joint.start, joint.end, need, self.rooms[at].key))
            made[number] = tuple(pieces)
        return made, None

    def _forbid(self, solver: cp_model.CpSolver, number: int) -> None:
        takes = [self.takes[number, at] for at in range(len(self.rooms))]
        self.model.add_bool_or([~take if solver.value(take) else take for take in takes])
