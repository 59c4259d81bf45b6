"""Whom a lead may open doors for: whoever is in no crew that somebody else leads."""

from django.shortcuts import get_object_or_404

from server.accounts.models import Crew, Membership, Role, User, name_of
from server.accounts.permissions import Right, require
from server.errors import Conflict
from server.sentences import message


def wholly_led(lead: User, member: int) -> tuple[Crew, User]:
    """The lead's crew and somebody of it, all of whose crews the lead leads. Raises Conflict, PermissionDenied."""
    crew = require(lead, Right.PEOPLE)
    user = get_object_or_404(Membership.objects.select_related("user"), pk=member, crew=crew).user
    if not leads_wholly(lead, user):
        raise Conflict(message("accounts.password_link.leads_elsewhere", user=name_of(user)))
    return crew, user


def leads_wholly(lead: User, user: User) -> bool:
    """Whether a person leads every crew that another is in."""
    led = Membership.objects.filter(user=lead, role=Role.LEAD).values("crew")
    return not user.memberships.exclude(crew__in=led).exists()
