"""Jobs and their runs. A run's document is kept as it was typed; every save is a revision."""

from django.conf import settings
from django.db import models

from server.accounts.models import Binnable, CrewOwned

LONGEST_NOTE = 2000


class Job(Binnable):
    """A place where conduit is run."""

    JOB_KEY = "pk"

    name = models.CharField(max_length=80)
    shared = models.BooleanField(default=False, help_text="The other crews of the company work in it too.")
    place = models.CharField(max_length=120, blank=True)
    datum = models.CharField(
        max_length=120, blank=True, help_text="From where its boxes are placed: a column, a corner, in words."
    )
    archived_at = models.DateTimeField(null=True, editable=False, help_text="When it was put aside; null: at work.")
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


# Of these nothing is cut yet.
TO_CUT = (Status.MEASURED, Status.LAID_OUT)


class Run(Binnable):
    """One run: its document as typed, and a version that grows with each save."""

    JOB_KEY = "job"

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
    note = models.TextField(blank=True, max_length=LONGEST_NOTE, help_text="What is to be known of it, in words.")
    assigned_to = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+", help_text="For whom it is."
    )
    due = models.DateField(null=True, help_text="By when it is to hang.")
    begun = models.JSONField(default=list, help_text="What is begun but not done: what, how many are, of how many.")
    behind = models.JSONField(
        default=list, help_text="Sticks, by number, that were begun and that the run would lay out otherwise now."
    )
    reserved_behind = models.JSONField(
        default=list, help_text="Pieces, by number, that are reserved at another length than the run has now."
    )

    class Meta:
        """In the order in which they were added."""

        ordering = ("id",)
        constraints = [models.UniqueConstraint(fields=["rack_lead", "rack_number"], name="one_run_a_pipe")]

    @property
    def name(self) -> str:
        """What it is called, in its document."""
        return str(self.document.get("name", ""))


class JobBox(CrewOwned):
    """A box of a job, placed from its datum; as typed."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="boxes")
    key = models.CharField(max_length=80, help_text="Its name, however that is spaced and cased.")
    place = models.JSONField()
    version = models.PositiveIntegerField(default=1)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(auto_now=True)

    class Meta:
        """In the order in which they were placed; each once a job."""

        ordering = ("id",)
        constraints = [models.UniqueConstraint(fields=["job", "key"], name="one_box_a_name")]


class RunPhoto(CrewOwned):
    """A photo of where a run goes, as JPEG of a bounded size."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="photos")
    data = models.BinaryField(help_text="Empty where it lies in a file.")
    stored = models.CharField(
        max_length=120, blank=True, default="", help_text="The file that it lies in, by its store."
    )
    width = models.PositiveSmallIntegerField()
    height = models.PositiveSmallIntegerField()
    says = models.CharField(max_length=120, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """In the order in which they came."""

        ordering = ("id",)


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
