"""The front end's page."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

from conduit.catalogue import told
from server.guard import problem
from server.sentences import message


@require_safe
@ensure_csrf_cookie
def front_end(request: HttpRequest) -> HttpResponse:
    """The built page, for every address that the front end routes itself."""
    page = settings.WEB_DIST / "index.html"
    if not page.exists():
        return HttpResponse(told(message("pages.not_built")), status=503, content_type="text/plain")
    answer = HttpResponse(page.read_bytes())
    answer["Cache-Control"] = "no-cache"
    return answer


def no_such_api(request: HttpRequest) -> HttpResponse:
    """An API address that is none, as a program reads it."""
    return problem(404, message("pages.no_such_api", path=request.path))
