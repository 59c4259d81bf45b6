"""Work at the bench: sticks begun and the bends made on them. Lengths in inches, angles in degrees."""

from django.conf import settings
from django.db import models

from server.accounts.models import CrewOwned
from server.jobs.models import Run
from server.shoes.models import Shoe


class Stick(CrewOwned):
    """One piece of a run as it is worked on. One that was scrapped stays on record, no longer live.

    Once it is cut or bent it keeps the run's document as it then was, with the shoe's figures: what was
    laid out is what is bent, whatever is changed in the run meanwhile.
    """

    run = models.ForeignKey(Run, on_delete=models.RESTRICT, related_name="sticks")
    piece = models.PositiveSmallIntegerField()
    live = models.BooleanField(null=True, default=True, help_text="True, or null once it is scrapped.")
    arranged = models.JSONField(default=dict, help_text="Order, hooks, card or exact marks, spare.")
    document = models.JSONField(null=True, help_text="The run as it was when the stick was begun.")
    limits = models.JSONField(null=True, help_text="The limits that it was planned by when it was begun.")
    number_then = models.PositiveSmallIntegerField(null=True, help_text="The piece's number in that, where it differs.")
    cut_at = models.DateTimeField(null=True)
    fitted_at = models.DateTimeField(null=True)
    fit_checks = models.JSONField(default=dict, help_text="What was looked at when it was fitted: by whom, and when.")
    cut_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    fitted_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        """By piece; only one live stick a piece."""

        ordering = ("piece", "id")
        constraints = [models.UniqueConstraint(fields=["run", "piece", "live"], name="one_live_stick_a_piece")]


class BendMade(CrewOwned):
    """A bend as it was made: planned and as read. One that was read again or taken back is no longer live.

    The log never goes with a run or a job: those that have bends cannot be taken out of the database.
    """

    stick = models.ForeignKey(Stick, on_delete=models.RESTRICT, related_name="bends")
    bend = models.PositiveSmallIntegerField()
    live = models.BooleanField(null=True, default=True)
    taken_back = models.BooleanField(default=False, help_text="A slip of the hand, not a bend: not in the log.")
    left = models.BooleanField(default=False, help_text="Not to be touched again; the rest makes up for it.")
    shoe = models.ForeignKey(Shoe, null=True, on_delete=models.SET_NULL, related_name="bends")
    shoe_name = models.CharField(max_length=80)
    mark = models.FloatField()
    reference = models.CharField(max_length=40)
    hook = models.CharField(max_length=1)
    where = models.CharField(max_length=8)
    planned_angle = models.FloatField()
    dial = models.FloatField()
    angle = models.FloatField()
    tape = models.FloatField(null=True)
    tape_wanted = models.FloatField(null=True)
    turned = models.FloatField(default=0.0, help_text="A dog-leg: how far its leg leans, clockwise from A.")
    within = models.BooleanField()
    advice = models.CharField(max_length=8, blank=True, help_text="What was to be done after it, as told then.")
    out_by = models.CharField(max_length=8, blank=True, help_text="What of it was out of tolerance, as told then.")
    shows = models.CharField(max_length=6, blank=True, help_text="Which figure of the shoe the tape showed.")
    figure = models.FloatField(null=True, help_text="That figure as shown.")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(help_text="When it was bent, which may be long before it was sent.")
    entered_at = models.DateTimeField(null=True, auto_now_add=True, help_text="When the server had it.")

    class Meta:
        """In the order in which they were made; one live reading a bend."""

        ordering = ("at", "id")
        constraints = [models.UniqueConstraint(fields=["stick", "bend", "live"], name="one_live_reading_a_bend")]


class ActDone(CrewOwned):
    """An act that was done. Sent again, as after an answer that was lost, it is passed over."""

    key = models.UUIDField()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """A key is one act's."""

        constraints = [models.UniqueConstraint(fields=["crew", "key"], name="one_act_a_key")]
