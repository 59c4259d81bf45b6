"""Who may do what."""

from enum import Enum
from typing import Any

from django.core.exceptions import PermissionDenied
from django.db.models import QuerySet
from django.http import HttpRequest
from django.utils import timezone
from django_otp import user_has_device
from ninja.security import SessionAuth
from ninja.security.apikey import APIKeyCookie

from server.accounts.models import Company, Crew, Role, User, name_of
from server.accounts.visiting import visit
from server.errors import SIGNED_IN_AS, SomebodyElse
from server.sentences import message

LAST_SEEN = "last seen"
WRITTEN_IN_AN_AGE = 12


class SignedInRequest(HttpRequest):
    """A request that `SignedIn` let in: `auth` is the person."""

    auth: User


class SignedIn(SessionAuth):
    """A signed-in, active person with a place in a crew; unsafe requests need the CSRF token."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The person, or None."""
        user = request.user
        place = user.remember_place() if isinstance(user, User) else None
        if not isinstance(user, User) or not place:
            return None
        owner = f"{place.crew_id}.{user.pk}"
        # What one did is not done in the name of another who signed in with the same browser since.
        if request.headers.get(SIGNED_IN_AS, owner) != owner:
            raise SomebodyElse(message("errors.other_person", user=name_of(user)), owner)
        _keep_awake(request)
        visit(request, user)
        return user


class Whoever(SignedIn):
    """Who is signed in, or nobody."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The person, or that there is none."""
        return super().authenticate(request, key) or True


def _keep_awake(request: HttpRequest) -> None:
    """A session ends so long after its last use; written a dozen times in that at most, not with each request."""
    now, age = timezone.now().timestamp(), request.session.get_expiry_age()
    seen = request.session.get(LAST_SEEN, 0)
    if not isinstance(seen, int | float) or now - seen > age / WRITTEN_IN_AN_AGE:
        request.session[LAST_SEEN] = now


class Anyone(APIKeyCookie):
    """Nobody in particular, but from our own page: the CSRF token is still wanted."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """Always."""
        return True


def crew_of(user: User) -> Crew:
    """The person's crew."""
    return user.membership.crew


class Right(Enum):
    """What may be done in a crew: in words, by which roles, and what all others are told."""

    LOOK = (
        message("accounts.right.look"),
        tuple(Role),
        "",
    )
    WORK = (
        message("accounts.right.work"),
        (Role.LEAD, Role.BENDER),
        message("accounts.view_only"),
    )
    DELETE = (
        message("accounts.right.delete"),
        (Role.LEAD,),
        message("accounts.lead_only.delete"),
    )
    SET_UP = (
        message("accounts.right.settings"),
        (Role.LEAD,),
        message("accounts.lead_only.settings"),
    )
    PEOPLE = (
        message("accounts.right.people"),
        (Role.LEAD,),
        message("accounts.lead_only.people"),
    )

    def __init__(self, says: str, roles: tuple[Role, ...], otherwise: str) -> None:
        self.says, self.roles, self.otherwise = says, roles, otherwise


def require(user: User, right: Right, *, at_home: bool = False) -> Crew:
    """The person's crew, if their role has the right; `at_home`: and they are no guest in it.

    Raises PermissionDenied, in words, for all others.
    """
    crew = crew_of(user)
    if at_home and user.membership.only_job is not None:
        raise PermissionDenied(message("accounts.company.own_crew_only", crew=crew.name))
    if user.membership.role not in right.roles:
        raise PermissionDenied(right.otherwise)
    if right.roles == (Role.LEAD,) and must_turn_on_code(user):
        raise PermissionDenied(message("accounts.factor.leads_need_it", crew=crew.name))
    return crew


def must_turn_on_code(user: User) -> bool:
    """Whether the person leads a crew whose leads have a second factor, and has none."""
    place = user.membership
    return place.role == Role.LEAD and place.crew.leads_with_code and not user_has_device(user)


def who_run(company: Company) -> "QuerySet[User]":
    """The leads who run a company: all of its leads where none of those who did leads in it any more."""
    leads = User.objects.filter(is_active=True, memberships__role=Role.LEAD, memberships__crew__company=company)
    chosen = leads.filter(companies=company)
    return (chosen if chosen.exists() else leads).distinct()


def runs_company_of(user: User | None, crew: Crew) -> bool:
    """Whether a person runs the company that a crew is of."""
    return bool(user and crew.company and who_run(crew.company).filter(pk=user.pk).exists())
