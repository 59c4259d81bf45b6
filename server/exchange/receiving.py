"""Reading files in: they come part by part, are read in the background, looked at, and taken into a job."""

from base64 import b64decode
from binascii import Error as NotBase64

from django.db import transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from conduit.catalogue import language_now
from server.accounts.models import User
from server.accounts.permissions import Right, require
from server.accounts.visiting import be_where
from server.errors import Busy, Conflict, Refused
from server.exchange.models import AT_WORK, Import, ImportedRun, ImportPart, State
from server.exchange.reading import FAILED, read_import
from server.exchange.schemas import A_PART, ImportIn, MeantIn, PartIn, TakeImportIn, TakenImport, UnpackIn
from server.exchange.taking_in import take_archive
from server.jobs.actions import add_job, add_run
from server.jobs.models import JobBox
from server.jobs.space import box_key_of, place_box
from server.sentences import message

# Of one person, at a time and in two days.
MOST_AT_ONCE, MOST_KEPT = 3, 40


def begin_import(user: User, given: ImportIn) -> Import:
    """Have a file read in; its bytes come next. Raises Busy."""
    crew = require(user, Right.WORK)
    mine = Import.objects.filter(by=user)
    if len([one for one in mine.filter(state__in=AT_WORK) if not one.is_lost]) >= MOST_AT_ONCE:
        raise Busy(message("exchange.enough_in", most=MOST_AT_ONCE))
    # The oldest go; what became of them stays in its job.
    old = list(mine.order_by("-pk").values_list("pk", flat=True)[MOST_KEPT - 1 :])
    Import.objects.filter(pk__in=old).delete()
    return Import.objects.create(
        crew=crew, by=user, name=given.name, length=given.length, language=language_now(), state=State.COMING
    )


@transaction.atomic
def add_part(user: User, import_id: int, given: PartIn) -> Import:
    """Keep some of a file's bytes; once all are there it is read. Raises Refused."""
    require(user, Right.WORK)
    one = _of(user, import_id, locked=True)
    if one.state != State.COMING:
        return one
    data = _decoded(given.data)
    last = (one.length - 1) // A_PART
    wanted = A_PART if given.number < last else one.length - last * A_PART
    if given.number > last or len(data) != wanted:
        raise Refused(message("exchange.no_such_part"), {"data": message("exchange.no_such_part")})
    ImportPart.objects.get_or_create(of=one, number=given.number, defaults={"data": data})
    if one.parts.count() == last + 1:
        _have_read(one)
    return one


def _decoded(data: str) -> bytes:
    try:
        return b64decode(data, validate=True)
    except (NotBase64, ValueError) as error:
        raise Refused(message("exchange.no_base64"), {"data": message("exchange.no_base64")}) from error


def _have_read(one: Import) -> None:
    """In the same transaction as what it is to be read by."""
    one.state, one.says, one.asks, one.heard_at = State.WAITING, "", "", timezone.now()
    one.save(update_fields=["state", "says", "asks", "heard_at", "meant"])
    read_import.enqueue(one.pk)
    one.refresh_from_db()


@transaction.atomic
def read_anew(user: User, import_id: int, given: MeantIn) -> Import:
    """Read it as it is meant. Raises Conflict while it still comes, is read, or was taken."""
    require(user, Right.WORK)
    one = _of(user, import_id, locked=True)
    if one.state not in (State.DONE, State.FAILED) and not one.is_lost:
        raise Conflict(message("exchange.not_read_anew"))
    one.meant = given.model_dump()
    _have_read(one)
    return one


def import_of(user: User, import_id: int) -> Import:
    """A file that the person reads in. One whose reader is gone has failed."""
    one = _of(user, import_id)
    if one.is_lost:
        one.state, one.says = State.FAILED, FAILED
    return one


def _of(user: User, import_id: int, locked: bool = False) -> Import:
    mine = Import.objects.for_user(user).filter(by=user)
    return get_object_or_404(mine.select_for_update() if locked else mine, pk=import_id)


def picture_of(user: User, import_id: int, number: int) -> str:
    """A run's view from the front, as SVG."""
    return get_object_or_404(ImportedRun.objects.filter(of=_of(user, import_id)), number=number).picture


@transaction.atomic
def take(user: User, import_id: int, given: TakeImportIn) -> TakenImport:
    """Make what was read runs of a job, once. Raises Conflict, Refused."""
    require(user, Right.WORK)
    one = _of(user, import_id, locked=True)
    if one.state != State.DONE:
        raise Conflict(message("exchange.not_to_take"))
    chosen = list(one.runs.filter(number__in=given.runs))
    if not chosen or len(chosen) != len(set(given.runs)):
        raise Refused(message("exchange.none_chosen"), {"runs": message("exchange.none_chosen")})
    job_id = _job_for(user, given)
    left = _place_boxes(user, one, job_id) if given.boxes else []
    for read in chosen:
        read.run = add_run(user, job_id, read.document)
        read.save(update_fields=["run"])
    one.state, one.job_id = State.TAKEN, job_id
    one.save(update_fields=["state", "job"])
    return TakenImport(job_id=job_id, run_ids=[read.run.pk for read in chosen if read.run], boxes_left=left)


@transaction.atomic
def unpack_import(user: User, import_id: int, given: UnpackIn) -> Import:
    """Have an archive made part of the crew, once. Raises Conflict."""
    require(user, Right.WORK)
    one = _of(user, import_id, locked=True)
    if one.state != State.DONE or one.archive is None:
        raise Conflict(message("exchange.not_to_take"))
    if one.archive["of"] == "crew":
        require(user, Right.DELETE)
    one.state, one.unpack_as, one.heard_at = State.WAITING, given.name.strip(), timezone.now()
    one.save(update_fields=["state", "unpack_as", "heard_at"])
    take_archive.enqueue(one.pk)
    one.refresh_from_db()
    return one


def _job_for(user: User, given: TakeImportIn) -> int:
    """The job that it goes into; a new one where none is said. Raises Refused."""
    if given.job_id is None:
        if not given.job_name.strip():
            raise Refused(message("exchange.which_job"), {"job_name": message("exchange.which_job")})
        return add_job(user, given.job_name.strip(), "").pk
    # It may be the job of another crew, which shares it.
    be_where(user, "job_id", given.job_id)
    return given.job_id


def _place_boxes(user: User, one: Import, job_id: int) -> list[str]:
    """Place its boxes; the names of those that the job has placed otherwise."""
    there = dict(JobBox.objects.filter(job=job_id).values_list("key", "place"))
    left = list[str]()
    for place in one.boxes:
        key = box_key_of(place)
        if key not in there:
            place_box(user, job_id, place, None)
            there[key] = place
        elif there[key] != place:
            left.append(str(place["name"]))
    return left
