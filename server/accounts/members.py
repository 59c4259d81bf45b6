"""Who is in a crew: invited, joined, with another role, removed."""

from collections.abc import Mapping
from datetime import timedelta

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from conduit.catalogue import said_by
from conduit.units import UnreadableLength, parse_length
from server.accounts.history import What, record
from server.accounts.models import Crew, Invitation, Membership, Role, User, name_of
from server.accounts.passwords import new_person
from server.accounts.permissions import Right, crew_of, require, runs_company_of
from server.accounts.schemas import MemberOut, NewRuns
from server.accounts.second_factor import is_on, who_have_it
from server.accounts.sessions import sign_out_elsewhere
from server.errors import Conflict, Refused
from server.sentences import message

VALID_FOR = timedelta(days=7)
MOST_OPEN = 50
NEVER_NONE = message("accounts.crew.last_lead")
USED = message("accounts.invitation.void")


def members_of(user: User) -> list[MemberOut]:
    """Everybody in the person's crew, leads first."""
    order = [Role.LEAD, Role.BENDER, Role.VIEWER]
    found = list(Membership.objects.filter(crew=crew_of(user)).select_related("user"))
    with_code = who_have_it(one.user_id for one in found)
    return [
        MemberOut(
            id=one.pk,
            user_id=one.user_id,
            name=name_of(one.user),
            username=one.user.username,
            role=Role(one.role),
            joined=one.joined_at,
            me=one.user_id == user.pk,
            second_factor=one.user_id in with_code,
        )
        for one in sorted(found, key=lambda one: (order.index(Role(one.role)), name_of(one.user).lower()))
    ]


def open_invitations(user: User) -> list[Invitation]:
    """The invitations that can still be taken. For the lead alone."""
    crew = require(user, Right.PEOPLE)
    found = Invitation.objects.filter(crew=crew, used_at=None, withdrawn_at=None, expires_at__gt=timezone.now())
    return list(found.order_by("-pk"))


@transaction.atomic
def invite(user: User, role: Role, name: str) -> Invitation:
    """An invitation to the crew, for whoever has its link first. Raises Conflict where too many are open."""
    crew = require(user, Right.PEOPLE)
    if len(open_invitations(user)) >= MOST_OPEN:
        raise Conflict(message("accounts.invitation.too_many", most_open=MOST_OPEN))
    made = invitation_to(crew, role, user, name.strip())
    record(crew, user, What.INVITED, f"{made.name or 'somebody'} as {role}")
    return made


def invitation_to(crew: Crew, role: Role, by: User, name: str = "") -> Invitation:
    """An invitation that is good for a week, made by a person who may give that place."""
    expires = timezone.now() + VALID_FOR
    return Invitation.objects.create(crew=crew, role=role, name=name, made_by=by, expires_at=expires)


@transaction.atomic
def withdraw(user: User, number: int) -> None:
    """Nobody can take an invitation any more."""
    crew = require(user, Right.PEOPLE)
    invitation = get_object_or_404(Invitation, pk=number, crew=crew)
    if invitation.is_open:
        invitation.withdrawn_at = timezone.now()
        invitation.save(update_fields=["withdrawn_at"])
        record(crew, user, What.WITHDREW, invitation.name)


@transaction.atomic
def join(token: str, user: User | None, given: Mapping[str, str]) -> User:
    """Take an invitation, as a person who is known, or as a new one with name and password.

    Raises Conflict where it cannot be taken any more or the person is in the crew already; Refused for a name that is
    taken or a password that will not do.
    """
    found = Invitation.of(token)
    invitation = found and Invitation.objects.select_for_update().get(pk=found.pk)
    if not invitation or not invitation.is_open or not _may_invite(invitation.made_by, invitation.crew):
        raise Conflict(USED)
    if user is None:
        user = new_person(given)
    place = seat(user, invitation.crew, Role(invitation.role))
    invitation.used_at, invitation.used_by = timezone.now(), user
    invitation.save(update_fields=["used_at", "used_by"])
    record(invitation.crew, user, What.JOINED, f"{name_of(user)} as {place.role}")
    return user


def seat(user: User, crew: Crew, role: Role) -> Membership:
    """Give a person a place in a crew, and let them work in it. Raises Conflict where they have one."""
    try:
        with transaction.atomic():
            place = Membership.objects.create(user=user, crew=crew, role=role)
    except IntegrityError as error:
        raise Conflict(message("accounts.crew.already_in", user=name_of(user), crew=crew.name)) from error
    work_in(user, place)
    return place


def work_in(user: User, place: Membership) -> None:
    """From now on the person sees and does what belongs to this crew."""
    user.working_in = place
    user.save(update_fields=["working_in"])
    user.remember_place()


def switch(user: User, crew_id: int) -> None:
    """Work in another of one's crews."""
    work_in(user, get_object_or_404(user.memberships, crew=crew_id))


@transaction.atomic
def rename(user: User, name: str) -> None:
    """Call the crew something else."""
    crew = require(user, Right.SET_UP)
    crew.name = name.strip() or crew.name
    crew.save(update_fields=["name"])


@transaction.atomic
def want_codes_of_leads(user: User, *, wanted: bool) -> None:
    """Have what only leads may take a second factor. Raises Refused for a lead who has none: nobody could undo it."""
    crew = require(user, Right.PEOPLE)
    if wanted and not is_on(user):
        raise Refused(message("accounts.factor.own_first"))
    if wanted != crew.leads_with_code:
        crew.leads_with_code = wanted
        crew.save(update_fields=["leads_with_code"])
        record(crew, user, What.SECOND_FACTOR, f"{'wanted' if wanted else 'not wanted'} of leads")


@transaction.atomic
def set_new_runs(user: User, given: NewRuns) -> None:
    """Read the crew's new runs so from now on. Raises Refused for a length that cannot be read."""
    crew = require(user, Right.SET_UP)
    try:
        parse_length(given.stand_off, given.tape)
    except UnreadableLength as error:
        raise Refused(message("accounts.nothing_changed"), {"stand_off": said_by(error)}) from error
    crew.new_runs = given.model_dump()
    crew.save(update_fields=["new_runs"])
    record(crew, user, What.SET_LIMITS, "how new runs are read")


@transaction.atomic
def change_role(user: User, number: int, role: Role) -> None:
    """Another role for somebody of the crew. Raises Conflict where no lead would be left."""
    crew = _locked(user)
    require(user, Right.PEOPLE)
    place = get_object_or_404(Membership.objects.select_related("user"), pk=number, crew=crew)
    if place.role == role:
        return
    if role != Role.LEAD:
        _must_leave_a_lead(crew, place)
    before, place.role = place.role, role
    place.save(update_fields=["role"])
    if role not in Right.PEOPLE.roles:
        void_invitations(place)
    user.remember_place()
    record(crew, user, What.CHANGED_ROLE, f"{name_of(place.user)}: {before} is {role} now")


@transaction.atomic
def remove(user: User, number: int) -> None:
    """Take somebody's place in the crew, or one's own: access ends at once, what they did stays.

    Raises Conflict where no lead would be left, PermissionDenied where others are removed by who does not lead.
    """
    crew = _locked(user)
    place = get_object_or_404(Membership.objects.select_related("user"), pk=number, crew=crew)
    own = place.user_id == user.pk
    if not own:
        require(user, Right.PEOPLE)
    _must_leave_a_lead(crew, place)
    gone = place.user
    void_invitations(place)
    place.delete()
    gone.refresh_from_db()
    user.remember_place()
    if not gone.place:
        sign_out_elsewhere(gone)
    record(crew, user, What.LEFT if own else What.REMOVED, name_of(gone))


def _may_invite(user: User | None, crew: Crew) -> bool:
    """Whether a person may give places in a crew now: an invitation gives no more than its maker may at its use."""
    leads = Membership.objects.filter(user=user, crew=crew, role__in=Right.PEOPLE.roles).exists()
    return leads or runs_company_of(user, crew)


def void_invitations(place: Membership) -> None:
    """Nobody joins any more by what somebody made who is removed or leads no more."""
    made = Invitation.objects.filter(crew=place.crew_id, made_by=place.user_id, used_at=None, withdrawn_at=None)
    made.update(withdrawn_at=timezone.now())


def _locked(user: User) -> Crew:
    """The person's crew, held until this is done, and what they may in it now: two leads cannot remove each other."""
    crew = Crew.objects.select_for_update().get(pk=crew_of(user).pk)
    user.remember_place()
    return crew


def _must_leave_a_lead(crew: Crew, place: Membership) -> None:
    if place.role == Role.LEAD and not crew.memberships.filter(role=Role.LEAD).exclude(pk=place.pk).exists():
        raise Conflict(NEVER_NONE)
