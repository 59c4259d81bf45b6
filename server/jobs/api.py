"""Jobs and runs over HTTP."""

from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router

from server.accounts.permissions import SignedInRequest
from server.accounts.schemas import Told, WantedIn
from server.jobs import about, actions, photo_store, photos, sharing
from server.jobs.bin import BinnedOut, EmptyIn, empty, in_bin
from server.jobs.described import describe_job, describe_run
from server.jobs.models import Revision, Run
from server.jobs.newest import newest
from server.jobs.racks import FloorOut, floor
from server.jobs.schemas import (
    AsideIn,
    AssignIn,
    CopyIn,
    JobIn,
    JobOut,
    Newest,
    NoteOfRunIn,
    NoteStale,
    PhotoIn,
    RevisionLine,
    RevisionOut,
    RunIn,
    RunOut,
    Saved,
    SaveIn,
    ScheduleIn,
    SeriesIn,
    Stale,
)

router = Router(tags=["jobs"])


@router.get("/jobs", response=list[JobOut], operation_id="listJobs")
def list_jobs(request: SignedInRequest) -> list[JobOut]:
    """The crew's jobs."""
    return [describe_job(job) for job in actions.all_of(request.auth)]


@router.post("/jobs", response={201: JobOut, 422: Told}, operation_id="addJob")
def add_job(request: SignedInRequest, given: JobIn) -> tuple[int, JobOut]:
    """Open a job."""
    return 201, describe_job(actions.add_job(request.auth, given.name, given.place))


@router.get("/jobs/{int:job_id}", response=JobOut, operation_id="getJob")
def get_job(request: SignedInRequest, job_id: int) -> JobOut:
    """A job and its runs."""
    return describe_job(get_object_or_404(actions.all_of(request.auth), pk=job_id))


@router.put("/jobs/{int:job_id}", response={200: JobOut, 422: Told}, operation_id="renameJob")
def rename_job(request: SignedInRequest, job_id: int, given: JobIn) -> JobOut:
    """Call a job otherwise, or say where it is."""
    return describe_job(actions.rename_job(request.auth, job_id, given.name, given.place))


@router.put("/jobs/{int:job_id}/shared", response=JobOut, operation_id="shareJob")
def share_job(request: SignedInRequest, job_id: int, given: WantedIn) -> JobOut:
    """Let the other crews of the company work in a job, or no longer."""
    return describe_job(sharing.share_job(request.auth, job_id, shared=given.wanted))


@router.delete("/jobs/{int:job_id}", response={204: None}, operation_id="removeJob")
def remove_job(request: SignedInRequest, job_id: int) -> tuple[int, None]:
    """Put a job with all its runs into the bin."""
    actions.remove_job(request.auth, job_id)
    return 204, None


@router.post("/jobs/{int:job_id}/restore", response=JobOut, operation_id="restoreJob")
def restore_job(request: SignedInRequest, job_id: int) -> JobOut:
    """Take a job out of the bin."""
    return describe_job(actions.restore_job(request.auth, job_id))


@router.post("/jobs/{int:job_id}/runs", response={201: RunOut, 422: Told}, operation_id="addRun")
def add_run(request: SignedInRequest, job_id: int, given: RunIn) -> tuple[int, RunOut]:
    """Add a run to the job."""
    return 201, describe_run(actions.add_run(request.auth, job_id, given.document))


@router.post("/runs/{int:run_id}/copy", response={201: RunOut, 422: Told}, operation_id="copyRun")
def copy_run(request: SignedInRequest, run_id: int, given: CopyIn) -> tuple[int, RunOut]:
    """Add a run like this one to its job, or to another."""
    return 201, describe_run(actions.copy_run(request.auth, run_id, given.job_id, given.mirrored))


@router.post("/runs/{int:run_id}/series", response={201: list[RunOut], 422: Told}, operation_id="makeSeries")
def make_series(request: SignedInRequest, run_id: int, given: SeriesIn) -> tuple[int, list[RunOut]]:
    """Make so many runs like this one in its job, itself counted."""
    return 201, [describe_run(run) for run in actions.make_series(request.auth, run_id, given)]


@router.get("/runs/{int:run_id}", response={200: RunOut, 410: Told}, operation_id="getRun")
def get_run(request: SignedInRequest, run_id: int) -> RunOut:
    """A run as it was typed; one that lies in the bin is told as such."""
    return describe_run(actions.opened(request.auth, run_id))


@router.put("/runs/{int:run_id}", response={200: Saved, 409: Stale, 422: Told}, operation_id="saveRun")
def save_run(request: SignedInRequest, run_id: int, given: SaveIn) -> Run:
    """Save a run; told, not overwritten, where somebody else saved it since."""
    return actions.save_run(request.auth, run_id, given.version, given.document)


@router.get("/runs/{int:run_id}/saved", response=Newest, operation_id="getSaved")
def get_saved(request: SignedInRequest, run_id: int) -> Run:
    """Which version of a run is the newest, whose, and which sticks were begun on an older one."""
    return newest(request.auth, run_id)


@router.get("/runs/{int:run_id}/revisions", response=list[RevisionLine], operation_id="listRevisions")
def list_revisions(request: SignedInRequest, run_id: int) -> list[Revision]:
    """How a run came to be, newest first: the last save of each stretch of one person's work."""
    return actions.revisions_of(request.auth, run_id)


@router.get("/runs/{int:run_id}/revisions/{int:version}", response=RevisionOut, operation_id="getRevision")
def get_revision(request: SignedInRequest, run_id: int, version: int) -> Revision:
    """A run as it was saved at one version."""
    return actions.revision_of(request.auth, run_id, version)


@router.put("/runs/{int:run_id}/note", response={200: RunOut, 409: NoteStale, 422: Told}, operation_id="writeRunNote")
def write_note(request: SignedInRequest, run_id: int, given: NoteOfRunIn) -> RunOut:
    """Write what is to be known of a run; told, not overwritten, where somebody else wrote since."""
    return describe_run(about.write_note(request.auth, run_id, given.note, given.was))


@router.put("/runs/{int:run_id}/assigned", response={200: RunOut, 422: Told}, operation_id="assignRun")
def assign(request: SignedInRequest, run_id: int, given: AssignIn) -> RunOut:
    """Say for whom of the crew a run is."""
    return describe_run(about.assign(request.auth, run_id, given.member_id))


@router.put("/jobs/{int:job_id}/aside", response=JobOut, operation_id="putJobAside")
def put_aside(request: SignedInRequest, job_id: int, given: AsideIn) -> JobOut:
    """Put a job aside that is done, or back among those at work."""
    return describe_job(about.put_aside(request.auth, job_id, given.aside))


@router.put("/jobs/{int:job_id}/schedule", response={200: JobOut, 422: Told}, operation_id="scheduleRuns")
def schedule_runs(request: SignedInRequest, job_id: int, given: ScheduleIn) -> JobOut:
    """Say for whom some runs of a job are, or by when they are to hang."""
    return describe_job(about.schedule(request.auth, job_id, given))


@router.post("/runs/{int:run_id}/photos", response={201: RunOut, 422: Told}, operation_id="addPhoto")
def add_photo(request: SignedInRequest, run_id: int, given: PhotoIn) -> tuple[int, RunOut]:
    """Keep a photo with a run; it is sized down, and nothing but the picture is kept."""
    return 201, describe_run(photos.add_photo(request.auth, run_id, given.image, given.says).run)


@router.get("/runs/{int:run_id}/photos/{int:photo_id}", operation_id="getPhoto")
def get_photo(request: SignedInRequest, run_id: int, photo_id: int) -> HttpResponse:
    """A photo, as JPEG."""
    photo = photos.photo_of(request.auth, run_id, photo_id)
    return HttpResponse(photo_store.bytes_of(photo), content_type="image/jpeg")


@router.delete("/runs/{int:run_id}/photos/{int:photo_id}", response={204: None}, operation_id="removePhoto")
def remove_photo(request: SignedInRequest, run_id: int, photo_id: int) -> tuple[int, None]:
    """Take a photo out of a run, for good."""
    photos.remove_photo(request.auth, run_id, photo_id)
    return 204, None


@router.get("/runs/{int:run_id}/floor", response=FloorOut, operation_id="getFloor")
def get_floor(request: SignedInRequest, run_id: int) -> FloorOut:
    """A run and the pipes of its rack, laid out on the floor to be marked and bent."""
    return floor(request.auth, run_id)


@router.delete("/runs/{int:run_id}", response={204: None, 422: Told}, operation_id="removeRun")
def remove_run(request: SignedInRequest, run_id: int) -> tuple[int, None]:
    """Put a run into the bin."""
    actions.remove_run(request.auth, run_id)
    return 204, None


@router.post("/runs/{int:run_id}/restore", response={200: RunOut, 409: Told}, operation_id="restoreRun")
def restore_run(request: SignedInRequest, run_id: int) -> RunOut:
    """Take a run out of the bin."""
    return describe_run(actions.restore_run(request.auth, run_id))


@router.get("/bin", response=list[BinnedOut], operation_id="listBin")
def list_bin(request: SignedInRequest) -> list[BinnedOut]:
    """What the crew deleted, the last first."""
    return in_bin(request.auth)


@router.post("/bin/empty", response={204: None, 422: Told}, operation_id="emptyBin")
def empty_bin(request: SignedInRequest, given: EmptyIn) -> tuple[int, None]:
    """Delete things in the bin for good; the log of bends stays."""
    empty(request.auth, given)
    return 204, None
