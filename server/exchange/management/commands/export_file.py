"""Writes a run, a job, or all that a crew has, out of the database, in an open format."""

import sys
from argparse import ArgumentParser
from pathlib import Path
from shutil import copyfileobj
from typing import IO, Any

from django.utils import timezone

from conduit.catalogue import LANGUAGES
from conduit.document import UnreadableDocument
from formats.from_runs import NothingToDraw
from formats.refusal import Refusal
from formats.sources import SIZES
from server.exchange.headless import NOTHING, Headless, Unreadable, crew_called, ending_with_the_reader, person_in
from server.exchange.making import file_name, made
from server.exchange.models import Export
from server.exchange.working import ENDING, PARTS
from server.jobs.models import Job, Run


class Command(Headless):
    """`./crelda export --run N|--job N|--crew NAME --to FORMAT`."""

    help = __doc__
    called = "crelda export"

    def add_arguments(self, parser: ArgumentParser) -> None:
        """What, and how."""
        what = parser.add_mutually_exclusive_group(required=True)
        what.add_argument("--run", type=int, metavar="N", help="a run, by the number in its address")
        what.add_argument("--job", type=int, metavar="N", help="a job, by the number in its address")
        what.add_argument("--crew", metavar="NAME", help="all that a crew has (zip)")
        parser.add_argument("--to", choices=ENDING, required=True, help="the format")
        parser.add_argument("--part", default="", help="what of it; docs/formats.md lists them")
        parser.add_argument("--paper", choices=SIZES, default=SIZES[0])
        parser.add_argument("--language", choices=LANGUAGES, default=LANGUAGES[0])
        parser.add_argument("-o", "--out", default="", metavar="OUT", help="the file to write; - for standard output")

    def work(self, options: dict[str, Any]) -> None:
        """Write it."""
        export = _wanted(options)
        try:
            with made(export) as file:
                file.seek(0)
                self._write(file, options["out"] or f"{file_name(export)}.{ENDING[export.to][0]}")
        except NothingToDraw as error:
            raise Unreadable(str(error), NOTHING) from error
        except (Refusal, UnreadableDocument) as error:
            raise Unreadable(str(error)) from error

    def _write(self, file: IO[bytes], out: str) -> None:
        if out == "-":
            with ending_with_the_reader():
                copyfileobj(file, sys.stdout.buffer)
                sys.stdout.buffer.flush()
            return
        try:
            with Path(out).open("wb") as written:
                copyfileobj(file, written)
        except OSError as error:
            raise Unreadable(f"{out} cannot be written: {error.strerror}") from error
        self.stdout.write(out)


def _wanted(options: dict[str, Any]) -> Export:
    """What is asked for, as it would be asked for in the app. Raises Unreadable."""
    run = job = None
    if options["crew"]:
        of, crew = "crew", crew_called(options["crew"])
    elif options["job"] is not None:
        of, job = "job", Job.objects.select_related("crew").filter(pk=options["job"]).first()
        if not job:
            raise Unreadable(f"there is no job {options['job']}.")
        crew = job.crew
    else:
        of, run = "run", Run.objects.select_related("job", "crew").filter(pk=options["run"]).first()
        if not run:
            raise Unreadable(f"there is no run {options['run']}.")
        job, crew = run.job, run.crew
    parts, part = PARTS[of].get(options["to"], ()), options["part"]
    if not parts or (part and part not in parts):
        there = ", ".join(f"{to} ({', '.join(some)})" for to, some in PARTS[of].items())
        raise Unreadable(f"of a {of} there is {there}.")
    return Export(
        crew=crew,
        by=person_in(crew),
        job=job,
        run=run,
        to=options["to"],
        part=part or parts[0],
        size=options["paper"],
        language=options["language"],
        asked_at=timezone.now(),
    )
