"""Fixes that have to be tried: each is applied to the document and kept only where its finding is then gone.

What makes the whole run makeable comes first. It costs many times what a verdict does, so it is asked for by itself.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import singledispatch
from itertools import islice, pairwise
from typing import Any, NamedTuple

from conduit.catalogue import Message, message
from conduit.document import (
    AnyStep,
    KickStep,
    MeasuredRun,
    RolledStep,
    Saddle3Step,
    Saddle4Step,
    apply_edits,
    read_length,
)
from conduit.findings import Code, Edit, Finding, Fix, inserting, setting, stops
from conduit.layout import Layout, closure_of
from conduit.plan.alternatives import reliefs
from conduit.plan.candidates import candidates
from conduit.plan.checked_run import CheckedRun, check_run
from conduit.plan.closing import legs_of, put_on, shared_over
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import Tape, format_angle, write_angle

MOST_FIXES = 4
# Each try lays the run out anew: so many for one finding, and for all of a run.
MOST_TRIES, MOST_IN_ALL = 8, 48
# Where the surface mostly lies, the likeliest first.
SURFACES = ("in", "down", "up", "left", "right", "out")
SETBACKS = (3, 4, 6)
# By how much more a turn is moved where its bends have no order, in inches.
APART = (2.0, 4.0, 8.0, 12.0)
# How much farther from a bend than it must a coupling is put, in inches.
ASIDE = 1.0
# By how much more than the least, in inches.
FARTHER = (0.0, 0.5, 1.0, 2.0, 3.0, 4.0, 6.0, 8.0)


@dataclass(frozen=True)
class _RunToFix:
    raw: Mapping[str, Any]
    checked: CheckedRun
    layout: Layout

    @property
    def measured(self) -> MeasuredRun:
        return self.checked.measured


def remedies_of(raw: object, limits: Limits = DEFAULT_LIMITS) -> list[Finding]:
    """What is found of a run, each finding with the fixes that were tried and do away with it.

    First those after which the whole run can be made; `Fix.whole` tells. Raises UnreadableDocument where `raw` is not
    a run document at all.
    """
    checked = check_run(raw, limits)
    if not isinstance(raw, Mapping) or not checked.layout:
        return list(checked.findings)
    run = _RunToFix(raw, checked, checked.layout)
    left, found = MOST_IN_ALL, list[Finding]()
    for finding in checked.findings:
        with_its_own = _with_fixes(run, finding, min(left, MOST_TRIES))
        left -= with_its_own.tries
        found.append(with_its_own.finding)
    return found


def untried(findings: Sequence[Finding]) -> list[Finding]:
    """Findings as a plan tells them at once: without fixes that must be tried before they are offered."""
    return [one.model_copy(update={"fixes": ()}) if one.code in _BETTER else one for one in findings]


class _Tried(NamedTuple):
    """A finding with what does away with it, and how many fixes were tried for that."""

    finding: Finding
    tries: int


def _with_fixes(run: _RunToFix, finding: Finding, most_tries: int) -> _Tried:
    known, most = (_BETTER, 1) if finding.fixes else (_CANDIDATES, MOST_FIXES)
    candidates = known.get(finding.code)
    if not candidates:
        return _Tried(finding, 0)
    good, tries = list[Fix](), 0
    for fix in islice(candidates(run, finding), most_tries):
        tries += 1
        whole = _outcome(run, finding, fix)
        if whole is not None:
            good.append(fix.model_copy(update={"whole": whole}))
        if sum(one.whole is True for one in good) == most:
            break
    good.sort(key=lambda fix: not fix.whole)
    return _Tried(finding.model_copy(update={"fixes": tuple(good[:most]) or finding.fixes}), tries)


def _outcome(run: _RunToFix, finding: Finding, fix: Fix) -> bool | None:
    """With the fix, whether the whole run can be made; None where the finding stays, or the run gets worse."""
    mended = check_run(apply_edits(run.raw, fix.edits), run.checked.limits)
    gone = not any(one.code == finding.code and one.place == finding.place for one in mended.findings)
    if not mended.layout or not gone or (run.layout.complete and not mended.layout.complete):
        return None
    if _stops(mended) > _stops(run.checked) - (finding.severity == "stop"):
        return None
    return mended.layout.complete and not stops(mended.findings)


def _stops(checked: CheckedRun) -> int:
    return sum(one.severity == "stop" for one in checked.findings)


def _step_number(finding: Finding) -> int:
    return int(finding.place.split(".")[1])


def _flatter(run: _RunToFix, finding: Finding) -> Iterator[Fix]:
    """For bends that run into each other: the steepest that works comes first; a kick goes further back."""
    number = _step_number(finding)
    step, place = run.measured.steps[number], f"steps.{number}"
    yield from _gentler(step, place, run.measured.head.tape)


@singledispatch
def _gentler(step: AnyStep | None, place: str, tape: Tape) -> Iterator[Fix]:
    """What makes the bends of a step gentler, by its kind; of most nothing. Offsets say what would do themselves."""
    return iter(())


@_gentler.register
def _kicked_from_farther(step: KickStep, place: str, tape: Tape) -> Iterator[Fix]:
    for times in SETBACKS:
        back = tape.at_least(step.rise * times)
        edits = (
            Edit(op="set", place=f"{place}.kick_back", value=back),
            Edit(op="set", place=f"{place}.kick_angle", value=None),
        )
        yield Fix(says=message("fix.kick_back", back=back), edits=edits)


@_gentler.register
def _at_flatter_angles(step: Saddle3Step | Saddle4Step | RolledStep, place: str, tape: Tape) -> Iterator[Fix]:
    for angle in sorted(step.card_angles, reverse=True):
        if angle < step.angle:
            says = message("fix.bend_at", angle=format_angle(angle))
            yield setting(says, f"{place}.angle", write_angle(angle))


def _farther(run: _RunToFix, finding: Finding) -> Iterator[Fix]:
    """For a bend that begins too near: the least measure with room for it, then more, until it can be bent too."""
    tape = run.measured.head.tape
    for fix in finding.fixes:
        least = read_length(fix.edits[0].place, fix.edits[0].value, tape.step)
        if least is None:
            continue  # farther than a run may be
        for more in FARTHER:
            value = tape.at_least(least + more)
            yield setting(message("fix.make_it", value=value), fix.edits[0].place, value)


def _other_way(run: _RunToFix, finding: Finding) -> Iterator[Fix]:
    """For a thing that is not cleared: the same step done another way."""
    yield from _ways_of_step(run, _step_number(finding))


def _ways_of_step(run: _RunToFix, number: int) -> Iterator[Fix]:
    step, written = run.measured.steps[number], run.raw["steps"][number]
    if step is not None:
        for one in candidates(step, written, run.measured.head.tape):
            yield setting(one.name, f"steps.{number}", one.written)


def _in_two(run: _RunToFix, finding: Finding) -> Iterator[Fix]:
    """For a piece whose bends have no order: a coupling between two steps or next to them, a step farther on or done
    another way.

    In turn, the easiest of each first; a coupling within a step, as in an offset's travel, comes last of all.
    """
    bends, owner, own = run.layout.path.bends, run.layout.owners, _bends_of_piece(run, finding)
    pairs = sorted(pairwise(own), key=lambda pair: bends[pair[0]].end - bends[pair[1]].start)
    between = (_coupling(run, *pair) for pair in pairs if owner[pair[0]] != owner[pair[1]])
    numbers = list(dict.fromkeys(owner[number] for number in own))
    ways = (_of_step(number, fix) for number in numbers for fix in _ways_of_step(run, number))
    apart = (fix for more in APART for number in numbers[1:] for fix in _moved_on(run, number, more))
    yield from _in_turn(between, _shorter_legs(run, own), apart, ways)
    yield from (_coupling(run, *pair) for pair in pairs if owner[pair[0]] == owner[pair[1]])


def _halved(run: _RunToFix, finding: Finding) -> Iterator[Fix]:
    """For a piece of very many bends: a coupling between two steps, the nearest to its middle first."""
    owner, own = run.layout.owners, _bends_of_piece(run, finding)
    pairs = [(one, other) for one, other in pairwise(own) if owner[one] != owner[other]]
    middle = (own[0] + own[-1]) / 2
    return (_coupling(run, *pair) for pair in sorted(pairs, key=lambda pair: abs(pair[0] + 0.5 - middle)))


def _of_step(number: int, fix: Fix) -> Fix:
    """A fix told with the step that it is of."""
    return fix.model_copy(update={"says": message("fix.step_way", number=number + 1, way=fix.says)})


def _in_turn(*kinds: Iterator[Fix]) -> Iterator[Fix]:
    """One of each kind, then the next of each, to the end of all."""
    left = list(kinds)
    while left:
        for one in list(left):
            fix = next(one, None)
            if fix:
                yield fix
            else:
                left.remove(one)


def _coupling(run: _RunToFix, one: int, other: int) -> Fix:
    """A coupling in the middle between two bends."""
    bends = run.layout.path.bends
    says = message("fix.coupling_between", one=one + 1, other=other + 1)
    return _coupled(run, says, (bends[one].end + bends[other].start) / 2)


def _coupled(run: _RunToFix, says: Message, along: float) -> Fix:
    """A coupling so far along the pipe, beside those that are put in place already."""
    tape, at = run.measured.head.tape, run.measured.head.tape.rounded(along)
    return setting(says, "couplings", [tape.written(place) for place in sorted({*run.measured.head.couplings, at})])


def _shorter_legs(run: _RunToFix, own: Sequence[int]) -> Iterator[Fix]:
    """A coupling close to the piece's first or last bend: a leg that is short stands in nobody's way."""
    path, clear = run.layout.path, run.checked.limits.clear_of_bend + ASIDE
    before, after = path.bends[own[0]].start - clear, path.bends[own[-1]].end + clear
    least = run.checked.limits.least_piece
    if before > least:
        yield _coupled(run, message("fix.coupling_before", bend=own[0] + 1), before)
    if after < path.length - least:
        yield _coupled(run, message("fix.coupling_after", bend=own[-1] + 1), after)


def _moved_on(run: _RunToFix, number: int, more: float) -> Iterator[Fix]:
    """A step's own measure so much farther on, where it has one."""
    step = run.measured.steps[number]
    measure = getattr(step, step.placed_by, None) if step else None
    if step and measure is not None:
        value = run.measured.head.tape.at_least(measure + more)
        says = message("fix.step_farther", number=number + 1, value=value)
        yield setting(says, f"steps.{number}.{step.placed_by}", value)


def _bends_of_piece(run: _RunToFix, finding: Finding) -> list[int]:
    """The numbers of all bends of the piece that a finding is about."""
    bends = run.layout.path.bends
    first = bends[run.layout.owners.index(_step_number(finding))]
    start, end = next((start, end) for start, end in run.checked.pieces if start <= first.start < end)
    return [number for number, bend in enumerate(bends) if start <= bend.start < end]


def _fewer_degrees(run: _RunToFix, finding: Finding) -> Iterator[Fix]:
    for relief in reliefs(run.measured, run.layout):
        if not relief.enough:
            continue
        if relief.angle is not None:
            says = message("fix.step_at", number=relief.step + 1, angle=format_angle(relief.angle))
            yield setting(says, f"steps.{relief.step}.angle", write_angle(relief.angle))
        else:
            says = message("fix.pull_point", number=relief.step + 1)
            yield inserting(says, f"steps.{relief.step}", _pull_point(run, relief.step))


def _pull_point(run: _RunToFix, number: int) -> dict[str, Any]:
    """A pull point in the middle of the straight before a step's first bend, measured as the step is."""
    bend = run.layout.path.bends[run.layout.owners.index(number)]
    datum = run.layout.datums[number]
    middle = bend.entry.along(bend.heading_before, -bend.straight_before / 2)
    at = run.measured.head.tape.rounded(middle.minus(datum.point).dot(datum.heading))
    return {"kind": "pull_point", "name": "", "at": run.measured.head.tape.written(max(at, 0.0))}


def _box_offset(run: _RunToFix, finding: Finding) -> Iterator[Fix]:
    """Straps that hold the pipe as high as the knockout, or a box offset from it to the pipe on its strap."""
    at_start = finding.place.startswith("start")
    box = run.measured.start if at_start else run.measured.end
    place, tape = "steps.0" if at_start else f"steps.{len(run.measured.steps)}", run.measured.head.tape
    if not box or box.knockout is None:
        return
    shoe = run.checked.shoe
    stand_off = box.knockout - shoe.diameter / 2 if shoe else 0.0
    if stand_off > 0:
        off = tape.written(tape.rounded(stand_off))
        yield setting(message("fix.straps", off=off), "stand_off", off)
    for surface in SURFACES:
        step = {
            "kind": "box_offset",
            "surface": surface,
            "knockout": tape.written(box.knockout),
            "stand_off": tape.written(run.measured.head.stand_off),
            "straight": tape.written(2.0),
            "angle": "10",
            "end": "start" if at_start else "end",
        }
        yield inserting(message(f"fix.box_offset.{'start' if at_start else 'end'}"), place, step)


def _more_straight(run: _RunToFix, finding: Finding) -> Iterator[Fix]:
    """The measure, or the straight kept, with what is missing added."""
    head, path = run.measured.head, run.layout.path
    least = run.checked.limits.straight_at_connector
    if finding.place == "end.at":
        end = run.measured.end
        if end and end.at is not None:
            value = head.tape.at_least(end.at + least - path.straight_after)
            yield setting(message("fix.seat_at", value=value), "end.at", value)
        return
    number = _step_number(finding)
    step = run.measured.steps[number]
    field = step.placed_by if step else "at"
    measure = getattr(step, field, None)
    if measure is not None:
        value = head.tape.at_least(measure + least - path.bends[0].straight_before)
        yield setting(message("fix.make_it", value=value), f"steps.{number}.{field}", value)


def _shared(run: _RunToFix, finding: Finding) -> Iterator[Fix]:
    """For a closing error: shared over all legs by their length, or put on one of them alone."""
    error = closure_of(run.layout, run.measured)
    if error is None:
        return
    legs = legs_of(run.layout, run.measured)
    if not legs:
        return
    yield from shared_over(run.measured, legs, error)
    for leg in sorted(legs, key=lambda one: -one.at):
        yield from put_on(run.measured, leg, error)


# For findings that bring a fix which was not tried: the first that does, its own or one like it.
_BETTER = {Code.TOO_NEAR: _farther}
_CANDIDATES = {
    Code.BENDS_OVERLAP: _flatter,
    Code.SHORT_STRAIGHT: _other_way,
    Code.NO_ORDER: _in_two,
    Code.ORDER_NOT_FOUND: _halved,
    Code.RUNS_INTO_THING: _other_way,
    Code.LITTLE_CLEARANCE: _other_way,
    Code.TOO_MANY_DEGREES: _fewer_degrees,
    Code.KNOCKOUT: _box_offset,
    Code.STRAIGHT_AT_CONNECTOR: _more_straight,
    Code.CLOSURE: _shared,
}
