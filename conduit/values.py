"""The bases of the models that cross the core's edge: what is given to it, and what it gives back. Both are frozen."""

from pydantic import BaseModel, ConfigDict


class Given(BaseModel):
    """What somebody hands in: a field that is not known is refused."""

    model_config = ConfigDict(frozen=True, extra="forbid")


class Result(BaseModel):
    """What the core answers."""

    model_config = ConfigDict(frozen=True)
