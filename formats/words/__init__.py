"""What is said on what is written out: headings, refusals. Added to the core's catalogue.

Knows: the sentences. Gives: `message`, as the core's, for these too.
"""

from conduit.catalogue import LANGUAGES, add_sentences, message

for _language in LANGUAGES:
    add_sentences("formats.words", _language)

__all__ = ["message"]
