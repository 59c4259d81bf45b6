"""A piece's bends as the search for an order sees them; and what tools must read on the way."""

import math
from collections.abc import Sequence

from conduit.bench import Bench, Reading, is_ninety, is_offset, rise_reading
from conduit.geometry.path import PathBend, tangent_length
from conduit.geometry.vectors import DIRECTIONS, ORIGIN
from conduit.layout import Layout
from conduit.marks import marks_for, recommend
from conduit.order import Habit
from conduit.prove import proposed_settings
from conduit.reach import Unit
from conduit.shoe import Shoe
from conduit.simulate import Bent, Pose, bend_pipe
from conduit.steps import AnyStep, BoxOffsetStep, KickStep, Saddle3Step, SweepStep
from conduit.units import format_angle


def units_of(
    layout: Layout, steps: Sequence[AnyStep | None], shoe: Shoe, start: float, end: float
) -> tuple[list[Unit], list[list[int]]]:
    """The piece's units from `start` to `end` on the run's pipe, and each unit's bends (indices in the run)."""
    units: list[Unit] = []
    groups: list[list[int]] = []
    for index, bend in enumerate(layout.path.bends):
        if not start <= bend.start < end:
            continue
        owner = layout.owners[index]
        if isinstance(steps[owner], SweepStep) and groups and layout.owners[groups[-1][0]] == owner:
            last = units.pop()
            groups[-1].append(index)
            called = f"{groups[-1][0] + 1} to {index + 1}"
            units.append(Unit(called, last.start, bend.end - start, last.angle + bend.angle, last.roll))
            continue
        hook = recommend(marks_for(bend, shoe, start), end - start).mark.hook
        units.append(Unit(str(index + 1), bend.start - start, bend.end - start, bend.angle, bend.roll, hook))
        groups.append([index])
    return units, groups


def habits_of(layout: Layout, steps: Sequence[AnyStep | None], groups: Sequence[Sequence[int]]) -> list[Habit]:
    """The rules of the trade for these units, as preferences with reasons."""
    owners = [layout.owners[group[0]] for group in groups]
    habits: list[Habit] = []
    for number, owner in enumerate(owners):
        step = steps[owner]
        mates = [i for i, other in enumerate(owners) if other == owner]
        if isinstance(step, Saddle3Step) and len(mates) == 3 and number != mates[1]:
            habits.append(Habit(number, 1 << mates[1], 5.0, "Saddle: the centre first, the outer two after."))
        if isinstance(step, KickStep) and len(mates) == 2:
            kick, stub = (mates[0], mates[1]) if step.when == "before" else (mates[1], mates[0])
            if number == kick:
                habits.append(Habit(number, 1 << stub, 5.0, "The stub before its kick."))
        if isinstance(step, BoxOffsetStep) and step.end == "end":
            others = sum(1 << i for i, other in enumerate(owners) if other != owner)
            habits.append(Habit(number, others, 1.0, "The box offset at the far end last, after trimming to length."))
        if number not in mates[:1] and not isinstance(step, Saddle3Step | KickStep):
            habits.append(Habit(number, 1 << mates[0], 0.5, "Along the pipe within one offset."))
        habits += _finish_first(steps, owners, number, owner)
    return habits


def _finish_first(steps: Sequence[AnyStep | None], owners: Sequence[int], number: int, owner: int) -> list[Habit]:
    """A box offset at the measured end comes first; what is begun is finished before the next along the pipe."""
    habits = [
        Habit(number, mates, 4.0, "What is begun is finished first.", begun=True)
        for mates in _other_steps(owners, owner)
    ]
    first = [i for i, other in enumerate(owners) if isinstance(steps[other], BoxOffsetStep) and other < owner]
    begun = sum(1 << i for i in first)
    return [*habits, Habit(number, begun, 1.0, "Box offset first, at the measured end.")] if begun else habits


def _other_steps(owners: Sequence[int], owner: int) -> list[int]:
    """The bends of each other step that has several, as bits."""
    others = [other for other in dict.fromkeys(owners) if other != owner and owners.count(other) > 1]
    return [sum(1 << i for i, one in enumerate(owners) if one == other) for other in others]


def half_bent(bends: Sequence[PathBend], shoe: Shoe, start: float, length: float) -> Bent:
    """The piece with only `bends` made (of the run, which starts at `start` on the run's pipe)."""
    settings = proposed_settings(bends, shoe, start=start, length=length)
    return bend_pipe(length, settings, shoe, Pose(ORIGIN, DIRECTIONS["right"], DIRECTIONS["up"]))


def readings_now(
    bench: Bench, done: Sequence[int], just_made: int, shoe: Shoe, start: float, length: float
) -> list[Reading]:
    """What tape and level must read right after a bend, with only the bends `done` made, in whatever order."""
    bends = bench.path.bends
    bend = bends[just_made]
    level = Reading("level", "Angle between the two legs", format_angle(math.degrees(bend.angle)))
    mates = [i for i, owner in enumerate(bench.owners) if owner == bench.owners[just_made]]
    if is_offset(bench, just_made) and len(mates) == 2 and set(mates) <= {*done, just_made}:
        return [rise_reading(bench, mates[1]), Reading("level", "Both outer legs", "parallel"), level]
    if not is_ninety(bench, just_made):
        return [level]
    bent = half_bent([bends[i] for i in sorted({*done, just_made})], shoe, start, length)
    before = [i for i in done if i < just_made and is_ninety(bench, i)]
    base, called = bent.start.point, "End A"
    if before:
        last = bends[max(before)]
        leaves = bent.pose_at(last.end - start)
        corner = leaves.point.along(leaves.heading, -tangent_length(shoe.radius, last.angle))
        base, called = corner.along(leaves.heading, -bench.diameter / 2), f"Back of bend {max(before) + 1}"
    enters = bent.pose_at(bend.start - start)
    corner = enters.point.along(enters.heading, tangent_length(shoe.radius, bend.angle))
    reach = corner.minus(base).dot(enters.heading) + bench.diameter / 2
    return [Reading("tape", f"{called} to the back of this bend", bench.shows(reach)), level]
