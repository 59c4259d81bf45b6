"""Reads a file into a crew: its runs become a new job; an archive becomes what it was."""

import sys
from argparse import ArgumentParser
from io import BytesIO
from pathlib import Path
from typing import Any

from conduit.catalogue import ENGLISH
from formats.importing import UNITS
from server.exchange.archive.container import MOST_BYTES
from server.exchange.headless import NOTHING, Headless, Unreadable, crew_called, person_in
from server.exchange.models import Import, ImportPart, State
from server.exchange.reading import read
from server.exchange.receiving import take
from server.exchange.schemas import A_PART, MeantIn, TakeImportIn
from server.exchange.taking_in import take_in


class Command(Headless):
    """`./crelda import FILE --into CREW`."""

    help = __doc__
    called = "crelda import"

    def add_arguments(self, parser: ArgumentParser) -> None:
        """The file, where it goes, and how it is meant."""
        parser.add_argument(
            "file", help="as ./crelda import takes it, or a zip of a job or a crew; - for standard input"
        )
        parser.add_argument("--into", metavar="CREW", required=True, help="the crew, by its name")
        parser.add_argument("--for", dest="username", default="", help="who brings it; else the crew's lead")
        parser.add_argument("--job", default="", metavar="NAME", help="what the job is called; else as the file")
        parser.add_argument("--unit", choices=UNITS, default="", help="of a drawing that does not say its own")
        parser.add_argument("--up", choices=("y", "z"), default="", help="which axis of a drawing points up")
        parser.add_argument("--layer", default="", help="the layer of a drawing with the runs")
        parser.add_argument("--things", action="store_true", help="of a model: what lies in the way comes along")
        parser.add_argument("--size", default="3/4", metavar="SIZE", help="of the pipe: 3/4, 1-1/4 …")
        parser.add_argument("--material", default="EMT")

    def work(self, options: dict[str, Any]) -> None:
        """Read it, and take what was read."""
        one = _kept(options)
        read(one.pk)
        _say_why(one)
        one.unpack_as = options["job"][:80]
        job = self._unpacked(one) if one.archive else self._taken(one)
        if job:
            self.stdout.write(f"job {job}")
        if one.passed_over:
            raise Unreadable(f"{len(one.passed_over)} passed over; the rest is read in.", NOTHING)

    def _unpacked(self, one: Import) -> int | None:
        one.state = State.WAITING
        one.save(update_fields=["state", "unpack_as"])
        take_in(one.pk)
        _say_why(one)
        return one.job_id

    def _taken(self, one: Import) -> int:
        for passed in one.passed_over:
            self.stderr.write(f"passed over: {passed['where']}: {passed['why']}")
        runs = list(one.runs.values_list("number", flat=True))
        if not runs:
            raise Unreadable("there is no run in it.", NOTHING)
        given = TakeImportIn(job_name=one.unpack_as or Path(one.name).stem or one.name, runs=runs, boxes=True)
        return take(one.by, one.pk, given).job_id


def _kept(options: dict[str, Any]) -> Import:
    """The file and how it is meant, as the app keeps it. Raises Unreadable."""
    name, crew = options["file"], crew_called(options["into"])
    try:
        given = sys.stdin.buffer.read(MOST_BYTES + 1) if name == "-" else Path(name).read_bytes()
    except OSError as error:
        raise Unreadable(f"{name} cannot be read: {error.strerror}") from error
    if not 0 < len(given) <= MOST_BYTES:
        raise Unreadable(f"{name} is empty, or larger than {MOST_BYTES // 2**20} MB.")
    words = {
        "trade_size": options["size"],
        **{key: options[key] for key in ("material", "layer", "unit", "up", "things")},
    }
    try:
        meant = MeantIn(**words).model_dump()
    except ValueError as error:
        raise Unreadable(f"there is no pipe {options['size']} {options['material']}.") from error
    user = person_in(crew, options["username"])
    called = "standard input" if name == "-" else Path(name).name[:120]
    one = Import.objects.create(crew=crew, by=user, name=called, length=len(given), language=ENGLISH, meant=meant)
    data = BytesIO(given)
    for number in range(0, -(-len(given) // A_PART)):
        ImportPart.objects.create(of=one, number=number, data=data.read(A_PART))
    return one


def _say_why(one: Import) -> None:
    """As it stands in the database now. Raises Unreadable where it could not be read."""
    one.refresh_from_db(fields=["state", "says", "asks", "passed_over", "archive", "job"])
    if one.state == State.FAILED:
        raise Unreadable(f"{one.name}: {one.says}{' Say it with --unit, as in --unit mm.' if one.asks else ''}")
