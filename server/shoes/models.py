"""A crew's shoes. Lengths in inches."""

from django.db import models

from server.accounts.models import CrewOwned


class Shoe(CrewOwned):
    """A bender's shoe with the figures of its last calibration."""

    name = models.CharField(max_length=80)
    material = models.CharField(max_length=8)
    trade_size = models.CharField(max_length=8)
    deduct = models.FloatField()
    gain = models.FloatField()

    class Meta:
        """Listed by size, then name."""

        ordering = ("trade_size", "name")
