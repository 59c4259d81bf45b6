"""What holds for every request below /api: how large a body may be, and how answers and errors are sent."""

import json
from http import HTTPStatus

from django.http import HttpRequest, HttpResponse, HttpResponseBase
from django.urls import Resolver404, resolve

from conduit.catalogue import has_message
from server.language import Answer, told
from server.observing.logs import request_number
from server.sentences import message

KB = 1024
FORM = 4 * KB
DOCUMENT = 160 * KB
# Letters of other scripts take up to six bytes each, as JSON writes them.
LARGEST_BODY = {
    "api/shoes/<int:shoe_id>/test": 16 * KB,
    "api/shoes/<int:shoe_id>/calibrate": 16 * KB,
    "api/rack/list": 480 * KB,
    "api/rack/list/read": 480 * KB,
    "api/devices/tag-printer": 48 * KB,
    "api/plan": DOCUMENT,
    "api/remedies": DOCUMENT,
    "api/pipe-rack": DOCUMENT,
    "api/pipe-rack/ways": DOCUMENT,
    "api/ways": DOCUMENT,
    "api/closing": DOCUMENT,
    "api/check-marks": DOCUMENT + 32 * KB,
    "api/note/read": DOCUMENT + 96 * KB,
    "api/note/write": DOCUMENT,
    "api/compare": 2 * DOCUMENT,
    "api/jobs/<int:job_id>/runs": DOCUMENT,
    "api/runs/<int:run_id>": DOCUMENT,
    "api/runs/<int:run_id>/changed": DOCUMENT,
    "api/runs/<int:run_id>/note": 16 * KB,
    "api/runs/<int:run_id>/photos": 2048 * KB,
    "api/runs/<int:run_id>/bench": 96 * KB,
    "api/jobs/<int:job_id>/cutting/plan": 96 * KB,
}
PROBLEM = "application/problem+json"


def problem(status: int, detail: str = "", **extra: object) -> HttpResponse:
    """An error as problem JSON (RFC 9457), in words that a person can use."""
    body = {"status": status, "detail": told(detail or says(status)), **extra}
    return HttpResponse(json.dumps(body), status=status, content_type=PROBLEM)


def says(status: int) -> str:
    """What is always said with a status; of a fault of ours the number too by which it is found in the log."""
    if status == HTTPStatus.INTERNAL_SERVER_ERROR:
        return message("http.500", number=request_number.get()[:8])
    # How much is too much is known only where it is refused.
    plain = has_message(f"http.{status}") and status != HTTPStatus.REQUEST_ENTITY_TOO_LARGE
    return message(f"http.{status}") if plain else HTTPStatus(status).phrase + "."


def is_api(request: HttpRequest) -> bool:
    """Whether a request is for the API, and not for a page or a file of the front end."""
    return request.path_info.startswith("/api/")


class ApiGuard:
    """Refuses bodies that are too large or not JSON before they are read; no answer of the API is ever stored."""

    def __init__(self, answer: Answer) -> None:
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """The answer, or what is wrong with the request."""
        if not is_api(request):
            return self.answer(request)
        answer = self._refusal(request) or self.answer(request)
        if answer.status_code >= 400 and answer.headers.get("Content-Type") != PROBLEM:
            plain = problem(answer.status_code)
            # What the inner layers said besides, as which methods are allowed, stays said.
            for key in {"Allow", "Retry-After"} & set(answer.headers):
                plain.headers[key] = answer.headers[key]
            plain.cookies = answer.cookies
            answer = plain
        answer.headers["Cache-Control"] = "no-store"
        return answer

    def _refusal(self, request: HttpRequest) -> HttpResponse | None:
        size = _size_of(request)
        if not size:
            return None
        most = largest_body(request.path_info)
        if size > most:
            return problem(413, message("http.413", size=f"{size:,}", most=f"{most:,}"))
        return None if request.content_type == "application/json" else problem(415)


def _size_of(request: HttpRequest) -> int:
    try:
        return int(request.META.get("CONTENT_LENGTH") or 0)
    except ValueError:
        return 0


def largest_body(path: str) -> int:
    """How many bytes may be sent to an address."""
    try:
        return LARGEST_BODY.get(resolve(path).route, FORM)
    except Resolver404:
        return FORM
