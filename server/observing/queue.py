"""How the queue of cut plans stands, asked of the database when the metrics are: the same from every process."""

from collections.abc import Iterator

from django.db.models import Count, Min
from django.utils import timezone
from django_tasks_db.models import DBTaskResult
from prometheus_client.core import GaugeMetricFamily
from prometheus_client.registry import Collector

WAITING, RUNNING = "READY", "RUNNING"


class Queue(Collector):
    """How many plans wait and are made, and how long the first of them has waited."""

    def collect(self) -> Iterator[GaugeMetricFamily]:
        """The gauges."""
        there = DBTaskResult.objects.filter(status__in=(WAITING, RUNNING))
        counts = dict(there.order_by().values_list("status").annotate(Count("pk")))
        plans = GaugeMetricFamily("crelda_queue_plans", "Cut plans that wait or are made.", labels=("state",))
        for state, status in (("waiting", WAITING), ("running", RUNNING)):
            plans.add_metric((state,), counts.get(status, 0))
        yield plans
        first = there.filter(status=WAITING).aggregate(first=Min("enqueued_at"))["first"]
        waited = (timezone.now() - first).total_seconds() if first else 0.0
        yield GaugeMetricFamily("crelda_queue_longest_wait_seconds", "How long the first has waited.", waited)
