"""What can go wrong in an action, and how it is told over HTTP (problem+json, RFC 9457)."""

from typing import Any

from django.core.exceptions import PermissionDenied
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError

from conduit.document import UnreadableDocument

# MariaDB's numbers for a lock that was waited for too long, and for a deadlock.
LOCKED_OUT = (1205, 1213)


class Refused(Exception):
    """What was sent cannot be used. `places` maps fields to what is wrong with them."""

    def __init__(self, says: str, places: dict[str, str] | None = None) -> None:
        super().__init__(says)
        self.places = places or {}


class Conflict(Exception):
    """Somebody else was there first. `extra` tells how things stand now."""

    def __init__(self, says: str, **extra: Any) -> None:
        super().__init__(says)
        self.extra = extra


def install(api: NinjaAPI) -> None:
    """Map every exception that an endpoint may raise to its answer."""

    def tell(request: HttpRequest, status: int, detail: str, **extra: Any) -> HttpResponse:
        body = {"status": status, "detail": detail, **extra}
        answer = api.create_response(request, body, status=status)
        answer["Content-Type"] = "application/problem+json"
        return answer

    @api.exception_handler(AuthenticationError)
    def _(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        # The page may come from the browser's own store, with no cookie of ours: signing in needs the token.
        get_token(request)
        return tell(request, 401, "Sign in first.")

    @api.exception_handler(PermissionDenied)
    def _(request: HttpRequest, error: PermissionDenied) -> HttpResponse:
        return tell(request, 403, str(error) or "Your role does not allow that.")

    @api.exception_handler(Http404)
    def _(request: HttpRequest, error: Http404) -> HttpResponse:
        return tell(request, 404, "There is no such thing here.")

    @api.exception_handler(Conflict)
    def _(request: HttpRequest, error: Conflict) -> HttpResponse:
        return tell(request, 409, str(error), **error.extra)

    @api.exception_handler(OperationalError)
    def _(request: HttpRequest, error: OperationalError) -> HttpResponse:
        # Two people held what the other wanted: the database let one go on, and nothing of the other was done.
        if error.args and error.args[0] in LOCKED_OUT:
            return tell(request, 409, "Somebody else changed the same things just now. Try again; nothing was done.")
        raise error

    @api.exception_handler(Refused)
    def _(request: HttpRequest, error: Refused) -> HttpResponse:
        return tell(request, 422, str(error), places=error.places)

    @api.exception_handler(UnreadableDocument)
    def _(request: HttpRequest, error: UnreadableDocument) -> HttpResponse:
        return tell(request, 422, f"This is not a run: {error}.")

    @api.exception_handler(ValidationError)
    def _(request: HttpRequest, error: ValidationError) -> HttpResponse:
        places = {".".join(str(part) for part in fault["loc"][1:]): str(fault["msg"]) for fault in error.errors}
        return tell(request, 422, "Some of it could not be read.", places=places)

    @api.exception_handler(HttpError)
    def _(request: HttpRequest, error: HttpError) -> HttpResponse:
        return tell(request, error.status_code, str(error))
