"""Reading files in, over HTTP."""

from django.http import HttpResponse
from ninja import Router

from conduit.notes import write_note
from server.accounts.permissions import SignedInRequest
from server.accounts.schemas import Told
from server.exchange import receiving
from server.exchange.models import Import, ImportedRun, State
from server.exchange.schemas import (
    A_PART,
    ImportIn,
    ImportOut,
    MeantIn,
    PartIn,
    PassedOver,
    RunRead,
    TakeImportIn,
    TakenImport,
    UnpackIn,
)

router = Router(tags=["exchange"])
ASKED = {200: ImportOut, 409: Told, 422: Told, 429: Told}


@router.post("/imports", response=ASKED, operation_id="beginImport")
def begin_import(request: SignedInRequest, given: ImportIn) -> ImportOut:
    """Say which file is read in. Nothing of it is kept in a job before it is taken there."""
    return _out(receiving.begin_import(request.auth, given))


@router.post("/imports/{int:import_id}/parts", response=ASKED, operation_id="addImportPart")
def add_part(request: SignedInRequest, import_id: int, given: PartIn) -> ImportOut:
    """Send some of its bytes. Once all are there it is read, in the background."""
    return _out(receiving.add_part(request.auth, import_id, given))


@router.post("/imports/{int:import_id}/read", response=ASKED, operation_id="readImport")
def read_anew(request: SignedInRequest, import_id: int, given: MeantIn) -> ImportOut:
    """Read it anew, as it is meant."""
    return _out(receiving.read_anew(request.auth, import_id, given))


@router.get("/imports/{int:import_id}", response=ImportOut, operation_id="getImport")
def get_import(request: SignedInRequest, import_id: int) -> ImportOut:
    """How it goes with a file, and what it says."""
    return _out(receiving.import_of(request.auth, import_id))


@router.get("/imports/{int:import_id}/runs/{int:number}/picture", operation_id="getImportPicture")
def get_picture(request: SignedInRequest, import_id: int, number: int) -> HttpResponse:
    """A run that was read, from the front; SVG."""
    answer = HttpResponse(receiving.picture_of(request.auth, import_id, number), content_type="image/svg+xml")
    answer["Content-Security-Policy"] = "default-src 'none'; style-src 'unsafe-inline'"
    answer["Cache-Control"] = "private, no-store"
    return answer


@router.post(
    "/imports/{int:import_id}/take", response={200: TakenImport, 409: Told, 422: Told}, operation_id="takeImport"
)
def take(request: SignedInRequest, import_id: int, given: TakeImportIn) -> TakenImport:
    """Make what was read runs of a job."""
    return receiving.take(request.auth, import_id, given)


@router.post("/imports/{int:import_id}/unpack", response=ASKED, operation_id="unpackImport")
def unpack(request: SignedInRequest, import_id: int, given: UnpackIn) -> ImportOut:
    """Make an archive part of the crew, in the background: all of it, or nothing."""
    return _out(receiving.unpack_import(request.auth, import_id, given))


def _out(one: Import) -> ImportOut:
    return ImportOut(
        id=one.pk,
        name=one.name,
        state=State(one.state),
        part_length=A_PART,
        says=one.says,
        asks=one.asks,  # type: ignore[arg-type]
        meant=MeantIn.model_validate(one.meant),
        runs=[_run(read) for read in one.runs.all()],
        passed_over=[PassedOver(**passed) for passed in one.passed_over],
        boxes=len(one.boxes),
        archive=one.archive,
        done=one.part_done,
        job_id=one.job_id,
    )


def _run(read: ImportedRun) -> RunRead:
    document = read.document
    return RunRead(
        number=read.number,
        name=str(document.get("name", "")),
        material=str(document.get("material", "")),
        trade_size=str(document.get("trade_size", "")),
        bends=read.bends,
        reads=read.reads,
        note=write_note(document),
        told=read.told,
        stops=read.stops,
        is_drawn=bool(read.picture),
        run_id=read.run_id,
    )
