"""Documents that are kept as typed: published with a model's schema, but not turned into it."""

from typing import Any

from pydantic import BaseModel, GetJsonSchemaHandler, JsonValue
from pydantic_core import CoreSchema

# A JSON object as it was typed: a run document however unfinished, a shoe's figures, terms.
AsWritten = dict[str, JsonValue]


class AsTyped:
    """Marks plain data that is published with a model's schema; what cannot be read yet is kept."""

    def __init__(self, model: type[BaseModel]) -> None:
        self.model = model

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        return handler(self.model.__pydantic_core_schema__)
