"""Files that were asked for. They belong to who asked, and are thrown away in days: each is made again in seconds."""

from datetime import timedelta

from django.conf import settings
from django.db import models
from django.utils import timezone

from server.accounts.models import CrewOwned
from server.jobs.models import Job, Run

# Whoever makes one says every few seconds that it is at work; one that is silent for so long is gone.
SILENCE = timedelta(seconds=60)


class State(models.TextChoices):
    """How a file that was asked for stands."""

    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    FAILED = "failed"


AT_WORK = (State.WAITING, State.RUNNING)


class Export(CrewOwned):
    """A file of a run, or of a job: what is wanted, and how it goes. `origin`: the address that its codes open."""

    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="+")
    run = models.ForeignKey(Run, null=True, on_delete=models.CASCADE, related_name="+")
    to = models.CharField(max_length=8)
    part = models.CharField(max_length=16, blank=True)
    size = models.CharField(max_length=8)
    language = models.CharField(max_length=8)
    origin = models.CharField(max_length=200, blank=True)
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    says = models.CharField(max_length=400, blank=True, help_text="Why there is none.")
    part_done = models.FloatField(default=0.0, help_text="How much of it is done, from 0 to 1.")
    file_name = models.CharField(max_length=120, blank=True)
    length = models.PositiveIntegerField(default=0, help_text="Bytes.")
    asked_at = models.DateTimeField(auto_now_add=True)
    heard_at = models.DateTimeField(default=timezone.now)

    class Meta:
        """Newest first."""

        ordering = ("-id",)

    @property
    def is_lost(self) -> bool:
        """Whether whoever made it is gone."""
        return self.state == State.RUNNING and self.heard_at < timezone.now() - SILENCE


class ExportPart(models.Model):
    """So many of a file's bytes: a database takes no more in one go."""

    export = models.ForeignKey(Export, on_delete=models.CASCADE, related_name="parts")
    number = models.PositiveSmallIntegerField()
    data = models.BinaryField()

    class Meta:
        """In their order."""

        ordering = ("number",)
        constraints = [models.UniqueConstraint(fields=["export", "number"], name="one_part_a_number")]
