"""Jobs and runs as the API gives them."""

from server.accounts.models import name_of
from server.jobs.models import Job, Run, Status
from server.jobs.schemas import JobOut, PersonOf, PhotoOut, PlaceInRack, RunLine, RunOut


def describe_run(run: Run) -> RunOut:
    """A run with its document."""
    return RunOut(
        id=run.pk,
        job_id=run.job_id,
        job_name=run.job.name,
        version=run.version,
        saved_at=run.saved_at,
        saved_by=name_of(run.saved_by),
        document=run.document,
        rack=_place_in_rack(run),
        note=run.note,
        assigned=person_of(run),
        photos=_photos(run),
    )


def _place_in_rack(run: Run) -> PlaceInRack | None:
    lead = run.rack_lead
    if not lead:
        return None
    return PlaceInRack(lead_id=lead.pk, lead_name=lead.name, number=run.rack_number or 1)


def _photos(run: Run) -> list[PhotoOut]:
    """Without their bytes, in the order in which they came."""
    photos = run.photos.select_related("by").defer("data")
    return [
        PhotoOut(id=one.pk, says=one.says, by=name_of(one.by), at=one.at, width=one.width, height=one.height)
        for one in photos
    ]


def describe_job(job: Job) -> JobOut:
    """A job, as `all_of` or one that was just made gives it, with a line for each of its runs."""
    return JobOut(
        id=job.pk,
        name=job.name,
        place=job.place,
        archived_at=job.archived_at,
        shared=job.shared,
        crew_id=job.crew_id,
        crew=job.crew.name,
        runs=[_line(run) for run in job.runs.all()],
    )


def _line(run: Run) -> RunLine:
    return RunLine(
        id=run.pk,
        name=run.name,
        material=str(run.document.get("material", "")),
        trade_size=str(run.document.get("trade_size", "")),
        saved_at=run.saved_at,
        status=Status(run.status),
        begun=run.begun,
        behind=run.behind,
        reserved_behind=run.reserved_behind,
        rack_lead=run.rack_lead_id,
        rack_number=run.rack_number,
        note=run.note,
        photos=getattr(run, "photo_count", 0),
        assigned=person_of(run),
        due=run.due,
    )


def person_of(run: Run) -> PersonOf | None:
    """For whom a run is."""
    one = run.assigned_to
    return PersonOf(id=one.pk, name=name_of(one)) if one else None
