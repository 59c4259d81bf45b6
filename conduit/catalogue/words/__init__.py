"""The sentences themselves: a JSON file a subject, in a folder a language, as the interface has its own.

Knows: the format. Gives: `subjects_in`, `texts_in`, `sentences_of`. Imports nothing of the core.

The format is that of i18next, version 4: a key, a whole sentence with named slots `{{length}}`, a key for each plural
category of Unicode CLDR that the language has (`count.sticks_one`, `count.sticks_other`). The interface reads it with
i18next itself; here slots become figures of `str.format` once, when a language is loaded, as a plan tells hundreds.
"""

import json
import re
from collections.abc import Mapping
from functools import cache
from importlib.resources import files

_SLOT = re.compile(r"\{\{([\w.]+)\}\}")
_FORM = re.compile(r"_(?:zero|one|two|few|many|other)$")
Forms = Mapping[str, str]
Template = str | Forms


@cache
def subjects_in(package: str, language: str) -> Mapping[str, Mapping[str, str]]:
    """Keys and texts of a language as they are written, by subject. `package`: where the language's folder stands."""
    found = sorted((one for one in (files(package) / language).iterdir()), key=lambda one: one.name)
    told = ((one.name.removesuffix(".json"), one.read_text(encoding="utf-8")) for one in found)
    return {subject: json.loads(text) for subject, text in told}


def texts_in(package: str, language: str, but: str = "") -> dict[str, str]:
    """Keys and texts of a language, of all its subjects `but` one."""
    subjects = subjects_in(package, language)
    return {key: text for subject, texts in subjects.items() if subject != but for key, text in texts.items()}


def sentences_of(texts: Mapping[str, str]) -> dict[str, Template]:
    """Templates for `str.format` by key; one that counts has a form for each plural category."""
    told: dict[str, Template] = {}
    counted: dict[str, dict[str, str]] = {}
    for key, text in texts.items():
        form = _FORM.search(key)
        if form and f"{key[: form.start()]}_other" in texts:
            counted.setdefault(key[: form.start()], {})[form[0][1:]] = figured(text)
        else:
            told[key] = figured(text)
    return {**told, **counted}


def figured(text: str) -> str:
    """A text with its slots as figures of `str.format`."""
    return _SLOT.sub(r"{\1}", text)
