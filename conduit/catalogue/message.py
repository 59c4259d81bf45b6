"""Messages: a key of the catalogue and its figures. As a string a message is English; any language can be had of it.

Figures are named, so that a language may put them in another order. A message that counts has a form for each plural
category of its language.
"""

from collections.abc import Iterable, Mapping
from functools import cache
from typing import Any, Self

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, core_schema

from conduit.catalogue.language import ENGLISH, Language, language_now, plural
from conduit.catalogue.words import Template, figured, sentences_of, subjects_in, texts_in

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
        told = super().__new__(cls, _filled(templates(ENGLISH)[key], figures, ENGLISH))
        told.key, told.figures = key, figures
        return told

    def __getnewargs__(self) -> tuple[str, Mapping[str, Figure]]:  # type: ignore[override]
        """What a copy is made of."""
        return self.key, self.figures

    def told_in(self, language: Language) -> str:
        template = None if language == ENGLISH else templates(language).get(self.key)
        return str(self) if template is None else _filled(template, _told(self.figures, language), language)


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


_WORDS = "conduit.catalogue.words"
_CLAUSES = "clauses"


@cache
def templates(language: Language) -> dict[str, Template]:
    """All templates of a language, by key; of the clause table only what is said within other sentences."""
    within = {key: text for key, text in clause_texts(language).items() if is_within(key)}
    return sentences_of({**texts_in(_WORDS, language, but=_CLAUSES), **within})


def is_within(key: str) -> bool:
    """Whether a word of the clause table is told within other sentences too: a kind's name, what is measured."""
    return key.endswith(".within") or key.startswith("measure.")


def clause_texts(language: Language) -> Mapping[str, str]:
    """The words of the clause table as they are written, slots as the interface has them."""
    return subjects_in(_WORDS, language)[_CLAUSES]


def clause_words(language: Language) -> Mapping[str, str]:
    """The same, slots as a pattern of the table has them: they are controls and no figures."""
    return {key: figured(text) for key, text in clause_texts(language).items()}


def add_sentences(package: str, language: Language) -> None:
    """Sentences of what stands above the core, in a package of its own. Raises ValueError for a key that there is."""
    more = sentences_of(texts_in(package, language))
    if known := templates(language).keys() & more.keys():
        raise ValueError(f"said already: {sorted(known)}")
    templates(language).update(more)


def _filled(template: Template, figures: Mapping[str, Figure], language: Language) -> str:
    if isinstance(template, str):
        return template.format_map(figures)
    return template[plural(language, figures["count"])].format_map(figures)


def _told(figures: Mapping[str, Figure], language: Language) -> dict[str, Figure]:
    return {name: _in(figure, language) if isinstance(figure, str) else figure for name, figure in figures.items()}


def _in(text: str, language: Language) -> str:
    return text.told_in(language) if isinstance(text, Message) else text


def said_by(error: Exception) -> Message:
    """What a refusal says, as a message."""
    says = error.args[0] if error.args else ""
    return says if isinstance(says, Message) else Message(error)


def told(says: str | Exception) -> str:
    """A sentence, or what a refusal says, in the language that is spoken."""
    text = says if isinstance(says, str) else said_by(says)
    return _in(text, language_now())
