"""The language that messages are told in. A context variable: two requests at once do not share it."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Literal, get_args

Language = Literal["en", "es"]
ENGLISH: Language = "en"
LANGUAGES: tuple[Language, ...] = get_args(Language)
Category = Literal["one", "other"]

_now: ContextVar[Language] = ContextVar("language", default=ENGLISH)


def language_now() -> Language:
    """The language of what is being answered; English where none is set."""
    return _now.get()


def plural(language: Language, count: object) -> Category:
    """The plural category of a count, as Unicode CLDR has it.

    English has one and other, and so has Spanish but for whole millions, which nobody counts here.
    """
    return "one" if count == 1 else "other"


@contextmanager
def speaking(language: str) -> Iterator[None]:
    """Messages that are written out within are in this language; one that there is not is English."""
    before = _now.set(next((one for one in LANGUAGES if one == language), ENGLISH))
    try:
        yield
    finally:
        _now.reset(before)
