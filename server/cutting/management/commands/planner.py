"""A planner: makes the cut plans that are asked for, and sends letters, until it is told to stop."""

import os
import resource
from argparse import ArgumentParser
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand

from conduit.cutting.optimizer import warm_up
from server.accounts.mail import QUEUE as MAIL
from server.cutting.solving import QUEUE

# Whoever measures or marks on the same machine goes first on the processor.
NICE = 10
GIB = 2**30
MOST_MEMORY = 4 * GIB
# It is started anew after so many, so that nothing adds up.
MOST_PLANS = 200
PAUSE = 0.2


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
        work = {
            "queue_name": f"{QUEUE},{MAIL}",
            "interval": PAUSE,
            "max_tasks": MOST_PLANS,
            "reload": False,
            "verbosity": 0,
        }
        call_command("db_worker", batch=options["all_there_is"], startup_delay=False, **work)
