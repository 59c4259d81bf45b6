"""What holds for every request below /api: how large a body may be, and how answers and errors are sent."""

import json
from http import HTTPStatus

from django.http import HttpRequest, HttpResponse, HttpResponseBase
from django.urls import Resolver404, resolve

from conduit.catalogue import has_message, told
from server import room
from server.body_size import LEAST, largest_body
from server.language import Answer
from server.observing.logs import request_number
from server.sentences import message

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
        if room.disks.are_full():
            answer.headers[room.HEADER] = "full"
        return answer

    def _refusal(self, request: HttpRequest) -> HttpResponse | None:
        size = _size_of(request)
        if not size:
            return None
        most = _largest(request.path_info)
        if size > most:
            return problem(413, message("http.413", size=f"{size:,}", most=f"{most:,}"))
        return None if request.content_type == "application/json" else problem(415)


def _size_of(request: HttpRequest) -> int:
    try:
        return int(request.META.get("CONTENT_LENGTH") or 0)
    except ValueError:
        return 0


def _largest(path: str) -> int:
    """How many bytes may be sent to an address."""
    try:
        return largest_body(resolve(path).route)
    except Resolver404:
        return LEAST
