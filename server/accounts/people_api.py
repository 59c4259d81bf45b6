"""People over HTTP: who is in the crew, invitations, one's own name, password and sessions."""

from datetime import datetime
from typing import Annotated

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Query, Router

from conduit.catalogue import told
from server.accounts import (
    actions,
    beginning,
    history,
    mail,
    members,
    notices,
    passwords,
    provider,
    second_factor,
    sessions,
)
from server.accounts.models import Invitation, Role, User, name_of
from server.accounts.permissions import Anyone, Right, SignedInRequest
from server.accounts.schemas import (
    BeginIn,
    Beginning,
    CrewIn,
    History,
    InvitationOut,
    InvitedTo,
    InviteIn,
    KnownAs,
    LinkFor,
    LinkOut,
    Me,
    NameIn,
    NewRuns,
    OwnNamesIn,
    OwnPasswordIn,
    PasswordIn,
    People,
    PersonIn,
    RightOut,
    RoleIn,
    SessionOut,
    Told,
    WantedIn,
)
from server.csv_out import csv_answer

router = Router(tags=["people"])
Nothing = tuple[int, None]


@router.get("/people", response=People, operation_id="getPeople")
def get_people(request: SignedInRequest) -> People:
    """Who is in the crew, what each role may do, and, for the lead, the open invitations."""
    user = request.auth
    leads = user.membership.role in Right.PEOPLE.roles
    return People(
        members=members.members_of(user),
        invitations=[InvitationOut.model_validate(one) for one in members.open_invitations(user)] if leads else [],
        rights=[RightOut(says=told(right.says), roles=list(right.roles)) for right in Right],
    )


@router.put("/crew", response={200: Me, 422: Told}, operation_id="nameCrew")
def name_crew(request: SignedInRequest, given: NameIn) -> Me:
    """Call the crew something else."""
    members.rename(request.auth, given.name)
    return actions.describe(request.auth)


@router.put("/crew/codes-of-leads", response={200: Me, 422: Told}, operation_id="wantCodesOfLeads")
def want_codes_of_leads(request: SignedInRequest, given: WantedIn) -> Me:
    """Have what only leads may take a second factor, or no longer."""
    members.want_codes_of_leads(request.auth, wanted=given.wanted)
    return actions.describe(request.auth)


@router.put("/crew/new-runs", response={200: Me, 422: Told}, operation_id="setNewRuns")
def set_new_runs(request: SignedInRequest, given: NewRuns) -> Me:
    """Read new runs so from now on; those that are there stay as they are."""
    members.set_new_runs(request.auth, given)
    return actions.describe(request.auth)


@router.post("/people/invitations", response={200: InvitationOut, 409: Told}, operation_id="invite")
def invite(request: SignedInRequest, given: InviteIn) -> Invitation:
    """Invite somebody: whoever has the link first may join, once, within a week."""
    return members.invite(request.auth, Role(given.role), given.name)


@router.delete("/people/invitations/{invitation_id}", response={204: None}, operation_id="withdrawInvitation")
def withdraw_invitation(request: SignedInRequest, invitation_id: int) -> Nothing:
    """Nobody can take an invitation any more."""
    members.withdraw(request.auth, invitation_id)
    return 204, None


@router.put("/people/{member_id}/role", response={200: People, 409: Told}, operation_id="changeRole")
def change_role(request: SignedInRequest, member_id: int, given: RoleIn) -> People:
    """Another role for somebody of the crew; one lead at least is left."""
    members.change_role(request.auth, member_id, Role(given.role))
    return get_people(request)


@router.delete("/people/{member_id}", response={204: None, 409: Told}, operation_id="removeMember")
def remove_member(request: SignedInRequest, member_id: int) -> Nothing:
    """Take somebody's place in the crew, or one's own: access ends at once, what they did stays."""
    members.remove(request.auth, member_id)
    return 204, None


@router.post("/people/{member_id}/password-link", response={200: LinkOut, 409: Told}, operation_id="makePasswordLink")
def make_password_link(request: SignedInRequest, member_id: int) -> LinkOut:
    """A link for somebody who forgot the password: it sets a new one, once."""
    return LinkOut(token=passwords.password_link(request.auth, member_id))


@router.get("/history", response=History, operation_id="getHistory")
def get_history(
    request: SignedInRequest,
    who: int | None = None,
    what: Annotated[str, Query(max_length=24)] = "",
    before: datetime | None = None,
) -> History:
    """Who did what in the crew, the last first. For the lead."""
    found = list(history.events_of(request.auth, who, what, before)[: history.PAGE + 1])
    return History(
        lines=[history.row(one) for one in found[: history.PAGE]],
        kinds=list(history.What),
        more=len(found) > history.PAGE,
    )


@router.get("/history.csv", operation_id="getHistoryCsv")
def get_history_csv(request: SignedInRequest) -> HttpResponse:
    """The whole history as CSV."""
    return csv_answer(
        "history", history.COLUMNS, (history.row(one).model_dump() for one in history.events_of(request.auth))
    )


@router.get("/beginning", auth=None, response=Beginning, operation_id="isBeginningNeeded")
def is_beginning_needed(request: HttpRequest) -> Beginning:
    """What somebody who is not signed in has to know of the server."""
    return Beginning(needed=beginning.is_needed(), mail=notices.is_set(), provider=provider.called())


@router.post("/beginning", auth=Anyone(), response={200: Me, 409: Told, 422: Told}, operation_id="beginCrew")
def begin_crew(request: HttpRequest, given: BeginIn) -> Me:
    """Begin the first crew and sign its lead in."""
    return _let_in(request, beginning.begin(given.token, given.crew, given.model_dump(exclude={"token", "crew"})))


@router.get("/invitations/{token}", auth=None, response={200: InvitedTo, 404: Told}, operation_id="getInvitation")
def get_invitation(request: HttpRequest, token: str) -> InvitedTo:
    """What an invitation is to."""
    found = Invitation.of(token)
    if not found:
        raise Http404
    return InvitedTo(crew=found.crew.name, role=Role(found.role), name=found.name, open=found.is_open)


@router.post("/invitations/{token}/join", response={200: Me, 409: Told}, operation_id="joinAsMyself")
def join_as_myself(request: SignedInRequest, token: str) -> Me:
    """Take an invitation as whoever is signed in."""
    return actions.describe(members.join(token, request.auth, {}))


@router.post(
    "/invitations/{token}/person", auth=Anyone(), response={200: Me, 409: Told, 422: Told}, operation_id="joinAsNew"
)
def join_as_new(request: HttpRequest, token: str, given: PersonIn) -> Me:
    """Take an invitation as a new person, who is signed in then."""
    return _let_in(request, members.join(token, None, given.model_dump()))


@router.post("/password-links", auth=Anyone(), response={204: None}, operation_id="askForPasswordLink")
def ask_for_password_link(request: HttpRequest, given: KnownAs) -> Nothing:
    """Have a link sent to whoever is known so, where the server sends mail; answered the same for all."""
    if notices.is_set():
        mail.send_password_link.enqueue(given.known_as.strip(), request.build_absolute_uri("/").rstrip("/"))
    return 204, None


@router.get("/password-links/{token}", auth=None, response={200: LinkFor, 409: Told}, operation_id="getPasswordLink")
def get_password_link(request: HttpRequest, token: str) -> LinkFor:
    """Whose password a link sets."""
    user = passwords.person_of(token)
    return LinkFor(name=name_of(user), username=user.username, second_factor=second_factor.is_on(user))


@router.post(
    "/password-links/{token}", auth=Anyone(), response={200: Me, 409: Told, 422: Told}, operation_id="takePasswordLink"
)
def take_password_link(request: HttpRequest, token: str, given: PasswordIn) -> Me:
    """Set a new password by a link, and be signed in."""
    return _let_in(request, passwords.take_password_link(request, token, given.password, given.code))


@router.put("/me", response={200: Me, 422: Told}, operation_id="changeMyNames")
def change_my_names(request: SignedInRequest, given: OwnNamesIn) -> Me:
    """Another name to sign in by, or that others see."""
    return actions.describe(passwords.change_own(request, request.auth, given.model_dump(), given.password))


@router.put("/me/password", response={204: None, 422: Told, 429: Told}, operation_id="changeMyPassword")
def change_my_password(request: SignedInRequest, given: OwnPasswordIn) -> Nothing:
    """Another password; wherever else the person is signed in, the session ends."""
    passwords.change_own_password(request, request.auth, given.old, given.new)
    return 204, None


@router.get("/me/sessions", response=list[SessionOut], operation_id="listMySessions")
def list_my_sessions(request: SignedInRequest) -> list[SessionOut]:
    """Where the person is signed in."""
    return sessions.sessions_of(request.auth, request.session.session_key)


@router.delete("/me/sessions", response=list[SessionOut], operation_id="signOutElsewhere")
def sign_out_elsewhere(request: SignedInRequest) -> list[SessionOut]:
    """Sign out everywhere but here."""
    sessions.sign_out_elsewhere(request.auth, request.session.session_key)
    history.record(request.auth.membership.crew, request.auth, history.What.SIGNED_OUT)
    return list_my_sessions(request)


@router.delete("/me/sessions/{session_id}", response={200: list[SessionOut], 404: Told}, operation_id="signOutThere")
def sign_out_there(request: SignedInRequest, session_id: str) -> list[SessionOut]:
    """End one session."""
    if not sessions.sign_out(request.auth, session_id):
        raise Http404
    return list_my_sessions(request)


@router.put("/me/crew", response=Me, operation_id="switchCrew")
def switch_crew(request: SignedInRequest, given: CrewIn) -> Me:
    """Work in another of one's crews."""
    members.switch(request.auth, given.crew_id)
    return actions.describe(request.auth)


def _let_in(request: HttpRequest, user: User) -> Me:
    actions.let_in(request, user)
    return actions.describe(user)
