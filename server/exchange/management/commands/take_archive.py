"""Makes one archive part of a crew; in a process of its own, which may take so much memory and no more."""

import resource
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from server.exchange.taking_in import take_in

# Bytes; a file that would take more is not taken.
MOST_MEMORY = 3 * 2**30


class Command(BaseCommand):
    """Takes the number of the file."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """One number."""
        parser.add_argument("file", type=int)

    def handle(self, *args: Any, **options: Any) -> None:
        """Take it."""
        resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))
        take_in(options["file"])
