"""Works on one file, in a process of its own, which gives back what it took."""

import resource
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from server.exchange.making import make
from server.exchange.reading import read
from server.exchange.taking_in import take_in

WORK = {"make": make, "read": read, "take in": take_in}
# What somebody brought may take so many bytes of memory; a file that would take more is not read.
MOST_MEMORY = 3 * 2**30
BROUGHT = ("read", "take in")


class Command(BaseCommand):
    """Takes what is to be done with the file, and its number."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """The work, and a number."""
        parser.add_argument("work", choices=WORK)
        parser.add_argument("file", type=int)

    def handle(self, *args: Any, **options: Any) -> None:
        """Do it."""
        if options["work"] in BROUGHT:
            resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))
        WORK[options["work"]](options["file"])
