"""The bases of the models that cross the core's edge: what is given to it, and what it gives back. All are frozen."""

from dataclasses import dataclass
from typing import TypeVar, dataclass_transform

from pydantic import BaseModel, ConfigDict

Part = TypeVar("Part")
# In a JSON schema: how many bytes it may take, where that is bounded otherwise than by its parts.
MOST_BYTES = "x-most-bytes"


class Given(BaseModel):
    """What somebody hands in: a field that is not known is refused."""

    model_config = ConfigDict(frozen=True, extra="forbid")


class Result(BaseModel):
    """What the core answers."""

    model_config = ConfigDict(frozen=True)


@dataclass_transform(frozen_default=True, kw_only_default=True)
def result_part(cls: type[Part]) -> type[Part]:
    """A part of a result that comes by the dozen: a plain dataclass, which checks nothing, is made far faster."""
    return dataclass(frozen=True, slots=True, kw_only=True)(cls)
