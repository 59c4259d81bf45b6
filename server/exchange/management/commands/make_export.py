"""Makes one file that was asked for; in a process of its own, which gives back what it took."""

from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from server.exchange.making import make


class Command(BaseCommand):
    """Takes the number of what was asked."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """One number."""
        parser.add_argument("export", type=int)

    def handle(self, *args: Any, **options: Any) -> None:
        """Make it."""
        make(options["export"])
