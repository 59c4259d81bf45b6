"""What pipe is called: a size and a material as people write them, in a note or a list.

Sizes are read as `3/4`, `3/4"`, `¾`, `1 1/4`, `1-1/4 in`; materials by their names, or by the usual letters for heavy
wall. Either may come first.
"""

import re
from typing import get_args

from conduit.tables import Material

_CALLED: dict[str, Material] = {
    **{one.lower(): one for one in get_args(Material)},
    **dict.fromkeys(("rmc", "grc", "rgs", "grs", "rigid metal", "heavy wall"), "rigid"),
    **dict.fromkeys(("thinwall", "thin wall"), "EMT"),
}
_MATERIAL = re.compile(rf"(?<!\S)(?:{'|'.join(sorted(_CALLED, key=len, reverse=True))})(?!\S)", re.IGNORECASE)
_SIZE = re.compile(r"(\d)(?:[ -](\d/\d))?(?![\d/.])|\d/\d")
_INCH_MARK = re.compile(r" ?(?:\"|''|″|”|in\b\.?|inch\b)", re.IGNORECASE)


def material_called(word: str) -> Material | None:
    """The material that a word stands for."""
    return _CALLED.get(word.strip().lower())


def size_first(text: str) -> tuple[str | None, str]:
    """The trade size that a text begins with, as sizes are listed, and what comes after it."""
    found = _SIZE.match(text)
    if not found:
        return None, text
    size = f"{found[1]}-{found[2]}" if found[2] else found[0]
    mark = _INCH_MARK.match(text, found.end())
    return size, text[mark.end() if mark else found.end() :].strip()


def pipe_first(line: str) -> tuple[str | None, Material | None, str]:
    """Size and material that a line names, whichever comes first, and what comes after them; no size: not both."""
    named = _MATERIAL.search(line)
    if not named:
        size, rest = size_first(line)
        return size, None, rest
    before, after = line[: named.start()].strip(), line[named.end() :].strip()
    size, left = size_first(before or after)
    if before and left:
        return None, None, line
    return size, material_called(named[0]), after if before else left
