"""Reading request bodies: JSON, and nothing that JSON does not have."""

import json
import re
from typing import Any

from django.http import HttpRequest
from ninja.parser import Parser

DEEPEST = 12
_STRING = re.compile(r'"(?:[^"\\]|\\.)*"')


def _refuse_constant(name: str) -> Any:
    raise ValueError(f"{name} is not JSON")


class StrictParser(Parser):
    """JSON without NaN or infinities, without lone surrogates, and not nested beyond reason."""

    def parse_body(self, request: HttpRequest) -> Any:
        """The body as plain data. Raises ValueError, which is answered as an unreadable body."""
        text = request.body.decode("utf-8")
        if _depth(text) > DEEPEST:
            raise ValueError("nested too deeply")
        data = json.loads(text, parse_constant=_refuse_constant)
        json.dumps(data, ensure_ascii=False, allow_nan=False).encode("utf-8")
        return data


def _depth(text: str) -> int:
    """How deeply brackets are nested, outside of strings."""
    deepest = depth = 0
    for letter in _STRING.sub("", text):
        if letter in "[{":
            depth += 1
            deepest = max(deepest, depth)
        elif letter in "]}":
            depth -= 1
    return deepest
