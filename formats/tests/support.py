"""Runs that are given out in the tests: the examples, and a job of them in one space."""

from functools import cache
from pathlib import Path

from cli.reading import read_run
from conduit.space import RunGiven
from conduit.tables import DEFAULT_LIMITS
from formats.exporting import export_job, export_run
from formats.from_runs import model_of_job, model_of_run
from formats.sources import RunSource, Wanted, job_of

EXAMPLES = sorted((Path(__file__).parents[2] / "examples").iterdir())
DUCT, RACK = "kiln-2-over-the-duct.note", "ceiling-rack.note"
BOXES = [{"name": "KP", "along": "0", "up": "48"}]


@cache
def document(name):
    return read_run(str(EXAMPLES[0].parent / name)).document


def run(name=DUCT):
    raw = document(name)
    return RunSource(str(raw.get("name") or ""), raw)


def model(name=DUCT):
    return model_of_run(document(name))


@cache
def job(count=2):
    """Runs that leave the same box, and one that names none."""
    names = [DUCT, "kiln-2-feed.json"][:count]
    runs = [RunGiven(str(number), document(name)) for number, name in enumerate(names, 1)]
    alone = {"name": "Stands nowhere", "trade_size": "3/4", "start": {"heading": "up"}, "end": {"at": "30"}}
    boxes = [*BOXES, {"name": "Panel KP", "along": "30", "up": "48"}]
    return job_of("Kiln room", boxes, [*runs, RunGiven("aside", alone)], DEFAULT_LIMITS)


def job_model():
    return model_of_job("Kiln room", job().placed)


def given_out(source, to, part="", **more):
    write = export_run if isinstance(source, RunSource) else export_job
    return write(source, Wanted(to, part, **more))
