"""Load a crowd for the load test."""

from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from server.demo.crowd import load_crowd


class Command(BaseCommand):
    """Loads crews of ten, so many people in all."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """How many."""
        parser.add_argument("people", type=int)

    def handle(self, *args: Any, **options: Any) -> None:
        """Load."""
        load_crowd(options["people"])
