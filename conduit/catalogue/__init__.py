"""Every sentence of the core by its key, in each language, with named figures.

Knows: keys, sentences, languages. Gives: `message`, a `Message` that is English as a string and is told in the
language that is set where it is written out. Imports nothing of the core.
"""

from conduit.catalogue.language import ENGLISH, LANGUAGES, Language, language_now, speaking
from conduit.catalogue.message import (
    NOTHING,
    Figure,
    Message,
    add_sentences,
    clause_texts,
    clause_words,
    has_message,
    joined,
    message,
    said_by,
    told,
)

__all__ = [
    "ENGLISH",
    "LANGUAGES",
    "NOTHING",
    "Figure",
    "Language",
    "Message",
    "add_sentences",
    "clause_texts",
    "clause_words",
    "has_message",
    "joined",
    "language_now",
    "message",
    "said_by",
    "speaking",
    "told",
]
