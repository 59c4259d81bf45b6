"""What can go wrong in an action, and how it is told over HTTP (problem+json, RFC 9457)."""

from collections.abc import Mapping
from typing import Any

from django.core.exceptions import PermissionDenied
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError

from conduit.answers import Unanswerable
from conduit.catalogue import said_by, told
from conduit.document import UnreadableDocument, fault_in_words
from server.gate import is_locked_out, told_when_again
from server.guard import PROBLEM, says
from server.sentences import message

# Who did what is sent, and in a refusal who is signed in.
SIGNED_IN_AS = "X-Signed-In-As"
LOCKED = message("errors.conflict")


class Refused(Exception):
    """What was sent cannot be used. `places` maps fields to what is wrong with them."""

    def __init__(self, says: str, places: Mapping[str, str] | None = None) -> None:
        super().__init__(says)
        self.places = places or {}


class Conflict(Exception):
    """Somebody else was there first. `extra` tells how things stand now."""

    def __init__(self, says: str, **extra: Any) -> None:
        super().__init__(says)
        self.extra = extra


class Gone(Exception):
    """It lies in the crew's bin."""


class NotKnown(Exception):
    """Name and password do not go together."""


class CodeWanted(NotKnown):
    """Name and password are right, and the second factor's code is still wanted."""


class SomebodyElse(Exception):
    """It was done by one person, and another is signed in; says who, as the front end names a person in a crew."""

    def __init__(self, says: str, owner: str) -> None:
        super().__init__(says)
        self.owner = owner


class TooSoon(Exception):
    """Asked again too soon; `seconds` are left to wait."""

    def __init__(self, says: str, seconds: int) -> None:
        super().__init__(says)
        self.seconds = seconds


class Busy(Exception):
    """Others are first; the same asked again in a moment will do."""


class Overloaded(Exception):
    """More is asked than can be done; nothing of it was begun."""


def install(api: NinjaAPI) -> None:
    """Map every exception that an endpoint may raise to its answer."""

    def tell(request: HttpRequest, status: int, detail: str | Exception, **extra: Any) -> HttpResponse:
        body = {"status": status, "detail": told(detail), **extra}
        answer = api.create_response(request, body, status=status)
        answer["Content-Type"] = PROBLEM
        return answer

    @api.exception_handler(AuthenticationError)
    def _(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        # The page may come from the browser's own store, with no cookie of ours: signing in needs the token.
        get_token(request)
        return tell(request, 401, message("errors.sign_in_first"))

    @api.exception_handler(PermissionDenied)
    def _(request: HttpRequest, error: PermissionDenied) -> HttpResponse:
        return tell(request, 403, said_by(error) or message("errors.not_allowed"))

    @api.exception_handler(SomebodyElse)
    def _(request: HttpRequest, error: SomebodyElse) -> HttpResponse:
        answer = tell(request, 403, error)
        answer[SIGNED_IN_AS] = error.owner
        return answer

    @api.exception_handler(Http404)
    def _(request: HttpRequest, error: Http404) -> HttpResponse:
        return tell(request, 404, says(404))

    @api.exception_handler(Conflict)
    def _(request: HttpRequest, error: Conflict) -> HttpResponse:
        return tell(request, 409, error, **error.extra)

    @api.exception_handler(Gone)
    def _(request: HttpRequest, error: Gone) -> HttpResponse:
        return tell(request, 410, error)

    @api.exception_handler(NotKnown)
    def _(request: HttpRequest, error: NotKnown) -> HttpResponse:
        return tell(request, 401, error, code_wanted=isinstance(error, CodeWanted))

    @api.exception_handler(TooSoon)
    def _(request: HttpRequest, error: TooSoon) -> HttpResponse:
        answer = tell(request, 429, error)
        answer["Retry-After"] = str(error.seconds)
        return answer

    @api.exception_handler(Busy)
    def _(request: HttpRequest, error: Busy) -> HttpResponse:
        answer = tell(request, 429, error)
        answer["Retry-After"] = "1"
        return answer

    @api.exception_handler(Overloaded)
    def _(request: HttpRequest, error: Overloaded) -> HttpResponse:
        answer = tell(request, 503, error)
        answer["Retry-After"] = "30"
        return answer

    @api.exception_handler(OperationalError)
    def _(request: HttpRequest, error: OperationalError) -> HttpResponse:
        # Two people held what the other wanted: the database let one go on, and nothing of the other was done.
        if is_locked_out(error):
            return told_when_again(tell(request, 409, LOCKED), error)
        raise error

    @api.exception_handler(Refused)
    def _(request: HttpRequest, error: Refused) -> HttpResponse:
        return tell(request, 422, error, places={place: told(says) for place, says in error.places.items()})

    @api.exception_handler(Unanswerable)
    def _(request: HttpRequest, error: Unanswerable) -> HttpResponse:
        return tell(request, 422, error, places={place: told(says) for place, says in error.places.items()})

    @api.exception_handler(UnreadableDocument)
    def _(request: HttpRequest, error: UnreadableDocument) -> HttpResponse:
        return tell(request, 422, message("answers.no_run", error=said_by(error)))

    @api.exception_handler(ValidationError)
    def _(request: HttpRequest, error: ValidationError) -> HttpResponse:
        places = {".".join(str(part) for part in fault["loc"][1:]): _wrong(fault) for fault in error.errors}
        return tell(request, 422, message("answers.unreadable"), places=places)

    @api.exception_handler(HttpError)
    def _(request: HttpRequest, error: HttpError) -> HttpResponse:
        # A body that is no JSON and a page without its token are found by the framework, and not told in words.
        detail = says(error.status_code) if error.status_code in (400, 403) else str(error)
        return tell(request, error.status_code, detail)


def _wrong(fault: Any) -> str:
    """What is wrong with a field, without the words of the program that found it."""
    if fault["type"] == "value_error":
        return str(fault["ctx"]["error"])
    return told(fault_in_words(fault))


def as_sentence(says: str) -> str:
    """A reason as a sentence: begun large, ended with a full stop."""
    return f"{says[:1].upper()}{says[1:]}" + ("" if says.endswith(".") else ".")
