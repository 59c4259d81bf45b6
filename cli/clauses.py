"""The clause table as the front end has it: the kinds of steps, and the words of their sentences in each language."""

import json
import sys
from pathlib import Path

from conduit.catalogue import LANGUAGES
from conduit.clauses import exported_table, sentences_in


def files() -> dict[str, object]:
    """What stands in which file, by its path below the front end's sources."""
    words = {f"words/{language}/clauses.json": sentences_in(language) for language in LANGUAGES}
    return {"trade/clauses.json": exported_table(), **words}


def written(content: object) -> str:
    """A file's text."""
    return json.dumps(content, indent=1, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    for name, content in files().items():
        (Path(sys.argv[1]) / name).write_text(written(content))
