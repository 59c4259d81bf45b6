"""The scrap rack and what happened to each piece on it. Lengths in inches."""

from django.conf import settings
from django.db import models

from server.accounts.models import CrewOwned


class Scrap(CrewOwned):
    """An offcut with its tag. It stays on record after it is taken."""

    tag = models.CharField(max_length=12)
    material = models.CharField(max_length=8)
    trade_size = models.CharField(max_length=8)
    length = models.FloatField()
    taken_at = models.DateTimeField(null=True)

    class Meta:
        """Oldest first; a tag names one scrap of a crew."""

        ordering = ("id",)
        constraints = [models.UniqueConstraint(fields=["crew", "tag"], name="one_scrap_a_tag")]


class What(models.TextChoices):
    """What happened to a scrap."""

    ADDED = "added"
    TAKEN = "taken"
    PUT_BACK = "put back"


class Entry(CrewOwned):
    """One line of the rack's ledger. Never changed."""

    scrap = models.ForeignKey(Scrap, on_delete=models.CASCADE, related_name="entries")
    what = models.CharField(max_length=10, choices=What.choices)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """Newest first."""

        ordering = ("-id",)
