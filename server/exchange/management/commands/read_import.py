"""Reads one file in; in a process of its own, which may take so much memory and no more, and gives it back."""

import resource
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from server.exchange.reading import read

# Bytes; a file that would take more is not read.
MOST_MEMORY = 3 * 2**30


class Command(BaseCommand):
    """Takes the number of the file."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """One number."""
        parser.add_argument("file", type=int)

    def handle(self, *args: Any, **options: Any) -> None:
        """Read it."""
        resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))
        read(options["file"])
