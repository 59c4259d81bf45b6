"""A run the other way round: right and left exchanged, as the same run on the opposite wall or in a twin room."""

from collections.abc import Mapping
from typing import Any

_OTHER = {"right": "left", "left": "right"}
# What names a direction; a box or a run may be called “left” and stays so.
_DIRECTIONS = {"heading", "turn", "toward", "roll_toward", "surface", "side", "strut", "after"}


def mirrored(raw: Mapping[str, Any]) -> dict[str, Any]:
    """The document, as it was typed, with right and left exchanged; lengths and names stay."""
    return {key: _mirrored(key, value) for key, value in raw.items()}


def _mirrored(key: str, value: Any) -> Any:
    if key in _DIRECTIONS and isinstance(value, str):
        return _OTHER.get(value, value)
    if key == "measured" and isinstance(value, Mapping) and "right" in value:
        return {**value, "right": _negated(value["right"])}
    if isinstance(value, Mapping):
        return mirrored(value)
    if isinstance(value, list):
        return [mirrored(one) if isinstance(one, Mapping) else one for one in value]
    return value


def _negated(written: Any) -> Any:
    """A signed length the other way, as it was typed."""
    if isinstance(written, str):
        text = written.strip()
        return text[1:].lstrip() if text.startswith(("-", "−")) else f"-{text}" if text.strip("0. ") else text
    return -written if isinstance(written, int | float) and not isinstance(written, bool) else written
