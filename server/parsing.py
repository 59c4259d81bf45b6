"""Reading request bodies: JSON, and nothing that JSON does not have, in time that grows with their length only."""

import json
from typing import Any

from django.http import HttpRequest
from ninja.parser import Parser

DEEPEST = 12


def _refuse_constant(name: str) -> Any:
    raise ValueError(f"{name} is not JSON")


class StrictParser(Parser):
    """JSON without NaN or infinities, without lone surrogates, and not nested beyond reason."""

    def parse_body(self, request: HttpRequest) -> Any:
        """The body as plain data. Raises ValueError, which is answered as an unreadable body."""
        try:
            data = json.loads(request.body.decode("utf-8"), parse_constant=_refuse_constant)
        except RecursionError as error:
            raise ValueError("nested too deeply") from error
        _refuse_depth(data)
        json.dumps(data, ensure_ascii=False, allow_nan=False).encode("utf-8")
        return data


def _refuse_depth(data: Any) -> None:
    """Raises ValueError for lists and objects nested deeper than any document of ours."""
    level = [data]
    for _ in range(DEEPEST + 1):
        level = [part for one in level if isinstance(one, dict | list) for part in _parts(one)]
        if not level:
            return
    raise ValueError("nested too deeply")


def _parts(one: dict[str, Any] | list[Any]) -> list[Any]:
    return list(one.values()) if isinstance(one, dict) else one
