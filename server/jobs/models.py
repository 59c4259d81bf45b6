"""Jobs and their runs. A run's document is kept as it was typed; every save is a revision."""

from django.conf import settings
from django.db import models

from server.accounts.models import Binnable


class Job(Binnable):
    """A place where conduit is run."""

    name = models.CharField(max_length=80)
    place = models.CharField(max_length=120, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """Newest first."""

        ordering = ("-id",)


class Status(models.TextChoices):
    """How far the work on a run has come: what is true of all of its pieces."""

    MEASURED = "measured"
    LAID_OUT = "laid out"
    CUT = "cut"
    BENT = "bent"
    FITTED = "fitted"


class Run(Binnable):
    """One run: its document as typed, and a version that grows with each save."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="runs")
    document = models.JSONField()
    version = models.PositiveIntegerField(default=1)
    saved_at = models.DateTimeField(auto_now_add=True)
    saved_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    status = models.CharField(max_length=8, choices=Status.choices, default=Status.MEASURED)
    cut_couplings = models.JSONField(
        default=list, help_text="Couplings that a cut plan put into the document, in sixteenths: it may move them."
    )
    rack_lead = models.ForeignKey(
        "self", null=True, editable=False, on_delete=models.CASCADE, related_name="rack_pipes"
    )
    rack_number = models.PositiveSmallIntegerField(null=True, editable=False, help_text="Which pipe of the rack.")
    progress = models.CharField(max_length=40, blank=True, help_text="What is begun but not done, as “2 of 5 bends”.")

    class Meta:
        """In the order in which they were added."""

        ordering = ("id",)
        constraints = [models.UniqueConstraint(fields=["rack_lead", "rack_number"], name="one_run_a_pipe")]


class Revision(models.Model):
    """A run's document as it was saved at one version."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="revisions")
    version = models.PositiveIntegerField()
    document = models.JSONField()
    saved_at = models.DateTimeField(auto_now_add=True)
    saved_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        """One revision a version."""

        constraints = [models.UniqueConstraint(fields=["run", "version"], name="one_revision_a_version")]
