"""The language of an answer: what the core says is told in the one that the client asks for."""

from collections.abc import Callable

from django.http import HttpRequest
from django.http.response import HttpResponseBase
from django.utils.translation import get_language

from conduit.catalogue import speaking

Answer = Callable[[HttpRequest], HttpResponseBase]


class TellInLanguage:
    """Middleware, after Django's own that reads Accept-Language."""

    def __init__(self, answer: Answer) -> None:
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer in the request's language."""
        with speaking(get_language() or ""):
            return self.answer(request)
