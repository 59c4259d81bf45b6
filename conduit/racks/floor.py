"""A rack's sticks laid side by side on the floor: the squared line, each pipe's marks, and what is bent when.

As a crew does it: numbered, in the rack's order, one line squared across all of them where the first 90s have their
backs; all 90s bent with one setting of the shoe, then the kicks from small to large (docs/trade.md, Racks). Inches.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from conduit.bender import Hook
from conduit.bending import Arranged, ArrangedTurn, Bencher, Sheet, SheetBend
from conduit.catalogue import Message, message
from conduit.document import KickStep
from conduit.plan import Measure, PlannedMark, PlannedPiece
from conduit.racks.bend_roles import FloorRun, Role, roles_of
from conduit.racks.floor_schema import FloorCardMark, FloorItem, FloorLine, FloorMark, FloorPipe, FloorStage, FloorStick
from conduit.tables import DEFAULT_LIMITS, Limits

STAR = "star"


@dataclass(frozen=True)
class _Lying:
    """A pipe's stick on the floor: its sheet in the order in which it is bent, and each bend's part in the rack."""

    run: FloorRun
    bencher: Bencher
    piece: PlannedPiece
    sheet: Sheet
    roles: Mapping[int, Role]

    @property
    def acts(self) -> list[SheetBend]:
        """Its bends in their order; of a sweep its first."""
        return [bend for bend in self.sheet.bends if bend.begins_act]

    def star(self, step: int) -> float | None:
        """Where the back of a step's 90 is marked, from end A with the hook toward it; None where it is not on it."""
        for bend in self.sheet.bends:
            if self.roles[bend.number] == (step, "90", 0):
                marks = [mark for mark in bend.marks if mark.reference == STAR and mark.hook == "A"]
                return marks[0].at.inches if marks else None
        return None


def floor_of(runs: Sequence[FloorRun], limits: Limits = DEFAULT_LIMITS) -> list[FloorStick]:
    """The rack on the floor, stick by stick: all first sticks side by side, then all second ones.

    A run that cannot be bent has no stick here. Raises UnreadableDocument where a document is not a run at all.
    """
    benchers = [(run, Bencher(run.raw, limits)) for run in runs]
    most = max((len(bencher.plan.pieces) for _, bencher in benchers), default=0)
    return [_stick(number, list(_lying(benchers, number))) for number in range(1, most + 1)]


def _lying(benchers: Sequence[tuple[FloorRun, Bencher]], number: int) -> Iterator[_Lying]:
    for run, bencher in benchers:
        piece = next((one for one in bencher.plan.pieces if one.number == number), None)
        if piece and bencher.plan.makeable:
            roles = roles_of(run, bencher)
            yield _Lying(run, bencher, piece, _as_the_rack(bencher, piece, roles), roles)


def _as_the_rack(bencher: Bencher, piece: PlannedPiece, roles: Mapping[int, Role]) -> Sheet:
    """The stick's sheet with its 90s first and then its kicks, as all others; in its own order where that cannot be."""
    proposed = bencher.sheet(piece.number)
    acts = [bend for bend in proposed.bends if bend.begins_act]
    turns = [ArrangedTurn(bend=bend.number, hook=bend.use.hook) for bend in acts]
    turns.sort(key=lambda turn: (roles[turn.bend][1] != "90", roles[turn.bend][1] != "kick", turn.bend))
    arranged = bencher.sheet(piece.number, Arranged(order=turns)) if len(turns) > 1 else proposed
    return proposed if any(bend.breaks for bend in arranged.bends) else arranged


def _stick(number: int, lying: Sequence[_Lying]) -> FloorStick:
    step = _squared(lying)
    stars = {one.run.number: one.star(step) for one in lying} if step is not None else {}
    # Whatever has no 90 there lies with its end A at the foremost one's.
    foremost = max((star for star in stars.values() if star is not None), default=0.0)
    ahead = {number: foremost - star for number, star in stars.items() if star is not None}
    return FloorStick(
        number=number,
        line=_line(step, lying, foremost) if step is not None else None,
        pipes=[_pipe(one, ahead.get(one.run.number, 0.0)) for one in lying],
        stages=list(_stages(lying)),
    )


def _squared(lying: Sequence[_Lying]) -> int | None:
    """The step whose 90s the line is squared across: the one that most of the sticks have, the first of those."""
    steps = sorted({role[0] for one in lying for role in one.roles.values() if role[1] == "90"})
    counts = {step: sum(one.star(step) is not None for one in lying) for step in steps}
    best = max(counts.values(), default=0)
    return next((step for step, count in counts.items() if count == best), None) if best > 1 else None


def _line(step: int, lying: Sequence[_Lying], at: float) -> FloorLine:
    stars = {round(star, 6) for one in lying if (star := one.star(step)) is not None}
    return FloorLine(step=step, at=at, flush=len(stars) == 1)


def _pipe(one: _Lying, ahead: float) -> FloorPipe:
    head = one.bencher.measured.head
    return FloorPipe(
        number=one.run.number,
        name=head.name,
        material=head.material,
        trade_size=head.trade_size,
        shoe=one.bencher.shoe.name if one.bencher.shoe else "",
        length=one.piece.length,
        ahead=Measure.of(ahead, head.tape),
        is_foremost=not head.tape.tells(ahead),
        card_miss_reads=next((pipe.miss_reads for pipe in one.bencher.plan.simulated if pipe.marks == "card"), None),
        marks=[_mark(one, bend) for bend in sorted(one.acts, key=lambda bend: bend.number)],
    )


def _mark(one: _Lying, bend: SheetBend) -> FloorMark:
    return FloorMark(what=_called(one, bend), **_set(one, bend))


def _set(one: _Lying, bend: SheetBend) -> dict[str, Any]:
    use: PlannedMark = bend.use
    return {
        "bend": bend.number,
        "lifts": _lift(one, bend),
        "card": _by_card(one, bend),
        "at": use.at,
        "reference": use.reference,
        "hook": use.hook,
        "angle_reads": bend.angle_reads,
        "dial_reads": bend.dial_reads,
    }


def _by_card(one: _Lying, bend: SheetBend) -> FloorCardMark | None:
    """A bend's mark by the card's usual way, as it lies on the stick."""
    plan, layout, tape = one.bencher.plan, one.bencher.layout, one.bencher.measured.head.tape
    owner = layout.owners[bend.number - 1] if layout else None
    answer = next((card for card in plan.card if card.step == owner), None)
    mates = layout.indices_of(owner) if layout and owner is not None else []
    if not answer or len(answer.marks) != len(mates):
        return None
    mark = answer.marks[mates.index(bend.number - 1)]
    off = Measure.of(abs(mark.at.inches - mark.exact.inches), tape) if mark.exact else None
    at = Measure.of(mark.at.inches - one.piece.start, tape)
    return FloorCardMark(at=at, reference=mark.reference, hook=mark.hook, off=off)


def _called(one: _Lying, bend: SheetBend) -> Message:
    """What a bend is, in a word or two."""
    layout = one.bencher.layout
    index, (_, what, within) = bend.number - 1, one.roles[bend.number]
    if what != "bend" or not layout:
        return message(f"role.{what}")
    owner = layout.owners[index]
    step = layout.steps[owner]
    name = message(f"kind.{step.kind if step else 'left_out'}.within")
    return message("role.bend_of", kind=name, bend=within + 1) if len(layout.indices_of(owner)) > 1 else name


def _lift(one: _Lying, bend: SheetBend) -> Measure | None:
    """How far a kick lifts its 90."""
    layout, what = one.bencher.layout, one.roles[bend.number][1]
    step = layout.step_of(bend.number - 1) if layout else None
    return (
        Measure.of(step.rise, one.bencher.measured.head.tape) if isinstance(step, KickStep) and what == "kick" else None
    )


def _stages(lying: Sequence[_Lying]) -> Iterator[FloorStage]:
    """What is bent on all sticks, in turn: each time what most of them need next on one shoe, smallest angle first."""
    left = {one.run.number: one.acts for one in lying}
    pipes = {one.run.number: one for one in lying}
    while any(left.values()):
        ready: dict[tuple[str, Role, Hook], list[int]] = {}
        for number, acts in left.items():
            if acts:
                key = (_shoe(pipes[number]), pipes[number].roles[acts[0].number], acts[0].use.hook)
                ready.setdefault(key, []).append(number)
        _, numbers = max(ready.items(), key=lambda item: (len(item[1]), -item[1][0]))
        numbers.sort(key=lambda number: (round(left[number][0].angle, 2), number))
        yield _stage([(pipes[number], left[number].pop(0)) for number in numbers])


def _shoe(one: _Lying) -> str:
    head = one.bencher.measured.head
    return f"{head.material} {head.trade_size} {one.bencher.shoe.name if one.bencher.shoe else ''}"


def _stage(bends: Sequence[tuple[_Lying, SheetBend]]) -> FloorStage:
    first, bend = bends[0]
    head = first.bencher.measured.head
    places = {(one.use.reference, one.use.hook, one.use.at.reads, one.dial_reads) for _, one in bends}
    return FloorStage(
        what=_called(first, bend),
        step=first.roles[bend.number][0] if first.roles[bend.number][0] < first.run.follows else None,
        material=head.material,
        trade_size=head.trade_size,
        shoe=first.bencher.shoe.name if first.bencher.shoe else "",
        same=len(places) == 1,
        items=[FloorItem(pipe=one.run.number, **_set(one, made)) for one, made in bends],
    )
