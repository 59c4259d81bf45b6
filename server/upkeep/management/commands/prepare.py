"""Make ready to serve: look whether it is safe, bring the tables up to date, load the demo where it is wanted."""

from argparse import ArgumentParser
from typing import Any

from django.core.exceptions import ImproperlyConfigured
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError

from server.demo.load import load
from server.upkeep.safety import refuse_unsafe


class Command(BaseCommand):
    """All of it in one process, as each that starts takes seconds. What is not safe ends it with 1 before anything."""

    help = __doc__
    requires_system_checks = ()

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Two flags."""
        parser.add_argument("--demo", action="store_true", help="load the demo, once")
        parser.add_argument("--fresh-demo", action="store_true", help="load the demo anew")

    def handle(self, *args: Any, **options: Any) -> None:
        """Do it. Raises CommandError."""
        demo = options["demo"] or options["fresh_demo"]
        try:
            refuse_unsafe(demo)
        except ImproperlyConfigured as error:
            raise CommandError(str(error)) from error
        call_command("migrate", verbosity=0)
        if demo and load(options["fresh_demo"]):
            self.stdout.write("demo loaded")
