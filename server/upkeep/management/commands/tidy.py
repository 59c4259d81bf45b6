"""`manage.py tidy`: throws away what is old."""

from typing import Any

from django.core.management.base import BaseCommand

from server.upkeep.tidying import tidy


class Command(BaseCommand):
    """Throws away what is old, and says how much."""

    help = "Throw away sessions, replies, keys, cut plans and saves that are old (docs/operations.md)."

    def handle(self, *args: Any, **options: Any) -> None:
        """Do it."""
        gone = [f"{count} {what}" for what, count in tidy().items() if count]
        self.stdout.write(f"Thrown away: {', '.join(gone) or 'nothing'}.")
