"""Whether it is safe to serve by these settings."""

from argparse import ArgumentParser
from typing import Any

from django.core.exceptions import ImproperlyConfigured
from django.core.management.base import BaseCommand, CommandError

from server.upkeep.safety import refuse_unsafe


class Command(BaseCommand):
    """Says what is not safe, and ends with 1."""

    help = __doc__
    requires_system_checks = ()

    def add_arguments(self, parser: ArgumentParser) -> None:
        """One flag."""
        parser.add_argument("--with-demo", action="store_true", help="the demo is about to be loaded")

    def handle(self, *args: Any, **options: Any) -> None:
        """Look. Raises CommandError."""
        try:
            refuse_unsafe(options["with_demo"])
        except ImproperlyConfigured as error:
            raise CommandError(str(error)) from error
