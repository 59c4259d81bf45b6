"""What the server itself says, added to the core's catalogue.

Knows: the sentences. Gives: `message`, as the core's, for these too.
"""

from conduit.catalogue import add_sentences, message
from server.sentences.english import ENGLISH
from server.sentences.spanish import SPANISH

add_sentences("en", ENGLISH)
add_sentences("es", SPANISH)

__all__ = ["message"]
