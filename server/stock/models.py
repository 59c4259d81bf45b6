"""The scrap rack, what is reserved on it, and what happened to each piece. Lengths in inches."""

from django.conf import settings
from django.db import models
from django.utils import timezone

from conduit.units import format_length
from server.accounts.models import CrewOwned
from server.jobs.models import Job


class Ends(models.TextChoices):
    """How a pipe's end is; rough: not square; bent: it goes on in a bend, and what is straight of it is measured."""

    FACTORY = "factory"
    CUT = "cut"
    THREADED = "threaded"
    ROUGH = "rough"
    BENT = "bent"


class Scrap(CrewOwned):
    """An offcut with its tag. It stays on record after it is taken."""

    tag = models.CharField(max_length=12)
    material = models.CharField(max_length=8)
    trade_size = models.CharField(max_length=8)
    length = models.FloatField()
    place = models.CharField(max_length=40, blank=True)
    end_a = models.CharField(max_length=8, choices=Ends.choices, default=Ends.CUT)
    end_b = models.CharField(max_length=8, choices=Ends.choices, default=Ends.CUT)
    since = models.DateTimeField(default=timezone.now)
    taken_at = models.DateTimeField(null=True)

    class Meta:
        """Oldest first; a tag names one scrap of a crew."""

        ordering = ("since", "id")
        constraints = [models.UniqueConstraint(fields=["crew", "tag"], name="one_scrap_a_tag")]


class Reservation(models.Model):
    """A scrap that is kept for a job's cut plan. The scrap is the key: nobody else can have it too."""

    scrap = models.OneToOneField(Scrap, primary_key=True, on_delete=models.CASCADE, related_name="reservation")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="reservations")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(auto_now_add=True)


class What(models.TextChoices):
    """What happened to a scrap."""

    ADDED = "added"
    CORRECTED = "corrected"
    RESERVED = "reserved"
    LET_GO = "let go"
    CUT = "cut"
    OFFCUT = "offcut"
    SPOILED = "cut wrong"
    UNDONE = "undone"
    TAKEN = "taken"
    RECYCLED = "recycled"
    PUT_BACK = "put back"


class Entry(CrewOwned):
    """One line of the rack's ledger, with the scrap's length at the time. Never changed."""

    scrap = models.ForeignKey(Scrap, on_delete=models.CASCADE, related_name="entries")
    what = models.CharField(max_length=10, choices=What.choices)
    length = models.FloatField(default=0)
    note = models.CharField(max_length=200, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """Newest first."""

        ordering = ("-id",)

    @property
    def reads(self) -> str:
        """The scrap's length then, as a tape reads it."""
        return format_length(self.length or self.scrap.length, self.crew.tape)
