"""Which stick an act means that was done on an earlier version of its run, as without a network.

An act names its piece by the number that it had on the sheet that it was done by. Couplings planned since number the
pieces anew: the piece is known by where it lies along the run.
"""

from conduit.as_typed import AsWritten
from conduit.bending import CannotBeDone, NoSuchStick, laid
from conduit.cutting import Span, lies, number_of
from conduit.plan import Plan
from server.bench.models import Stick
from server.bench.schemas import AnyAct
from server.bench.sheets import Benches, limits_then, own_number
from server.jobs.models import Revision
from server.jobs.plans import plan_of
from server.sentences import message

# What makes a stick what was laid out; without one of them it is as the run is.
BEGINS = {"cut", "fitted", "bent", "checked"}


def stick_meant(benches: Benches, act: AnyAct) -> Stick:
    """The stick that an act means; one that is laid out otherwise now is begun as it was. Raises CannotBeDone."""
    then = _document_then(benches, act)
    if then is None:
        return _numbered(benches, act.piece)
    plan = plan_of(then, benches.limits)
    span = span_of(plan, act.piece)
    if span is None:
        return _numbered(benches, act.piece)
    begun = next((row for row in benches.rows.values() if row.document is not None and begun_span(row) == span), None)
    if begun:
        return begun
    number = _nearest(benches.now.plan, span)
    if number and _lies_as_then(benches, number, then, act.piece):
        return _numbered(benches, number)
    if act.kind not in BEGINS:
        raise CannotBeDone(message("bench.stick.changed_before_it", piece=act.piece))
    return _begun_as_it_was(benches, number, then, act.piece)


def _nearest(plan: Plan, span: Span) -> int | None:
    """The number of the piece that lies so along the run, or else of the one that has more than half of it."""
    same = number_of(plan, span)
    if same:
        return same
    shared = {piece.number: _shared(lies(plan, piece), span) for piece in plan.pieces}
    most = max(shared, key=lambda number: shared[number], default=None)
    return most if most and 2 * shared[most] > span[1] - span[0] else None


def _shared(one: Span, other: Span) -> int:
    return min(one[1], other[1]) - max(one[0], other[0])


def _begun_as_it_was(benches: Benches, number: int | None, then: AsWritten, piece: int) -> Stick:
    """A stick of this number, or of one after all others where a begun one has it, begun by the run as it was then."""
    run = benches.run
    there = benches.rows.get(number) if number else None
    if number is None or (there and there.document is not None):
        there, number = None, max([*benches.pieces(), *benches.rows], default=0) + 1
    stick: Stick = there or Stick(crew=run.crew, run=run, piece=number)
    stick.number_then, stick.document, stick.limits = piece, then, benches.limits.model_dump()
    stick.arranged = {}
    stick.save()
    return stick


def _document_then(benches: Benches, act: AnyAct) -> AsWritten | None:
    """The run as it was on the sheet that an act was done by; None where it is so still, or that is not known."""
    run = benches.run
    if act.version is None or act.version == run.version:
        return None
    saved = Revision.objects.filter(run=run, version=act.version).first()
    return saved.document if saved and saved.document != run.document else None


def _numbered(benches: Benches, piece: int) -> Stick:
    """The stick of this number. Raises CannotBeDone where the run has none."""
    if piece not in benches.pieces():
        raise CannotBeDone(message("stick.no_piece", piece=piece))
    return benches.rows.get(piece) or Stick(crew=benches.run.crew, run=benches.run, piece=piece)


def _lies_as_then(benches: Benches, number: int, then: AsWritten, piece: int) -> bool:
    """Whether a piece of the run is laid out as that one of the earlier version was."""
    try:
        before = benches.bencher(then, benches.limits).sheet(piece)
        return laid(benches.now.sheet(number)) == laid(before)
    except NoSuchStick:
        return False


def span_of(plan: Plan, number: int) -> Span | None:
    """Where a piece lies on its run."""
    own = next((piece for piece in plan.pieces if piece.number == number), None)
    return lies(plan, own) if own else None


def begun_span(stick: Stick) -> Span | None:
    """Where a stick lies in the plan of the document that it was begun with."""
    return span_of(plan_of(stick.document or {}, limits_then(stick)), own_number(stick))
