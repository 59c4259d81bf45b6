"""Load the demo data, or take it away."""

from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from server.demo.load import load, take_away


class Command(BaseCommand):
    """Loads the demo once; --fresh takes the old demo away first. Other crews are never touched."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Two flags."""
        parser.add_argument("--fresh", action="store_true", help="reset the demo")
        parser.add_argument("--remove", action="store_true", help="take the demo's crew and people away")

    def handle(self, *args: Any, **options: Any) -> None:
        """Load, and say what was done."""
        if options["remove"]:
            take_away()
            self.stdout.write("demo taken away")
            return
        self.stdout.write("demo loaded" if load(options["fresh"]) else "demo kept")
