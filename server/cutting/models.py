"""Cut plans of jobs. Lengths in whole sixteenths of an inch, as they are planned and sawn."""

from datetime import timedelta
from typing import ClassVar, Self

from django.conf import settings
from django.db import models
from django.utils import timezone

from server.accounts.models import CrewOwned, CrewQuerySet
from server.jobs.models import Job, Run
from server.stock.models import Scrap


class Asked(models.Model):
    """By what terms a job's cuts are planned."""

    job = models.OneToOneField(Job, primary_key=True, on_delete=models.CASCADE, related_name="cut_terms")
    terms = models.JSONField(default=dict)


class Proposal(CrewOwned):
    """A plan found for a job as it was. The same job gets the same plan again."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="proposals")
    digest = models.CharField(max_length=64)
    parts = models.JSONField(help_text="A digest of each run, of the rack and of the terms: to tell what changed.")
    seconds = models.FloatField()
    result = models.JSONField()
    picks = models.JSONField(default=dict, help_text="Choices picked, by the name of the kind of pipe.")
    at = models.DateTimeField(auto_now=True)

    class Meta:
        """One a digest."""

        ordering = ("-at",)
        constraints = [models.UniqueConstraint(fields=["job", "digest"], name="one_plan_for_the_same")]


class State(models.TextChoices):
    """How a question for a plan stands."""

    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    STOPPED = "stopped"
    FAILED = "failed"


AT_WORK = (State.WAITING, State.RUNNING)
# A planner says every second that it is at work; one that is silent for so long is gone, with its question.
SILENCE = timedelta(seconds=25)


class SolveQuerySet(CrewQuerySet["Solve"]):
    """Questions for plans."""

    def active(self) -> Self:
        """Those that wait for a planner, or that one is at work on."""
        gone = models.Q(state=State.RUNNING, heard_at__lt=timezone.now() - SILENCE)
        return self.filter(state__in=AT_WORK).exclude(gone)


class Solve(CrewOwned):
    """What a job's planner is asked for now, or was asked last. `number`: this asking, of all that were for the job."""

    job = models.OneToOneField(Job, primary_key=True, on_delete=models.CASCADE, related_name="solve")
    number = models.UUIDField()
    digest = models.CharField(max_length=64)
    terms = models.JSONField()
    seconds = models.FloatField()
    state = models.CharField(max_length=8, choices=State.choices, db_index=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    asked_at = models.DateTimeField()
    started_at = models.DateTimeField(null=True)
    heard_at = models.DateTimeField(help_text="When its planner last said that it is at work.")
    says = models.CharField(max_length=200, blank=True, help_text="Why it failed.")
    part_done = models.FloatField(default=0.0, help_text="How much of the work is done, from 0 to 1.")

    objects: ClassVar = SolveQuerySet.as_manager()

    @property
    def is_active(self) -> bool:
        """Whether it waits for a planner, or one is at work on it."""
        silent = self.state == State.RUNNING and self.heard_at < timezone.now() - SILENCE
        return self.state in AT_WORK and not silent


class Bar(CrewOwned):
    """A bar of a plan that was taken: a scrap that is reserved, or a stick to be bought; `left` of it now."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="bars")
    live = models.BooleanField(null=True, default=True, help_text="True, or null once it is done with.")
    name = models.CharField(max_length=12)
    scrap = models.ForeignKey(Scrap, null=True, on_delete=models.CASCADE, related_name="+")
    material = models.CharField(max_length=8)
    trade_size = models.CharField(max_length=8)
    length = models.PositiveIntegerField()
    left = models.PositiveIntegerField()
    spoiled = models.PositiveIntegerField(default=0, help_text="What went into pieces cut wrong, with their kerf.")
    squared = models.PositiveSmallIntegerField(default=0, help_text="What comes off its begin before the first cut.")
    is_squared = models.BooleanField(default=False, help_text="Whether a saw makes its begin first.")
    keep = models.PositiveSmallIntegerField()
    begin = models.CharField(max_length=1, default="A")
    offcut_tag = models.CharField(max_length=12, blank=True)
    offcut = models.ForeignKey(Scrap, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        """A scrap is in one live plan only; a job's bars have names of their own."""

        ordering = ("id",)
        constraints = [
            models.UniqueConstraint(fields=["scrap", "live"], name="one_plan_a_scrap"),
            models.UniqueConstraint(fields=["job", "name", "live"], name="one_bar_a_name"),
        ]


class Cut(CrewOwned):
    """A piece to be cut from a bar; from coupling `start` to `end` on its run."""

    bar = models.ForeignKey(Bar, on_delete=models.CASCADE, related_name="cuts")
    live = models.BooleanField(
        null=True, default=True, help_text="True, or null once it is not to be cut here any more."
    )
    order = models.PositiveSmallIntegerField()
    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="cuts")
    piece = models.PositiveSmallIntegerField()
    start = models.PositiveIntegerField()
    end = models.PositiveIntegerField()
    length = models.PositiveIntegerField()
    kerf = models.PositiveSmallIntegerField(help_text="What the saw takes beside it, by the terms it was reserved by.")
    came_out = models.PositiveIntegerField(null=True, help_text="Its length, where it was cut longer.")
    done_at = models.DateTimeField(null=True)
    done_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        """In the order of cutting; a stretch of a run is cut once."""

        ordering = ("bar_id", "order", "id")
        constraints = [models.UniqueConstraint(fields=["run", "start", "live"], name="one_cut_a_piece")]
