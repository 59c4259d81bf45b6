"""By what a printed card is known: what is laid out on its stick."""

import json
from hashlib import sha256
from typing import Any

from conduit.bending.schema import Sheet

CODE_LETTERS = 6


def laid(sheet: Sheet) -> list[Any]:
    """What is laid out on a stick, so far as a hand could tell."""
    bends = [(bend.number, round(bend.use.at.inches, 2), bend.angle_reads, bend.turn_says) for bend in sheet.bends]
    return [round(sheet.length.inches, 2), bends]


def card_code(sheet: Sheet) -> str:
    """By what a printed card is known: the same as long as what is laid out on the stick is."""
    told_on_it = [round(sheet.cut.inches, 2), *laid(sheet)]
    return sha256(json.dumps(told_on_it).encode()).hexdigest()[:CODE_LETTERS]
