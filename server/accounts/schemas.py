"""What sign-in takes and gives."""

from typing import Literal

from ninja import Schema
from pydantic import Field


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
