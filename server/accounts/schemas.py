"""What sign-in takes and gives."""

from datetime import datetime
from typing import Annotated

from ninja import Query, Schema
from pydantic import Field

from conduit.units import TapeStep
from server.accounts.models import Role


class LimitOut(Schema):
    """One of the crew's limits."""

    name: str
    title: str
    says: str
    reads: str = Field(description="As it is in force.")
    shipped: str = Field(description="As it is where the crew sets none.")
    choices: list[str] = Field(description="What it can be, where it is no figure.")
    written: str = Field(description="As the crew's lead wrote it; empty: as shipped.")


class LimitsIn(Schema):
    """The crew's own limits by their names, as typed on its tape; what is left out or empty is as shipped."""

    limits: dict[Annotated[str, Field(max_length=40)], Annotated[str, Field(max_length=40)]] = Field(max_length=20)


# Read where a guest is told from who is at home (`visiting.visit`).
OfRun = Annotated[int | None, Query(description="The run that it is asked for; its crew's limits and shoes are meant.")]


class Credentials(Schema):
    """A name and a password."""

    username: str = Field(max_length=150)
    password: str = Field(max_length=200)
    code: str = Field("", max_length=20, description="What the person's phone shows, where they have a second factor.")
    shared: bool = Field(False, description="Others use this device too: signed out after hours without use.")


class NewRuns(Schema):
    """How the crew's new runs are read: on which tape, in feet and inches or not, how far straps stand off."""

    tape: TapeStep
    feet: bool
    stand_off: str = Field(max_length=40, description="Tape notation, on that tape.")


class CrewOfMine(Schema):
    """A crew that the person is in, and as what."""

    id: int
    name: str
    role: Role


class Me(Schema):
    """The signed-in person, in the crew that they work in."""

    id: int
    crew_id: int
    username: str
    first: str
    last: str
    email: str
    name: str
    crew: str
    role: Role
    crews: list[CrewOfMine]
    new_runs: NewRuns
    company: str = Field(description="The company that the crew is of; empty: none.")
    leads_with_code: bool = Field(description="What only leads of the crew may takes a second factor.")
    must_turn_on_code: bool = Field(description="The person leads and has none: what only leads may waits for it.")


class ProviderOut(Schema):
    """The company's own sign-in: how it is called, none without a name, and whether the person uses it too."""

    name: str
    connected: bool
    has_password: bool = Field(description="Signs in by name and password too.")


class WantedIn(Schema):
    """Whether something is wanted."""

    wanted: bool


class Told(Schema):
    """How an error is told (problem+json)."""

    status: int
    detail: str
    places: dict[str, str] = {}
    code_wanted: bool = False


class PersonIn(Schema):
    """A new person: the name to sign in by, the name that others see, a password."""

    username: str = Field(max_length=150, min_length=1)
    first: str = Field("", max_length=150)
    last: str = Field("", max_length=150)
    password: str = Field(max_length=200)


class BeginIn(PersonIn):
    """The first crew and its lead; `token` from the link of whoever runs the server."""

    token: str = Field(max_length=400)
    crew: str = Field(max_length=80)


class Beginning(Schema):
    """Whether there is no crew yet, whether the server sends mail, and by which company's accounts it lets in."""

    needed: bool
    mail: bool
    provider: str


class KnownAs(Schema):
    """The name to sign in by, or an e-mail address."""

    known_as: str = Field(max_length=254)


class MemberOut(Schema):
    """Somebody of the crew: their place in it (`id`), and who they are."""

    id: int
    user_id: int
    name: str
    username: str
    role: Role
    joined: datetime
    me: bool
    second_factor: bool


class InvitationOut(Schema):
    """An invitation that is open; `token` ends its link."""

    id: int
    name: str
    role: Role
    token: str
    expires_at: datetime


class RightOut(Schema):
    """What may be done, and by which roles."""

    says: str
    roles: list[Role]


class People(Schema):
    """Who is in the crew; invitations are told to its lead alone."""

    members: list[MemberOut]
    invitations: list[InvitationOut]
    rights: list[RightOut]


class InviteIn(Schema):
    """As what, and for whom, in the lead's own words."""

    role: Role
    name: str = Field("", max_length=80)


class RoleIn(Schema):
    """Another role."""

    role: Role


class NameIn(Schema):
    """A name."""

    name: str = Field(max_length=80, min_length=1)


class InvitedTo(Schema):
    """What an invitation is to; `open`: whether it can still be taken."""

    crew: str
    role: Role
    name: str
    open: bool


class LinkOut(Schema):
    """What ends a link that is given to one person."""

    token: str


class Token(Schema):
    """What ends a link."""

    token: str = Field(max_length=400)


class LinkFor(Schema):
    """Whose password a link sets."""

    name: str
    username: str
    second_factor: bool


class PasswordIn(Schema):
    """A new password, and the code of the second factor where the person has one."""

    password: str = Field(max_length=200)
    code: str = Field("", max_length=20)


class OwnPasswordIn(Schema):
    """The old password and a new one."""

    old: str = Field(max_length=200)
    new: str = Field(max_length=200)


class OwnNamesIn(Schema):
    """The name to sign in by, the name that others see, and an e-mail address."""

    username: str = Field(max_length=150, min_length=1)
    first: str = Field(max_length=150)
    last: str = Field(max_length=150)
    email: str = Field("", max_length=254)
    password: str = Field("", max_length=200, description="To change the e-mail address.")


class SessionOut(Schema):
    """Where the person is signed in; `here`: the session that asks."""

    id: str
    here: bool
    device: str
    address: str
    since: datetime | None
    last: datetime


class CrewIn(Schema):
    """Another of the person's crews."""

    crew_id: int


class EventOut(Schema):
    """A line of the crew's history."""

    at: datetime
    who: str
    what: str
    about: str


class History(Schema):
    """The last lines of the crew's history; `kinds`: what there may be; `more`: whether there are older ones."""

    lines: list[EventOut]
    kinds: list[str]
    more: bool


class SecondFactor(Schema):
    """Whether a person signs in with a code too."""

    on: bool


class SecretOut(Schema):
    """A new secret, as the address that an app scans (otpauth)."""

    address: str


class CodeIn(Schema):
    """A code that the phone shows."""

    code: str = Field(max_length=20)


class SpareCodes(Schema):
    """Codes for a lost phone, each good once; told this once."""

    codes: list[str]


class OwnPasswordOnly(Schema):
    """The person's password, to be sure that it is them."""

    password: str = Field(max_length=200)


class Named(Schema):
    """A person."""

    id: int
    name: str


class CompanyCrew(Schema):
    """A crew of the company."""

    id: int
    name: str
    people: int
    leads: list[Named]


class CompanyPerson(Schema):
    """Somebody in the company, for who runs it."""

    id: int
    name: str
    active: bool
    crews: list[str]
    elsewhere: bool


class CompanyOut(Schema):
    """A company, its crews, who runs it, and for those everybody in it."""

    name: str
    runs_it: bool
    runners: list[Named]
    crews: list[CompanyCrew]
    people: list[CompanyPerson]
