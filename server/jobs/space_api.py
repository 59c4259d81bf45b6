"""A job's space over HTTP."""

from ninja import Router

from conduit.space import RunAmongOthers
from server.accounts.permissions import SignedInRequest
from server.accounts.schemas import Told
from server.jobs import space
from server.jobs.models import Job, Run
from server.jobs.schemas import Saved, Stale
from server.jobs.space_schemas import (
    AmongOthersIn,
    BoxIn,
    BoxOut,
    BoxStale,
    ClashIn,
    DatumIn,
    DatumOut,
    DatumStale,
    EditsIn,
    SpaceOut,
    TriedRemedy,
)

router = Router(tags=["jobs"])


@router.get("/jobs/{int:job_id}/space", response=SpaceOut, operation_id="getSpace")
def get_space(request: SignedInRequest, job_id: int) -> SpaceOut:
    """A job in one space: its boxes, where its runs stand, what clashes, what does not close."""
    return space.space_of(request.auth, job_id)


@router.post("/jobs/{int:job_id}/boxes", response={200: BoxOut, 409: BoxStale, 422: Told}, operation_id="placeBox")
def place_box(request: SignedInRequest, job_id: int, given: BoxIn) -> BoxOut:
    """Place a box from the job's datum; told, not written over, where somebody else placed it since."""
    return space.described(space.place_box(request.auth, job_id, given.place, given.was))


@router.delete(
    "/jobs/{int:job_id}/boxes/{int:box_id}/versions/{int:version}",
    response={204: None, 409: BoxStale},
    operation_id="unplaceBox",
)
def unplace_box(request: SignedInRequest, job_id: int, box_id: int, version: int) -> tuple[int, None]:
    """A box is not placed any more; its runs stand aside."""
    space.take_away(request.auth, job_id, box_id, version)
    return 204, None


@router.put("/jobs/{int:job_id}/datum", response={200: DatumOut, 409: DatumStale, 422: Told}, operation_id="setDatum")
def set_datum(request: SignedInRequest, job_id: int, given: DatumIn) -> Job:
    """Say from where a job's boxes are placed."""
    return space.set_datum(request.auth, job_id, given.datum, given.was)


@router.post("/jobs/{int:job_id}/space/among", response={200: RunAmongOthers, 422: Told}, operation_id="runAmongOthers")
def run_among_others(request: SignedInRequest, job_id: int, given: AmongOthersIn) -> RunAmongOthers:
    """What a job's space says of one run as it is being typed, at its steps; nothing is kept."""
    return space.among(request.auth, job_id, given.run_id, given.document)


@router.post("/jobs/{int:job_id}/space/remedies", response=list[TriedRemedy], operation_id="listSpaceRemedies")
def list_space_remedies(request: SignedInRequest, job_id: int, given: ClashIn) -> list[TriedRemedy]:
    """What would do against a clash of two runs: each was tried."""
    return space.remedies(request.auth, job_id, given.one, given.other)


@router.post("/runs/{int:run_id}/edits", response={200: Saved, 409: Stale, 422: Told}, operation_id="editRun")
def edit_run(request: SignedInRequest, run_id: int, given: EditsIn) -> Run:
    """Save a run with some changes; told, not overwritten, where somebody else saved it since."""
    return space.edit_run(request.auth, run_id, given.version, given.edits)
