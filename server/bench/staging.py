"""A stick's stages: begun, cut, fitted, scrapped. What acts at the bench, and the cut plan, do to its record.

Called within a transaction of an action that has checked who asks and locked the run.
"""

from typing import Any
from uuid import uuid4

from django.db import transaction
from django.dispatch import Signal
from django.utils import timezone

from conduit.bending import CannotBeDone
from conduit.catalogue import told
from server.accounts.limits import limits_of
from server.accounts.models import User
from server.bench.models import Stick
from server.bench.schemas import StageAct
from server.bench.sheets import Benches, arranged_of, made_on
from server.bench.status import follow_status
from server.errors import Conflict, as_sentence
from server.jobs.models import Run
from server.sentences import message

# Sent when a stick was cut, fitted or scrapped at the bench, or that was taken back; in the same transaction.
# A cut that names its `source`, the tag of a scrap, comes with the `length` that was cut, in inches.
stage_done = Signal()
# Sent when what a stick is to be cut to was changed at the bench, with that `length` in inches; same transaction.
cut_length_changed = Signal()


@transaction.atomic
def mark_cut(user: User, run: Run, piece: int) -> None:
    """A piece of a run (its row locked) was cut by the cut plan. Raises Conflict where the run has no such piece."""
    _mark(user, run, StageAct(kind="cut", key=uuid4(), piece=piece, at=timezone.now()))


@transaction.atomic
def mark_uncut(user: User, run: Run, piece: int) -> None:
    """That it was cut was a mistake. Raises Conflict where it is bent already."""
    _mark(user, run, StageAct(kind="uncut", key=uuid4(), piece=piece, at=timezone.now()))


@transaction.atomic
def mark_set_aside(user: User, run: Run, piece: int) -> None:
    """A piece that was cut is used elsewhere: the stick begins anew. Raises Conflict where it is bent already."""
    stick = run.sticks.filter(piece=piece, live=True).first()
    if made_on(stick):
        raise Conflict(message("bench.discard.bends_made"))
    _mark(user, run, StageAct(kind="scrapped", key=uuid4(), piece=piece, at=timezone.now()))


def _mark(user: User, run: Run, act: StageAct) -> None:
    benches = Benches(run, user)
    if act.piece not in benches.pieces():
        raise Conflict(message("bench.piece.gone", piece=act.piece))
    stick = benches.rows.get(act.piece) or Stick(crew=run.crew, run=run, piece=act.piece)
    try:
        stage(user, run, stick, act)
    except CannotBeDone as error:
        raise Conflict(as_sentence(told(error))) from error
    follow_status(run, Benches(run, user, benches))


def arrange_spare(user: User, run: Run, piece: int, spare: str) -> None:
    """What the cut plan leaves long on a piece's end B, unless the piece is begun."""
    stick = Stick.objects.filter(run=run, piece=piece, live=True).first() or Stick(crew=run.crew, run=run, piece=piece)
    known = str(stick.arranged.get("spare") or "0")
    if stick.document is None and known != spare:
        stick.arranged = {**stick.arranged, "spare": spare}
        stick.save()


def length_on_own_shoe(user: User, run: Run, piece: int) -> float | None:
    """What a stick that has a shoe of its own is to be cut to, in inches; None where it has none, or is begun."""
    stick = Stick.objects.filter(run=run, piece=piece, live=True, document__isnull=True).first()
    if not stick or arranged_of(stick).shoe is None:
        return None
    return Benches(run, user).sheet(piece).cut.inches


def begun(run: Run, stick: Stick) -> None:
    """From now on the stick is what was laid out, whatever is changed in the run."""
    if stick.document is None:
        stick.document, stick.limits = run.document, limits_of(run.crew).model_dump()
    stick.save()


def stage(user: User, run: Run, stick: Stick, act: Any) -> None:
    """Bring a stick to the stage that an act names. Raises CannotBeDone."""
    at = act.at
    match act.kind:
        case "cut":
            stick.cut_at, stick.cut_by = stick.cut_at or at, stick.cut_by or user
            begun(run, stick)
        case "uncut":
            if made_on(stick):
                raise CannotBeDone(message("bench.cut.bends_made"))
            stick.cut_at = stick.cut_by = stick.document = stick.limits = stick.number_then = None
            stick.save()
        case "fitted":
            stick.fitted_at, stick.fitted_by = stick.fitted_at or at, stick.fitted_by or user
            begun(run, stick)
        case "unfitted":
            stick.fitted_at = stick.fitted_by = None
            stick.save()
        case "scrapped":
            if stick.pk:
                stick.live = None
                stick.save()
