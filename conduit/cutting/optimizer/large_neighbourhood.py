"""A few stretches made anew, as cheaply as can be, from their own bars and some that lie free.

The model lets each stretch take so many pieces and so much from any bar and leaves out where couplings may lie;
that is decided afterwards, and a combination that cannot be laid is forbidden and the model asked again. Without the
couplings' windows only more can be made, so what the model proves to be the least cost is a bound for the real thing
as well: where a coupling's take-up is larger than the kerf, only if every stretch may take several pieces of a bar.
"""

from collections.abc import Container, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, NamedTuple

from conduit.cutting.optimizer.problem import BarKey, CutProblem, Load, PieceOnBar, Pieces
from conduit.cutting.optimizer.solver import is_found, new_model, solver_for
from conduit.cutting.optimizer.work_meter import ASKED, MODELLED, SOLVED, Meter

if TYPE_CHECKING:
    from ortools.sat.python.cp_model import CpSolver, IntVar, LinearExprT

# How often a combination that cannot be laid is forbidden before giving up.
TRIES = 3


class FreeBar(NamedTuple):
    """What is left of a bar beside the stretches that stay as they are. `begun`: it is cut anyway."""

    key: BarKey
    cap: int
    cost: int
    dislike: int
    begun: bool


def rooms_for(problem: CutProblem, keys: Sequence[BarKey], kept: Mapping[BarKey, Load]) -> list[FreeBar]:
    """What can be cut from bars that also hold what is `kept`; a bar that is cut anyway costs nothing more."""
    rooms = []
    for key in keys:
        bar, load = problem.bar(key), kept.get(key, Load())
        cap = bar.cap - load.taken(problem.weights.kerf)
        begun = bool(load.count) or bar.opened
        if cap >= problem.least:
            rooms.append(FreeBar(key, cap, 0 if begun else bar.cost, 0 if load.count else bar.dislike, begun))
    return rooms


@dataclass(frozen=True)
class _Takes:
    """What a stretch takes of a bar: whether anything, in how many pieces, how much."""

    taken: "IntVar"
    pieces: "IntVar"
    length: "IntVar"


class Remake:
    """The model of some stretches (by number) and the room on some bars.

    `several`: the stretches that may take more than one piece of a bar. `emptying`: a new stick that had better be
    emptied; each sixteenth cut from it costs its part of a stick.
    """

    def __init__(
        self,
        problem: CutProblem,
        numbers: Sequence[int],
        rooms: Sequence[FreeBar],
        several: Container[int],
        emptying: BarKey | None = None,
    ) -> None:
        self.problem, self.numbers, self.rooms, self.emptying = problem, numbers, rooms, emptying
        self.model = new_model()
        self.takes: dict[tuple[int, int], _Takes] = {}
        self.bound = 0.0
        costs = [self._stretch(number, number in several) for number in numbers]
        costs += [self._bar(at, room) for at, room in enumerate(rooms)]
        self.model.minimize(sum(costs))

    def _stretch(self, number: int, several: bool) -> "LinearExprT":
        model, stretch, kerf = self.model, self.problem.stretches[number], self.problem.weights.kerf
        least = min(stretch.least, stretch.length)
        for at, room in enumerate(self.rooms):
            if not self.problem.may_use(number, room.key):
                continue
            longest = min(room.cap, stretch.length + stretch.spare)
            most = (room.cap + kerf) // (least + kerf) if several else 1
            take, length = model.new_bool_var(""), model.new_int_var(0, longest, "")
            count = model.new_int_var(0, most, "") if most > 1 else take
            if most > 1:
                model.add(count >= take)
                model.add(count <= most * take)
            model.add(length <= longest * take)
            model.add(length >= least * count)
            self.takes[number, at] = _Takes(take, count, length)
        own = [takes for (of, _), takes in self.takes.items() if of == number]
        pieces, cut = sum(one.pieces for one in own), sum(one.length for one in own)
        trimmed: LinearExprT | int = 0
        if stretch.spare:
            # At most as many pieces have a bend as there are bends.
            trimmed = model.new_int_var(0, len(stretch.bends), "")
            model.add_min_equality(trimmed, [pieces, len(stretch.bends)])
        model.add(cut + stretch.gap * pieces == stretch.length + stretch.gap + stretch.spare * trimmed)
        return self.problem.weights.coupling * (pieces - 1)

    def _of_bar(self, at: int) -> list[_Takes]:
        return [takes for (_, of), takes in self.takes.items() if of == at]

    def _bar(self, at: int, room: FreeBar) -> "LinearExprT":
        model, weights, own = self.model, self.problem.weights, self._of_bar(at)
        load, count = sum(one.length for one in own), sum(one.pieces for one in own)
        used = model.new_bool_var("")
        model.add_max_equality(used, [one.taken for one in own] or [model.new_constant(0)])
        model.add(load + weights.kerf * count <= room.cap + weights.kerf)
        if at and room.key.is_new and room[1:] == self.rooms[at - 1][1:] and self.rooms[at - 1].key.is_new:
            model.add(count <= sum(one.pieces for one in self._of_bar(at - 1)))
        cost = (room.cost + room.dislike) * used
        if room.key == self.emptying:
            cost += self.problem.emptying(room.key) * load
        if not weights.waste:
            return cost
        kept, waste = model.new_bool_var(""), model.new_int_var(0, room.cap + weights.kerf, "")
        left = room.cap - load - weights.kerf * count
        model.add(left >= weights.keep).only_enforce_if(kept)
        model.add(waste >= weights.kerf * count).only_enforce_if(kept)
        lost = model.add(waste >= room.cap - load - room.cap * kept)
        if not room.begun:
            lost.only_enforce_if(used)
        if weights.kept:
            cost += weights.kept * self._offcut(room, left, kept, used)
        return cost + weights.waste * waste

    def _offcut(self, room: FreeBar, left: "LinearExprT", kept: "IntVar", used: "IntVar") -> "IntVar":
        """What is kept of a bar."""
        offcut = self.model.new_int_var(0, room.cap + self.problem.weights.kerf, "")
        counted = self.model.add(offcut >= left).only_enforce_if(kept)
        if not room.begun:
            counted.only_enforce_if(used)
        return offcut

    def hint(self, pieces: Mapping[int, Pieces]) -> None:
        """Hint the solver with the pieces that are there, so that it is never worse than those.

        By stretch and bar: how much is cut, and whether any is.
        """
        places = {room.key: at for at, room in enumerate(self.rooms)}
        for number in self.numbers:
            needs = dict.fromkeys(range(len(self.rooms)), Load())
            for piece in pieces[number]:
                needs[places[piece.bar]] = needs[places[piece.bar]].with_piece(piece.need)
            for at, load in needs.items():
                if takes := self.takes.get((number, at)):
                    self.model.add_hint(takes.length, load.need)
                    self.model.add_hint(takes.taken, load.count > 0)
                    if takes.pieces is not takes.taken:
                        self.model.add_hint(takes.pieces, load.count)

    def solve(self, meter: Meter, effort: float, tries: int = TRIES) -> dict[int, Pieces] | None:
        """New pieces of the stretches, or None. Sets `bound`: no plan of them from these bars costs less.

        `effort`: the solver's own units of work for each try.
        """
        meter.spend(MODELLED * len(self.takes))
        for turn in range(tries):
            if meter.left() <= 0:
                return None
            solver = solver_for(meter.seconds(), effort)
            status = solver.solve(self.model)
            meter.spend(ASKED + SOLVED * solver.response_proto.deterministic_time)
            if turn == 0:
                self.bound = solver.best_objective_bound
            if not is_found(status):
                return None
            made, stuck = self._laid(solver)
            if stuck is None:
                return made
            self._forbid(solver, stuck)
        return None

    def _laid(self, solver: "CpSolver") -> tuple[dict[int, Pieces], int | None]:
        """The answer with its couplings placed; or the number of a stretch that cannot be laid so."""
        made = dict[int, Pieces]()
        loads = {key: Load(solver.value(one.length), solver.value(one.pieces)) for key, one in self.takes.items()}
        loads = {key: load for key, load in loads.items() if load.count}
        left = []
        for at, room in enumerate(self.rooms):
            there = [load for (_, of), load in loads.items() if of == at]
            cut, count = sum(load.need for load in there), sum(load.count for load in there)
            left.append(room.cap - cut - self.problem.weights.kerf * max(0, count - 1))
        for number in self.numbers:
            stretch = self.problem.stretches[number]
            mine = [(at, load) for (of, at), load in loads.items() if of == number]
            # What is left of a bar may all go to one stretch that needs it.
            joints = stretch.made_sharing([(load.need + left[at], load.count) for at, load in mine])
            if joints is None:
                return made, number
            pieces = []
            for joint in joints:
                at, need = mine[joint.index][0], stretch.needs(joint.start, joint.end)
                pieces.append(PieceOnBar(joint.start, joint.end, need, self.rooms[at].key))
            for index, (at, load) in enumerate(mine):
                took = sum(stretch.needs(one.start, one.end) for one in joints if one.index == index)
                left[at] += load.need - took
            made[number] = tuple(pieces)
        return made, None

    def _forbid(self, solver: "CpSolver", number: int) -> None:
        """Not again just these bars in just so many pieces."""
        model, others = self.model, []
        for (of, _), takes in self.takes.items():
            if of != number:
                continue
            count = solver.value(takes.pieces)
            if takes.pieces is takes.taken:
                others.append(~takes.taken if count else takes.taken)
                continue
            other = model.new_bool_var("")
            model.add(takes.pieces != count).only_enforce_if(other)
            others.append(other)
        model.add_bool_or(others)
