"""A planner: makes the cut plans and files that are asked for, and sends letters, until it is told to stop."""

import os
import resource
from argparse import ArgumentParser
from typing import Any
from uuid import uuid4

from django.conf import settings
from django.core.management.base import BaseCommand
from django_tasks_db.management.commands.db_worker import Worker

from conduit.cutting.optimizer import warm_up

# Whoever measures or marks on the same machine goes first on the processor.
NICE = 10
GIB = 2**30
MOST_MEMORY = 4 * GIB
# It is started anew after so many, so that nothing adds up.
MOST_PLANS = 200
# Seconds between two looks at the queue: at work, and once nothing came for some time.
SHORTEST_PAUSE, LONGEST_PAUSE, LONGER = 0.2, 1.5, 1.05


class Patient(Worker):
    """The package's worker; the longer nothing comes, the seldomer it looks."""

    _pause = SHORTEST_PAUSE

    @property
    def interval(self) -> float:
        """How long to wait until the next look; a little longer each time."""
        self._pause = min(LONGEST_PAUSE, LONGER * self._pause)
        return self._pause

    @interval.setter
    def interval(self, seconds: float) -> None:
        self._pause = seconds

    def run_task(self, db_task_result: Any) -> None:
        """Do what was asked for; more may follow soon."""
        super().run_task(db_task_result)
        self._pause = SHORTEST_PAUSE


class Command(BaseCommand):
    """Steps back behind the web processes, within bounds of memory, and takes one plan at a time from the queue."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """One flag."""
        parser.add_argument("--all-there-is", action="store_true", help="end when nothing waits any more")

    def handle(self, *args: Any, **options: Any) -> None:
        """Work."""
        os.nice(NICE)
        resource.setrlimit(resource.RLIMIT_DATA, (MOST_MEMORY, MOST_MEMORY))
        os.environ["CRELDA_PLANNER"] = "1"
        warm_up()
        worker = Patient(
            queue_names=settings.QUEUES,
            interval=SHORTEST_PAUSE,
            batch=options["all_there_is"],
            backend_name="default",
            startup_delay=False,
            max_tasks=MOST_PLANS,
            worker_id=uuid4().hex,
            excluded_queue_names=[],
        )
        worker.configure_signals()
        worker.run()
