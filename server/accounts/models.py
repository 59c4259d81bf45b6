"""People, crews and companies. A person works in one crew at a time; what a crew owns is seen by that crew alone,
and by the other crews of its company where it shares a job or a shoe with them.
"""

from typing import Any, ClassVar, Self, TypeVar
from uuid import uuid4

from django.conf import settings
from django.contrib.auth.models import AbstractUser, UserManager
from django.core import signing
from django.db import models, transaction
from django.db.models import Q
from django.utils import timezone

from server.database.prepared import Prepared


class People(UserManager["User"]):
    """Those who sign in; one of them is looked for with each request."""

    use_in_migrations = False

    def get(self, *args: Any, **wanted: Any) -> "User":
        """One person. Raises User.DoesNotExist."""
        if args or set(wanted) != {"pk"}:
            return super().get(*args, **wanted)
        if found := _by_number.first(self.model._meta.pk.to_python(wanted["pk"])):
            return found
        raise self.model.DoesNotExist


class User(AbstractUser):
    """A person who signs in. `working_in`: the place in the crew chosen last; None: any."""

    working_in = models.ForeignKey(
        "Membership", null=True, blank=True, editable=False, on_delete=models.SET_NULL, related_name="+"
    )

    objects: ClassVar[People] = People()

    _place: "Membership | None" = None

    written_to_at = models.DateTimeField(null=True, editable=False)

    @property
    def place(self) -> "Membership | None":
        """The place in the crew that the person works in; None for a person without a crew."""
        if self._place:
            return self._place
        places = _places.rows(self.pk)
        return next((one for one in places if one.pk == self.working_in_id), places[0] if places else None)

    def remember_place(self) -> "Membership | None":
        """The same, and it is not asked for again while one request of theirs lasts, or they go to another crew."""
        self._place = None
        self._place = self.place
        return self._place

    def be_guest(self, crew: "Crew", job_id: int | None) -> None:
        """Be in another crew of one's company until one's place is remembered anew; in one of its jobs, if in any."""
        home = self.place
        if home:
            role = Role.VIEWER if home.role == Role.VIEWER else Role.BENDER
            self._place = Membership(user=self, crew=crew, role=role)
            self._place.only_job = job_id

    @property
    def membership(self) -> "Membership":
        """The same. Raises Membership.DoesNotExist for a person without a crew."""
        if place := self.place:
            return place
        raise Membership.DoesNotExist


def name_of(user: User | None) -> str:
    """How a person is called."""
    return (user.get_full_name() or user.username) if user else "Someone"


_by_number = Prepared[User](lambda number: User.objects.filter(pk=number))


class Company(models.Model):
    """Several crews, which may share jobs and shoes with each other; `run_by` people who lead one of them."""

    name = models.CharField(max_length=80)
    run_by = models.ManyToManyField(User, related_name="companies")
    link_key = models.UUIDField(default=uuid4, editable=False, help_text="In its open links; another voids them.")


class Crew(models.Model):
    """People who share jobs, shoes and a scrap rack."""

    name = models.CharField(max_length=80)
    last_tag = models.PositiveIntegerField(default=0, help_text="The last scrap tag given out.")
    tape = models.CharField(max_length=8, default="1/16", help_text="What its rack is measured with.")
    limits = models.JSONField(default=dict, help_text="Its own limits as typed; what is left out is as shipped.")
    # What is left out is as in the run document.
    new_runs = models.JSONField(default=dict, help_text="How its new runs are read: tape, feet, stand-off.")
    sold = models.JSONField(default=list, help_text="Sticks as they are sold to it, with prices (SoldKind).")
    prices = models.JSONField(default=list, help_text="Its price list (Price).")
    labour = models.JSONField(default=dict, help_text="What it takes for each kind of work (LabourFigures).")
    is_demo = models.BooleanField(default=False)
    company = models.ForeignKey(Company, null=True, blank=True, on_delete=models.SET_NULL, related_name="crews")
    leads_with_code = models.BooleanField(default=False, help_text="What only leads may takes a second factor.")


class Role(models.TextChoices):
    """What a person may do in the crew."""

    LEAD = "lead"
    BENDER = "bender"
    VIEWER = "viewer"


class Membership(models.Model):
    """A person's place in a crew."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    crew = models.ForeignKey(Crew, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=8, choices=Role.choices)
    joined_at = models.DateTimeField(default=timezone.now)

    only_job: int | None = None

    class Meta:
        """A person has one place in a crew."""

        constraints = [models.UniqueConstraint(fields=["user", "crew"], name="one_place_in_a_crew")]


_places = Prepared[Membership](lambda user: Membership.objects.filter(user=user).select_related("crew").order_by("pk"))


Row = TypeVar("Row", bound=models.Model, covariant=True)


class CrewQuerySet(models.QuerySet[Row]):
    """The only way to a crew's things: through the person who asks."""

    def for_user(self, user: User) -> Self:
        """What belongs to the crew that the person works in; nothing for a person without one."""
        place = user.place
        return self._where(Q(crew=place.crew_id), place) if place else self.none()

    def _where(self, whose: Q, place: Membership) -> Self:
        """A guest is in one job, and sees no other."""
        key = self.model.JOB_KEY  # type: ignore[attr-defined]
        return self.filter(whose, **({key: place.only_job} if key and place.only_job else {}))


class CrewOwned(models.Model):
    """Something that belongs to one crew."""

    # How its job is found, where it is of one.
    JOB_KEY: ClassVar[str] = ""

    crew = models.ForeignKey(Crew, on_delete=models.CASCADE, related_name="+")

    objects = CrewQuerySet.as_manager()

    class Meta:
        """Not a table of its own."""

        abstract = True


class BinnableQuerySet(CrewQuerySet[Row]):
    """Things that may lie in the bin."""

    def present(self) -> Self:
        """Those that do not."""
        return self.filter(binned_at=None)

    def for_user(self, user: User) -> Self:
        """What belongs to the person's crew and was not deleted."""
        return super().for_user(user).present()

    def in_reach(self, user: User) -> Self:
        """The same, and what other crews of its company share with it."""
        place = user.place
        if not place or place.crew.company_id is None:
            return self.for_user(user)
        shared = Q(crew__company=place.crew.company_id, shared=True)
        return self._where(Q(crew=place.crew_id) | shared, place).present()

    def in_bin(self, user: User) -> Self:
        """What the person's crew deleted, the last first; without what was emptied out."""
        binned = super().for_user(user).exclude(binned_at=None).filter(emptied=False)
        return binned.select_related("binned_by").order_by("-binned_at")


class Binnable(CrewOwned):
    """Something that is put into the crew's bin when it is deleted, and can be taken out again as it was.

    `live` is null in the bin, so that a name is free for another meanwhile.
    """

    live = models.BooleanField(null=True, default=True, editable=False)
    binned_at = models.DateTimeField(null=True, editable=False)
    emptied = models.BooleanField(
        default=False, editable=False, help_text="Deleted for good, but the crew's records hold on to it."
    )
    binned_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, editable=False, on_delete=models.SET_NULL, related_name="+"
    )

    objects: ClassVar = BinnableQuerySet.as_manager()

    class Meta:
        """Not a table of its own."""

        abstract = True

    def bin(self, user: User) -> None:
        """Put it into the bin."""
        self.live, self.binned_at, self.binned_by = None, timezone.now(), user
        self.save(update_fields=["live", "binned_at", "binned_by"])

    def take_out(self) -> None:
        """Take it out of the bin. Raises IntegrityError where another has its name now."""
        self.live, self.binned_at, self.binned_by = True, None, None
        self.save(update_fields=["live", "binned_at", "binned_by"])

    def empty_out(self) -> None:
        """Delete it for good; where records must not lose it (the log of bends), it is only seen no more."""
        try:
            with transaction.atomic():
                self.delete()
        except models.RestrictedError:
            self.emptied = True
            self.save(update_fields=["emptied"])


class Reply(models.Model):
    """What a write was answered, so that the same, sent again, is answered so and not done again."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    key = models.UUIDField()
    asked = models.CharField(max_length=64, help_text="A digest of what was sent.")
    status = models.PositiveSmallIntegerField(default=0)
    body = models.TextField(default="")
    at = models.DateTimeField(auto_now_add=True, db_index=True)

    class Meta:
        """A key is one write's."""

        constraints = [models.UniqueConstraint(fields=["user", "key"], name="one_write_a_key")]


class Invitation(CrewOwned):
    """A link by which one person may join the crew, once and for a while."""

    key = models.UUIDField(unique=True, default=uuid4, editable=False)
    role = models.CharField(max_length=8, choices=Role.choices)
    name = models.CharField(max_length=80, blank=True, help_text="Whom it is for, as the lead wrote it.")
    made_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    used_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    used_at = models.DateTimeField(null=True)
    withdrawn_at = models.DateTimeField(null=True)

    SALT = "crelda.invitation"

    @property
    def token(self) -> str:
        """What stands in its link; signed, so that none is made from the database alone."""
        return signing.dumps(self.key.hex, salt=self.SALT)

    @classmethod
    def of(cls, token: str) -> "Invitation | None":
        """The invitation of a link, used or not; None where there is no such."""
        try:
            return cls.objects.select_related("crew").filter(key=signing.loads(token, salt=cls.SALT)).first()
        except (signing.BadSignature, ValueError):
            return None

    @property
    def is_open(self) -> bool:
        """Whether it can still be taken."""
        return self.used_at is None and self.withdrawn_at is None and self.expires_at > timezone.now()


class Change(models.Model):
    """How often something was written, as “run 7” or “crew 1”: a row of its own, which nothing else waits for."""

    about = models.CharField(max_length=32, primary_key=True)
    number = models.PositiveBigIntegerField(default=0)


class Identity(models.Model):
    """An account of the company's own provider (OpenID Connect) by which a person signs in."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    issuer = models.CharField(max_length=200)
    subject = models.CharField(max_length=255, db_collation="utf8mb4_bin")
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """An account is one person's, and a person has one with a provider."""

        constraints = [
            models.UniqueConstraint(fields=["issuer", "subject"], name="one_person_an_account"),
            models.UniqueConstraint(fields=["user", "issuer"], name="one_account_a_person"),
        ]


class Event(CrewOwned):
    """Something that was done in a crew and is told in its history, for good."""

    at = models.DateTimeField(default=timezone.now, db_index=True)
    by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    what = models.CharField(max_length=24)
    about = models.CharField(max_length=200, blank=True, help_text="Whom or what it was done to, in words.")

    class Meta:
        """The last first."""

        ordering: ClassVar = ["-at", "-pk"]
