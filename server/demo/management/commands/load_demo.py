"""Load the demo data."""

from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from server.demo.load import load


class Command(BaseCommand):
    """Loads the demo once; --fresh takes the old demo away first. Other crews are never touched."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """One flag."""
        parser.add_argument("--fresh", action="store_true", help="reset the demo")

    def handle(self, *args: Any, **options: Any) -> None:
        """Load, and say what was done."""
        self.stdout.write("demo loaded" if load(options["fresh"]) else "demo kept")
