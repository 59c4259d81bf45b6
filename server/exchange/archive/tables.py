"""What of the database is in an archive: its tables in the order in which they are made again, and their rows."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from django.db.models import F, Model, Q, QuerySet

from server.accounts.models import Crew, Event
from server.bench.models import BendMade, Stick
from server.cutting.models import Asked, Bar, Cut
from server.jobs.models import Job, JobBox, Revision, Run, RunPhoto
from server.shoes.models import Calibration, Shoe
from server.stock.models import Entry, Reservation, Scrap

# What of a crew is its own doing here, and is not taken along.
NOT_OF_CREW = ("company", "is_demo", "leads_with_code", "last_tag")


@dataclass(frozen=True)
class Scope:
    """What is packed: one job, or, where there is none, all of a crew."""

    crew: Crew
    job: Job | None = None

    def of_job(self, path: str) -> Q:
        """Rows whose job is found by that path."""
        return Q(**{path: self.job}) if self.job else Q(**{f"{path}__crew": self.crew})

    def jobs(self) -> Q:
        """The job; or all of the crew's."""
        return Q(pk=self.job.pk) if self.job else Q(crew=self.crew)

    def scraps(self) -> Q:
        """Scraps that the job's plans were made of or left, or that are kept for it."""
        if not self.job:
            return Q(crew=self.crew)
        bars = Bar.objects.filter(job=self.job)
        used = [*bars.values_list("scrap", flat=True), *bars.values_list("offcut", flat=True)]
        kept = Reservation.objects.filter(job=self.job).values_list("scrap", flat=True)
        return Q(pk__in={one for one in (*used, *kept) if one})

    def shoes(self) -> Q:
        """Shoes that its bends were made on, or that its runs name; all of a crew's, and those that it was lent."""
        sticks = self.of_job("stick__run__job")
        bent_on = BendMade.objects.filter(sticks, shoe__isnull=False).values_list("shoe", flat=True)
        if not self.job:
            return Q(crew=self.crew) | Q(pk__in=set(bent_on))
        documents = Run.objects.filter(job=self.job).values_list("document", flat=True)
        return Q(pk__in=set(bent_on)) | Q(crew=self.crew, live=True, name__in={*map(shoe_named, documents)})


def shoe_named(document: Any) -> str:
    """The name of the shoe in a run document; empty where there is none."""
    shoe = document.get("shoe") if isinstance(document, dict) else None
    name = shoe.get("name") if isinstance(shoe, dict) else None
    return name if isinstance(name, str) else ""


@dataclass(frozen=True)
class Table:
    """A table, as an archive has it: its name, the rows in order, and fields that stay behind."""

    name: str
    model: type[Model]
    rows: Callable[[Scope], Q | None]
    order: Sequence[Any] = ("pk",)
    without: tuple[str, ...] = ()

    def query(self, scope: Scope) -> QuerySet[Any]:
        """Its rows."""
        wanted = self.rows(scope)
        found = self.model._default_manager.all()
        return found.none() if wanted is None else found.filter(wanted).order_by(*self.order)

    @property
    def path(self) -> str:
        """The member that it is in."""
        return f"records/{self.name}.jsonl"

    @property
    def fields(self) -> list[Any]:
        """What of a row is kept. Its number is not: it gets another; nor the crew, which is that which reads it in."""
        crew = [field.name for field in self.model._meta.concrete_fields if field.related_model is Crew]
        key = self.model._meta.pk
        own = [] if key.is_relation else [key.name]
        left = {*crew, *own, *self.without}
        return [field for field in self.model._meta.concrete_fields if field.name not in left]


def _crew(scope: Scope) -> Q | None:
    return None if scope.job else Q(pk=scope.crew.pk)


def _events(scope: Scope) -> Q | None:
    return None if scope.job else Q(crew=scope.crew)


# Each after what it names.
TABLES = (
    Table("crew", Crew, _crew, without=NOT_OF_CREW),
    Table("events", Event, _events),
    Table("shoes", Shoe, Scope.shoes, without=("shared",)),
    Table("calibrations", Calibration, lambda scope: Q(shoe__in=Shoe.objects.filter(scope.shoes()))),
    Table("scraps", Scrap, Scope.scraps),
    Table("entries", Entry, lambda scope: Q(scrap__in=Scrap.objects.filter(scope.scraps()))),
    Table("jobs", Job, Scope.jobs, without=("shared",)),
    Table("reservations", Reservation, lambda scope: scope.of_job("job"), ("scrap",)),
    Table("boxes", JobBox, lambda scope: scope.of_job("job")),
    Table("runs", Run, lambda scope: scope.of_job("job"), (F("rack_lead").asc(nulls_first=True), "pk")),
    Table("revisions", Revision, lambda scope: scope.of_job("run__job")),
    Table("photos", RunPhoto, lambda scope: scope.of_job("run__job"), without=("data", "stored")),
    Table("sticks", Stick, lambda scope: scope.of_job("run__job")),
    Table("bends", BendMade, lambda scope: scope.of_job("stick__run__job")),
    Table("cut_terms", Asked, lambda scope: scope.of_job("job"), ("job",)),
    Table("bars", Bar, lambda scope: scope.of_job("job")),
    Table("cuts", Cut, lambda scope: scope.of_job("bar__job")),
)
BY_MODEL = {table.model: table for table in TABLES}
PEOPLE = "records/people.jsonl"
# Not of an archive, with why: all other tables of the crew's.
LEFT_OUT = {
    "accounts.Invitation": "opens a place here",
    "bench.ActDone": "tells acts sent twice, for a while",
    "cutting.Proposal": "is made anew",
    "cutting.Solve": "is asked anew",
    "exchange.Export": "is made anew",
    "exchange.Import": "is read anew",
}
