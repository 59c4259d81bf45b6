"""What sign-in takes and gives."""

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field


class LimitOut(Schema):
    """One of the crew's limits."""

    name: str
    title: str
    says: str
    reads: str = Field(description="As it is in force.")
    shipped: str = Field(description="As it is where the crew sets none.")
    written: str = Field(description="As the crew's lead wrote it; empty: as shipped.")


class LimitsIn(Schema):
    """The crew's own limits by their names, as typed on its tape; what is left out or empty is as shipped."""

    limits: dict[Annotated[str, Field(max_length=40)], Annotated[str, Field(max_length=40)]] = Field(max_length=20)


class Credentials(Schema):
    """A name and a password."""

    username: str = Field(max_length=150)
    password: str = Field(max_length=200)


class Me(Schema):
    """The signed-in person."""

    id: int
    crew_id: int
    username: str
    name: str
    crew: str
    role: Literal["lead", "bender", "viewer"]


class Told(Schema):
    """How an error is told (problem+json)."""

    status: int
    detail: str
    places: dict[str, str] = {}
