"""What a change of a run means for its pieces that are reserved, cut or bent: each told as it would then be."""

from collections.abc import Iterator

from django.shortcuts import get_object_or_404

from conduit.as_typed import AsWritten
from conduit.bending import NoSuchStick, laid
from conduit.catalogue import Message, told
from conduit.cutting import IN_AN_INCH, lies, number_of
from conduit.plan import Plan
from conduit.units import TOLERANCE, Tape
from server.accounts.models import User
from server.bench.models import Stick
from server.bench.sheets import Benches, arranged_of, kept_of, made_on
from server.cutting.models import Cut
from server.cutting.schemas import UnderChange
from server.jobs.models import Run
from server.sentences import message

# Lengths that differ by less are the same to a saw, in inches.
SAME_CUT = 1 / 32


def under_change(user: User, run_id: int, document: AsWritten) -> list[UnderChange]:
    """The pieces of a run that are worked on and that this document would have otherwise, each with what differs."""
    run = get_object_or_404(Run.objects.for_user(user), pk=run_id)
    cuts = {cut.piece: cut for cut in Cut.objects.filter(run=run, live=True)}
    begun = run.sticks.filter(live=True, document__isnull=False)
    if not cuts and not begun.exists():
        return []
    before = Benches(run, user)
    # The same run with another document: it is never saved.
    changed = Run(pk=run.pk, crew=run.crew, job=run.job, document=document)
    after = Benches(changed, user)
    # Of a run that is not whole yet nothing can be told.
    return list(_pieces(before, after, cuts)) if after.now.plan.makeable else []


def _pieces(before: Benches, after: Benches, cuts: dict[int, Cut]) -> Iterator[UnderChange]:
    begun = {piece for piece, stick in before.rows.items() if stick.document is not None}
    for piece in sorted(begun | cuts.keys()):
        stick, cut = before.rows.get(piece), cuts.get(piece)
        says = _differs(before, after, piece, stick if piece in begun else None, cut)
        if says:
            yield UnderChange(piece=piece, begun=piece in begun, reserved=piece not in begun, says=told(says))


def _differs(before: Benches, after: Benches, piece: int, stick: Stick | None, cut: Cut | None) -> Message | None:
    """What of a piece would be otherwise; nothing where a hand could not tell."""
    if cut and not stick and number_of(after.now.plan, (cut.start, cut.end)) is not None:
        return None
    was = (cut.came_out or cut.length) / IN_AN_INCH if cut else before.sheet(piece).cut.inches
    tape = after.now.measured.head.tape
    figures: dict[str, str | float] = {"piece": piece, "was": tape.shows(was)}
    try:
        now = after.now.sheet(piece, arranged_of(before.rows.get(piece)))
    except NoSuchStick:
        return message("changed.gone", **figures)
    over = was - now.cut.inches
    figures |= {"now": now.cut.reads, "by": tape.shows(abs(over))}
    same_length = abs(over) < SAME_CUT + TOLERANCE
    if not stick:
        return None if same_length else message("changed.reserved", **figures)
    made = bool(made_on(stick))
    if not same_length:
        state = "fitted" if stick.fitted_at else "bent" if made else "cut"
        return message(f"changed.{state}.{'long' if over > 0 else 'short'}", **figures)
    if laid(now) == laid(before.sheet_with(kept_of(stick), piece, ())):
        return None
    return message("changed.made" if made else "changed.marked", **figures)


def since_cut(plan: Plan, cut: Cut, tape: Tape) -> str:
    """What a piece that is cut is to its run as it is planned now, in words; nothing where it still serves."""
    own = next((piece for piece in plan.pieces if piece.number == cut.piece), None)
    if not plan.makeable:
        return ""
    if not own:
        return told(message("changed.since.gone"))
    start, end = lies(plan, own)
    over = (cut.end - cut.start) - (end - start)
    figures = {"by": tape.shows(abs(over) / IN_AN_INCH), "now": tape.shows((cut.length - over) / IN_AN_INCH)}
    return told(message(f"changed.since.{'long' if over > 0 else 'short'}", **figures)) if over else ""
