"""A company: crews that may share jobs and shoes, and the leads who run it."""

from uuid import UUID, uuid4

from django.core import signing
from django.core.exceptions import PermissionDenied
from django.db import transaction
from django.db.models import Count, Prefetch, QuerySet
from django.shortcuts import get_object_or_404

from server.accounts import privacy
from server.accounts.history import What, record
from server.accounts.members import VALID_FOR, invitation_to
from server.accounts.models import Company, Crew, Invitation, Membership, Role, User, name_of
from server.accounts.permissions import Right, require, who_run
from server.accounts.schemas import CompanyCrew, CompanyOut, CompanyPerson, Named
from server.errors import Conflict, Refused
from server.sentences import message

SALT = "crelda.company"
USED = message("accounts.company.link_void")
# Of a company so large a list would be another page.
MOST_CREWS = 200


def run_by(user: User) -> Company:
    """The company of the person's crew, locked, where they run it. Raises PermissionDenied."""
    crew = require(user, Right.PEOPLE)
    company = Company.objects.select_for_update().filter(crews=crew).first()
    if not company or not who_run(company).filter(pk=user.pk).exists():
        raise PermissionDenied(message("accounts.company.who_runs_it_only"))
    return company


def told_of(user: User) -> CompanyOut | None:
    """The company of the person's crew, as its people see it; None where it is of none."""
    company = user.membership.crew.company
    if not company:
        return None
    runners = list(who_run(company).order_by("pk"))
    runs_it = user in runners and user.membership.role == Role.LEAD
    leads = Prefetch("memberships", Membership.objects.filter(role=Role.LEAD).select_related("user"), to_attr="led_by")
    crews = company.crews.annotate(people=Count("memberships")).prefetch_related(leads).order_by("name")[:MOST_CREWS]
    return CompanyOut(
        name=company.name,
        runs_it=runs_it,
        runners=[Named(id=one.pk, name=name_of(one)) for one in runners],
        crews=[
            CompanyCrew(
                id=crew.pk,
                name=crew.name,
                people=crew.people,
                leads=[Named(id=one.user_id, name=name_of(one.user)) for one in crew.led_by],
            )
            for crew in crews
        ],
        people=_people(company) if runs_it else [],
    )


def _of(company: Company) -> QuerySet[User]:
    """Everybody who has a place in one of its crews."""
    return User.objects.filter(memberships__crew__company=company).distinct()


def _people(company: Company) -> list[CompanyPerson]:
    places = Prefetch("memberships", Membership.objects.select_related("crew").order_by("crew__name"))
    return [
        CompanyPerson(
            id=one.pk,
            name=name_of(one),
            active=one.is_active,
            crews=[place.crew.name for place in one.memberships.all() if place.crew.company_id == company.pk],
            elsewhere=any(place.crew.company_id != company.pk for place in one.memberships.all()),
        )
        for one in _of(company).prefetch_related(places).order_by("first_name", "last_name", "pk")
    ]


@transaction.atomic
def begin(user: User, name: str) -> None:
    """Begin a company with the person's crew, run by them. Raises Conflict where the crew is of one."""
    crew = Crew.objects.select_for_update().get(pk=require(user, Right.PEOPLE).pk)
    if crew.company_id is not None:
        raise Conflict(message("accounts.company.has_one"))
    company = Company.objects.create(name=name.strip())
    company.run_by.add(user)
    _join(crew, company, user)


def _join(crew: Crew, company: Company, user: User) -> None:
    crew.company = company
    crew.save(update_fields=["company"])
    user.remember_place()
    record(crew, user, What.COMPANY, f"joined “{company.name}”")


@transaction.atomic
def rename(user: User, name: str) -> None:
    """Call the company something else."""
    company = run_by(user)
    company.name = name.strip() or company.name
    company.save(update_fields=["name"])


@transaction.atomic
def link(user: User) -> str:
    """The token of a link by which a lead brings one more crew in, within a week; earlier ones are void."""
    company = run_by(user)
    _void_links(company)
    return signing.dumps(company.link_key.hex, salt=SALT)


def _void_links(company: Company) -> None:
    company.link_key = uuid4()
    company.save(update_fields=["link_key"])


def of_link(token: str) -> Company:
    """The company of a link. Raises Conflict where it was used, is too old or void."""
    try:
        key = UUID(signing.loads(token, salt=SALT, max_age=VALID_FOR))
        return Company.objects.get(link_key=key)
    except (signing.BadSignature, ValueError, Company.DoesNotExist) as error:
        raise Conflict(USED) from error


@transaction.atomic
def join(user: User, token: str) -> None:
    """Bring the crew that the person leads into the company of a link. Raises Conflict."""
    own = require(user, Right.PEOPLE)
    company = Company.objects.select_for_update().get(pk=of_link(token).pk)
    crew = Crew.objects.select_for_update().get(pk=own.pk)
    if crew.company_id is not None:
        raise Conflict(message("accounts.company.has_one"))
    _void_links(company)
    _join(crew, company, user)


@transaction.atomic
def leave(user: User, crew_id: int) -> None:
    """Take a crew out of the company: its lead one's own, who runs the company any. Nobody is a guest there then."""
    own = require(user, Right.PEOPLE)
    company = get_object_or_404(Company.objects.select_for_update(), crews=own)
    crew = get_object_or_404(company.crews.select_for_update(), pk=crew_id)
    if crew.pk != own.pk:
        run_by(user)
    crew.company = None
    crew.save(update_fields=["company"])
    record(crew, user, What.COMPANY, f"left “{company.name}”")
    if not company.crews.exists():
        company.delete()
    user.remember_place()


@transaction.atomic
def add_crew(user: User, name: str) -> Invitation:
    """A new crew of the company, and the invitation for whoever is to lead it."""
    company = run_by(user)
    if company.crews.count() >= MOST_CREWS:
        raise Conflict(message("accounts.company.too_many_crews", most=MOST_CREWS))
    crew = Crew.objects.create(name=name.strip(), company=company)
    record(crew, user, What.BEGAN, crew.name)
    return invitation_to(crew, Role.LEAD, user)


@transaction.atomic
def share_running(user: User, person: int, *, wanted: bool) -> None:
    """Let another lead run the company too, or no longer. Raises Refused, and Conflict where nobody would be left."""
    company = run_by(user)
    other = get_object_or_404(_of(company), pk=person)
    leads = Membership.objects.filter(user=other, crew__company=company, role=Role.LEAD)
    if wanted and not leads.exists():
        raise Refused(message("accounts.company.leads_only"))
    if not wanted and not who_run(company).exclude(pk=other.pk).filter(companies=company).exists():
        raise Conflict(message("accounts.company.last_who_runs_it"))
    (company.run_by.add if wanted else company.run_by.remove)(other)
    word = "runs the company now" if wanted else "runs the company no longer"
    record(user.membership.crew, user, What.COMPANY, f"{name_of(other)} {word}")


@transaction.atomic
def let_in(user: User, person: int, *, wanted: bool) -> None:
    """Shut somebody out of all that they sign in for, or let them back. Raises Conflict for oneself or another's."""
    company = run_by(user)
    other = get_object_or_404(_of(company), pk=person)
    elsewhere = other.memberships.exclude(crew__company=company).exists()
    if other.pk == user.pk or elsewhere:
        raise Conflict(message("accounts.company.works_elsewhere"))
    (privacy.let_back if wanted else privacy.shut_out)(other, user)
