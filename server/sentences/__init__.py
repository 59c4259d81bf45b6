"""What the server itself says, added to the core's catalogue.

Knows: the sentences. Gives: `message`, as the core's, for these too.
"""

from conduit.catalogue import LANGUAGES, add_sentences, message

for _language in LANGUAGES:
    add_sentences("server.sentences", _language)

__all__ = ["message"]
