"""Files that were asked for, and files that are read in. They belong to who asked or brought them, for some days."""

from datetime import timedelta

from django.conf import settings
from django.db import models
from django.utils import timezone

from server.accounts.models import CrewOwned
from server.jobs.models import Job, Run

# Whoever makes one says every few seconds that it is at work; one that is silent for so long is gone.
SILENCE = timedelta(seconds=60)


class State(models.TextChoices):
    """How a file stands that was asked for, or is read in."""

    COMING = "coming"
    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    FAILED = "failed"
    TAKEN = "taken"


AT_WORK = (State.WAITING, State.RUNNING)


class _Worked(CrewOwned):
    """A file of one person's, which a planner works on."""

    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    says = models.CharField(max_length=400, blank=True, help_text="Why there is nothing.")
    language = models.CharField(max_length=8)
    asked_at = models.DateTimeField(auto_now_add=True)
    heard_at = models.DateTimeField(default=timezone.now)

    class Meta:
        """Not a table of its own."""

        abstract = True

    @property
    def is_lost(self) -> bool:
        """Whether whoever worked on it is gone."""
        return self.state == State.RUNNING and self.heard_at < timezone.now() - SILENCE


class Export(_Worked):
    """A file of a run, or of a job: what is wanted, and how it goes. `origin`: the address that its codes open."""

    job = models.ForeignKey(
        Job, null=True, on_delete=models.CASCADE, related_name="+", help_text="None: all that the crew has."
    )
    run = models.ForeignKey(Run, null=True, on_delete=models.CASCADE, related_name="+")
    to = models.CharField(max_length=8)
    part = models.CharField(max_length=16, blank=True)
    size = models.CharField(max_length=8)
    origin = models.CharField(max_length=200, blank=True)
    part_done = models.FloatField(default=0.0, help_text="How much of it is done, from 0 to 1.")
    file_name = models.CharField(max_length=120, blank=True)
    length = models.PositiveIntegerField(default=0, help_text="Bytes.")

    class Meta:
        """Newest first."""

        ordering = ("-id",)


class ExportPart(models.Model):
    """So many of a file's bytes: a database takes no more in one go."""

    export = models.ForeignKey(Export, on_delete=models.CASCADE, related_name="parts")
    number = models.PositiveSmallIntegerField()
    data = models.BinaryField()

    class Meta:
        """In their order."""

        ordering = ("number",)
        constraints = [models.UniqueConstraint(fields=["export", "number"], name="one_part_a_number")]


class Import(_Worked):
    """A file that is read in: how it is meant, what was read of it, and what became of that."""

    name = models.CharField(max_length=120, help_text="The file's own.")
    length = models.PositiveIntegerField(help_text="Bytes.")
    meant = models.JSONField(default=dict, help_text="How it is meant, where it does not say (MeantIn).")
    asks = models.CharField(max_length=8, blank=True, help_text="What of that is asked before it can be read.")
    passed_over = models.JSONField(default=list, help_text="What was not understood: where, and why.")
    boxes = models.JSONField(default=list, help_text="Boxes of the job that it says, as typed.")
    archive = models.JSONField(null=True, help_text="What an archive says (ArchiveOut).")
    unpack_as = models.CharField(max_length=80, blank=True, help_text="What the archive's job is called here.")
    part_done = models.FloatField(default=0.0, help_text="How much of an archive is taken, from 0 to 1.")
    job = models.ForeignKey(Job, null=True, on_delete=models.SET_NULL, related_name="+", help_text="Where it went.")


class ImportPart(models.Model):
    """So many of its bytes."""

    of = models.ForeignKey(Import, on_delete=models.CASCADE, related_name="parts")
    number = models.PositiveSmallIntegerField()
    data = models.BinaryField()

    class Meta:
        """In their order."""

        ordering = ("number",)
        constraints = [models.UniqueConstraint(fields=["of", "number"], name="one_part_a_number_in")]


class ImportedRun(models.Model):
    """A run as it was read out of a file; `run`: what it became."""

    of = models.ForeignKey(Import, on_delete=models.CASCADE, related_name="runs")
    number = models.PositiveSmallIntegerField()
    document = models.JSONField()
    told = models.JSONField(default=list, help_text="What to look at, in words.")
    stops = models.JSONField(default=list, help_text="Why it cannot be bent as it is, in words.")
    bends = models.PositiveSmallIntegerField(default=0)
    reads = models.CharField(max_length=40, blank=True, help_text="Its developed length, as the tape reads it.")
    picture = models.TextField(blank=True, help_text="Its view from the front, as SVG.")
    run = models.ForeignKey(Run, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        """In the file's order."""

        ordering = ("number",)
        constraints = [models.UniqueConstraint(fields=["of", "number"], name="one_run_a_number_in")]
