"""Files for other programs, over HTTP."""

from django.http import HttpRequest, StreamingHttpResponse
from ninja import Router

from server.accounts.permissions import SignedInRequest
from server.accounts.schemas import Told
from server.exchange import actions
from server.exchange.models import Export, State
from server.exchange.schemas import ExportIn, ExportOut, FormatOut
from server.exchange.working import ENDING, PARTS

router = Router(tags=["exchange"])
ASKED = {200: ExportOut, 422: Told, 429: Told, 503: Told}


@router.get("/formats", response=list[FormatOut], operation_id="listFormats")
def list_formats(request: SignedInRequest) -> list[FormatOut]:
    """What of a run, of a job and of all that a crew has can be had in which format."""
    return [
        FormatOut.model_validate({"to": to, "of": of, "parts": list(parts)})
        for of, formats in PARTS.items()
        for to, parts in formats.items()
    ]


@router.post("/runs/{int:run_id}/exports", response=ASKED, operation_id="exportRun")
def export_run(request: SignedInRequest, run_id: int, given: ExportIn) -> ExportOut:
    """Have a file of a run made; of a rack's lead with every pipe. It is made in the background."""
    return _out(actions.ask_for_run(request.auth, run_id, given, _origin(request)))


@router.post("/jobs/{int:job_id}/exports", response=ASKED, operation_id="exportJob")
def export_job(request: SignedInRequest, job_id: int, given: ExportIn) -> ExportOut:
    """Have a file of a job made, with every run that stands in its space."""
    return _out(actions.ask_for_job(request.auth, job_id, given, _origin(request)))


@router.post("/crew/exports", response=ASKED, operation_id="exportCrew")
def export_crew(request: SignedInRequest, given: ExportIn) -> ExportOut:
    """Have a file of all that the crew has made."""
    return _out(actions.ask_for_crew(request.auth, given))


@router.get("/exports/{int:export_id}", response=ExportOut, operation_id="getExport")
def get_export(request: SignedInRequest, export_id: int) -> ExportOut:
    """How it goes with a file that one asked for."""
    return _out(actions.export_of(request.auth, export_id))


@router.get("/exports/{int:export_id}/file", operation_id="getExportFile")
def get_export_file(request: SignedInRequest, export_id: int) -> StreamingHttpResponse:
    """The file; 409 while it is not made."""
    export = actions.export_of(request.auth, export_id)
    answer = StreamingHttpResponse(actions.bytes_of(export), content_type=ENDING[export.to][1])
    answer["Content-Length"] = str(export.length)
    answer["Content-Disposition"] = f'attachment; filename="{export.file_name}"'
    answer["Cache-Control"] = "private, no-store"
    return answer


def _out(export: Export) -> ExportOut:
    return ExportOut(
        id=export.pk,
        state=State(export.state),
        done=export.part_done,
        file_name=export.file_name,
        length=export.length,
        says=export.says,
    )


def _origin(request: HttpRequest) -> str:
    """What the codes on paper begin with."""
    return request.build_absolute_uri("/").rstrip("/")
