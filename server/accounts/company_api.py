"""A company of several crews over HTTP."""

from ninja import Router

from server.accounts import company
from server.accounts.models import Invitation
from server.accounts.permissions import SignedInRequest
from server.accounts.schemas import CompanyOut, InvitationOut, LinkOut, NameIn, Token, Told, WantedIn

router = Router(tags=["people"])


Answer = tuple[int, CompanyOut | None]
ANSWERS = {200: CompanyOut, 204: None, 409: Told, 422: Told}


def _now(request: SignedInRequest) -> Answer:
    told = company.told_of(request.auth)
    return (200, told) if told else (204, None)


@router.get("/company", response={200: CompanyOut, 204: None}, operation_id="getCompany")
def get_company(request: SignedInRequest) -> Answer:
    """The company that the person's crew is of; nothing where it is of none."""
    return _now(request)


@router.post("/company", response=ANSWERS, operation_id="beginCompany")
def begin_company(request: SignedInRequest, given: NameIn) -> Answer:
    """Begin a company with the crew that one leads."""
    company.begin(request.auth, given.name)
    return _now(request)


@router.put("/company", response=ANSWERS, operation_id="nameCompany")
def name_company(request: SignedInRequest, given: NameIn) -> Answer:
    """Call the company something else."""
    company.rename(request.auth, given.name)
    return _now(request)


@router.post("/company/link", response=LinkOut, operation_id="makeCompanyLink")
def make_company_link(request: SignedInRequest) -> LinkOut:
    """A link by which a lead brings another crew in; earlier ones are void."""
    return LinkOut(token=company.link(request.auth))


@router.post("/company/join", response=ANSWERS, operation_id="joinCompany")
def join_company(request: SignedInRequest, given: Token) -> Answer:
    """Bring the crew that one leads into the company of a link."""
    company.join(request.auth, given.token)
    return _now(request)


@router.post("/company/crews", response={200: InvitationOut, 409: Told}, operation_id="addCrew")
def add_crew(request: SignedInRequest, given: NameIn) -> Invitation:
    """A new crew, and the invitation for whoever is to lead it."""
    return company.add_crew(request.auth, given.name)


@router.delete("/company/crews/{int:crew_id}", response=ANSWERS, operation_id="leaveCompany")
def leave_company(request: SignedInRequest, crew_id: int) -> Answer:
    """Take a crew out of the company."""
    company.leave(request.auth, crew_id)
    return _now(request)


@router.put("/company/people/{int:user_id}/runs-it", response=ANSWERS, operation_id="shareRunning")
def share_running(request: SignedInRequest, user_id: int, given: WantedIn) -> Answer:
    """Let another lead run the company too, or no longer."""
    company.share_running(request.auth, user_id, wanted=given.wanted)
    return _now(request)


@router.put("/company/people/{int:user_id}/let-in", response=ANSWERS, operation_id="letInOrShutOut")
def let_in_or_shut_out(request: SignedInRequest, user_id: int, given: WantedIn) -> Answer:
    """Shut somebody out of everything that they sign in for, or let them back in."""
    company.let_in(request.auth, user_id, wanted=given.wanted)
    return _now(request)
