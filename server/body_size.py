"""How many bytes a request may have: as many as the largest that its operation's own schema allows, and no more."""

import re
from collections.abc import Mapping
from functools import cache
from typing import Any

from django.utils.module_loading import import_string

from conduit.values import MOST_BYTES

KB = 1024
# Spaces and what is said twice fit into this everywhere.
LEAST = 4 * KB
# JSON may write a letter as an escape of six bytes.
A_LETTER = 6
A_NUMBER = 30
_FORMATS = {"date": 12, "uuid": 40, "uuid4": 40, "date-time": 40}


class Unbounded(Exception):
    """A schema that allows a request of any size; says where."""


def largest_body(route: str) -> int:
    """How many bytes may be sent to an address, by its route as Django has it; of what takes nothing the least."""
    return _by_path().get("/" + re.sub(r"<(?:\w+:)?(\w+)>", r"{\1}", route), LEAST)


def work_out() -> None:
    """Have all sizes at hand before the first request: described, the API takes seconds, in each thread that asks."""
    _by_path()


@cache
def _by_path() -> dict[str, int]:
    described = import_string("server.api.api").get_openapi_schema(path_prefix="/api/")
    named = described["components"]["schemas"]
    return {
        path: max(largest_json(schema, named, path) for schema in bodies)
        for path, operations in described["paths"].items()
        if (bodies := _bodies(operations))
    }


def _bodies(operations: Mapping[str, Any]) -> list[dict[str, Any]]:
    bodies = [one["requestBody"]["content"] for one in operations.values() if "requestBody" in one]
    return [body["application/json"]["schema"] for body in bodies]


def largest_json(schema: Mapping[str, Any], named: Mapping[str, Any], place: str) -> int:
    """Bytes of the largest JSON that a schema allows, and at least `LEAST`. Raises Unbounded."""
    return max(LEAST, _largest(schema, named, place))


def _largest(schema: Mapping[str, Any], named: Mapping[str, Any], place: str) -> int:
    if MOST_BYTES in schema:
        return int(schema[MOST_BYTES])
    if "$ref" in schema:
        name = schema["$ref"].rpartition("/")[2]
        return _largest(named[name], named, f"{place} {name}")
    for several in ("anyOf", "oneOf", "allOf"):
        if several in schema:
            return max(_largest(one, named, place) for one in schema[several])
    if "enum" in schema or "const" in schema:
        return max(len(str(one)) + 2 for one in schema.get("enum", [schema.get("const")]))
    kinds = schema.get("type", "string" if "maxLength" in schema else "anything")
    return max(_largest_of(kind, schema, named, place) for kind in ([kinds] if isinstance(kinds, str) else kinds))


def _largest_of(kind: str, schema: Mapping[str, Any], named: Mapping[str, Any], place: str) -> int:
    match kind:
        case "string":
            return _FORMATS.get(schema.get("format", "")) or A_LETTER * _bound(schema, "maxLength", place) + 2
        case "array":
            return 2 + _bound(schema, "maxItems", place) * (1 + _largest(schema["items"], named, f"{place}[]"))
        case "object" if isinstance(schema.get("additionalProperties"), Mapping):
            key = _largest(schema.get("propertyNames", {"type": "string"}), named, f"{place} names") + 2
            each = key + _largest(schema["additionalProperties"], named, f"{place}{{}}")
            return 2 + _bound(schema, "maxProperties", place) * each
        case "object" if "properties" in schema:
            parts = schema["properties"].items()
            return 2 + sum(len(name) + 5 + _largest(part, named, f"{place}.{name}") for name, part in parts)
        case "object" | "anything":
            raise Unbounded(f"{place}: any {kind}")
        case _:
            return A_NUMBER


def _bound(schema: Mapping[str, Any], key: str, place: str) -> int:
    if key not in schema:
        raise Unbounded(f"{place}: no {key}")
    return int(schema[key])
