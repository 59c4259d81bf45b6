"""Messages: a key of the catalogue and its figures. As a string a message is English; any language can be had of it.

Templates are `str.format` with named figures only: a language may put them in another order. One that counts has two
forms, for one and for any other `count`, which is what English and Spanish need.
"""

from collections.abc import Iterable, Mapping
from functools import cache
from importlib import import_module
from typing import Any, Self

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, core_schema

from conduit.catalogue.language import ENGLISH, Language, language_now

Template = str | tuple[str, str]
Figure = str | float


class Message(str):
    """Text that the catalogue has, or (made of a plain string) what is the same in every language: a name, a figure."""

    __slots__ = ()

    def told_in(self, language: Language) -> str:
        """The text in a language."""
        return str(self)

    @classmethod
    def __get_pydantic_core_schema__(cls, source: type[Any], handler: GetCoreSchemaHandler) -> CoreSchema:
        """Written out in the language that is set then; what is read back is text as it stands."""
        written = core_schema.plain_serializer_function_ser_schema(
            lambda text: text.told_in(language_now()), return_schema=core_schema.str_schema()
        )
        return core_schema.no_info_plain_validator_function(cls._read, serialization=written)

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        """For those who read it, a string."""
        return {"type": "string"}

    @classmethod
    def _read(cls, text: object) -> "Message":
        if isinstance(text, Message):
            return text
        if isinstance(text, str):
            return Message(text)
        raise ValueError("is not a text")


class _Keyed(Message):
    """A message of the catalogue."""

    __slots__ = ("figures", "key")
    key: str
    figures: Mapping[str, Figure]

    def __new__(cls, key: str, figures: Mapping[str, Figure]) -> Self:
        told = super().__new__(cls, _filled(templates(ENGLISH)[key], figures))
        told.key, told.figures = key, figures
        return told

    def __getnewargs__(self) -> tuple[str, Mapping[str, Figure]]:  # type: ignore[override]
        """What a copy is made of."""
        return self.key, self.figures

    def told_in(self, language: Language) -> str:
        template = None if language == ENGLISH else templates(language).get(self.key)
        return str(self) if template is None else _filled(template, _told(self.figures, language))


class _Joined(Message):
    """Messages one after another."""

    __slots__ = ("by", "parts")
    parts: tuple[str, ...]
    by: str

    def __new__(cls, parts: tuple[str, ...], by: str) -> Self:
        told = super().__new__(cls, by.join(parts))
        told.parts, told.by = parts, by
        return told

    def __getnewargs__(self) -> tuple[tuple[str, ...], str]:  # type: ignore[override]
        """What a copy is made of."""
        return self.parts, self.by

    def told_in(self, language: Language) -> str:
        return self.by.join(_in(part, language) for part in self.parts)


def message(key: str, /, **figures: Figure) -> Message:
    """The catalogue's message of that key, with its figures; a figure may be a message too. Raises KeyError."""
    return _Keyed(key, figures) if figures else _without_figures(key)


@cache
def _without_figures(key: str) -> Message:
    """There are few, and each is said over and over."""
    return _Keyed(key, {})


NOTHING = Message()


def has_message(key: str) -> bool:
    """Whether the catalogue has a message of that key."""
    return key in templates(ENGLISH)


def joined(parts: Iterable[str], by: str = " ") -> Message:
    """Messages one after another, those that are empty left out."""
    return _Joined(tuple([part for part in parts if part]), by)


_PACKAGES: dict[Language, str] = {"en": "english", "es": "spanish"}


@cache
def templates(language: Language) -> dict[str, Template]:
    """All templates of a language, by key."""
    return dict(import_module(f"conduit.catalogue.{_PACKAGES[language]}").TEMPLATES)


def clause_words(language: Language) -> Mapping[str, str]:
    """The words of the clause table in a language, by key; their slots are controls and no figures."""
    words: Mapping[str, str] = import_module(f"conduit.catalogue.{_PACKAGES[language]}").CLAUSES
    return words


def add_sentences(language: Language, more: Mapping[str, Template]) -> None:
    """Sentences of what stands above the core. Raises ValueError for a key that there is."""
    if known := templates(language).keys() & more.keys():
        raise ValueError(f"said already: {sorted(known)}")
    templates(language).update(more)


def _filled(template: Template, figures: Mapping[str, Figure]) -> str:
    if isinstance(template, tuple):
        template = template[figures["count"] != 1]
    return template.format_map(figures)


def _told(figures: Mapping[str, Figure], language: Language) -> dict[str, Figure]:
    return {name: _in(figure, language) if isinstance(figure, str) else figure for name, figure in figures.items()}


def _in(text: str, language: Language) -> str:
    return text.told_in(language) if isinstance(text, Message) else text


def said_by(error: Exception) -> Message:
    """What a refusal says, as a message."""
    says = error.args[0] if error.args else ""
    return says if isinstance(says, Message) else Message(error)
