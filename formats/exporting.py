"""The one call for what goes out: a run or a job, and what is wanted of it, in; a file's bytes out.

Each writer's library is loaded when it is first asked for: some take seconds, and hundreds of megabytes.
"""

import json
from collections.abc import Callable, Mapping, Sequence
from importlib import import_module
from typing import Any

from conduit.bending import Bencher
from conduit.catalogue import speaking
from conduit.tables import Limits
from formats.from_runs import NothingToDraw, model_of_job, model_of_run
from formats.model import SpaceModel
from formats.paper import PaperJob, PaperRun, paper_run
from formats.refusal import Refusal
from formats.sources import OF_JOB, OF_RUN, Heard, JobSource, RunSource, Wanted, nobody
from formats.words import message

_MODELS = {
    "dxf": ("formats.dxf", "write_dxf"),
    "ifc": ("formats.ifc", "write_ifc"),
    "gltf": ("formats.gltf", "write_gltf"),
}


class NoSuchPart(Refusal):
    """There is nothing of that name in that format; the message says what there is."""


def export_run(run: RunSource, wanted: Wanted) -> bytes:
    """A run in a format. Raises UnreadableDocument, NothingToDraw, NoSuchPart."""
    part = _part(wanted, OF_RUN)
    if wanted.to == "json":
        return _json(run.raw)
    if wanted.to == "csv":
        return _table([run], part)
    if wanted.to == "pdf":
        return bytes(_call("formats.pdf", _RUN_PAPERS[part])(_paper(run, wanted), wanted))
    model = model_of_run(run.raw, run.limits)
    if wanted.to == "svg":
        sticks = _paper(run, wanted).sticks if part in ("sheet", "sticks") else ()
        return bytes(_call("formats.svg_sheet", "svg_sheet")(model, part, sticks))
    return _model(model, wanted)


def export_job(job: JobSource, wanted: Wanted, heard: Heard = nobody) -> bytes:
    """A job in a format. Raises UnreadableDocument, NothingToDraw, NoSuchPart."""
    part = _part(wanted, OF_JOB)
    if wanted.to == "json":
        return _json(job_as_json(job))
    if wanted.to == "csv":
        return _table(job.runs, part)
    if wanted.to == "pdf":
        gathered = _paper_job(job, part, wanted, lambda done: heard(GATHERED * done))
        write = _call("formats.pdf", _JOB_PAPERS[part])
        return bytes(write(gathered, wanted, lambda done: heard(GATHERED + (1 - GATHERED) * done)))
    model = model_of_job(job.name, job.placed)
    if wanted.to == "svg":
        return bytes(_call("formats.svg_sheet", "svg_sheet")(model, part, []))
    return _model(model, wanted)


_RUN_PAPERS = {"sheet": "run_sheet", "cards": "bench_cards", "floor": "floor_sheet"}
_JOB_PAPERS = {
    "job": "whole_job",
    "sheets": "run_sheets",
    "cards": "cards_of_job",
    "cuts": "cut_sheet",
    "bring": "bring_sheet",
}
# Width and most height of a small picture, in pixels.
SMALL = (480.0, 280.0)
# Of the work for a job on paper, so much is planning its runs.
GATHERED = 0.1
# Papers of a job that need its runs laid out.
_WITH_RUNS = ("job", "sheets", "cards")


def job_as_json(job: JobSource) -> dict[str, Any]:
    """A job as it was typed: its boxes and its runs."""
    runs = [
        {"key": run.key, "document": dict(run.document), "lead": run.lead, "number": run.number}
        for run in job.placed.runs
    ]
    return {"name": job.name, "place": job.place, "boxes": [dict(box) for box in job.placed.given], "runs": runs}


def _part(wanted: Wanted, there: dict[Any, tuple[str, ...]]) -> str:
    parts = there[wanted.to]
    part = wanted.part or parts[0]
    if part not in parts:
        raise NoSuchPart(message("export.no_such_part", part=part, format=wanted.to, parts=", ".join(parts)))
    return part


def _model(model: SpaceModel, wanted: Wanted) -> bytes:
    return bytes(_call(*_MODELS[wanted.to])(model))


def _call(module: str, name: str) -> Callable[..., Any]:
    found: Callable[..., Any] = getattr(import_module(module), name)
    return found


def _json(value: Any) -> bytes:
    return (json.dumps(value, indent=2, ensure_ascii=False) + "\n").encode()


def _table(runs: Sequence[RunSource], part: str) -> bytes:
    tables = import_module("formats.tables")
    named = [tables.NamedBencher(run.name, Bencher(run.raw, run.limits)) for run in runs]
    write = tables.mark_table if part == "marks" else tables.bend_table
    return str(write(named)).encode()


def _paper(run: RunSource, wanted: Wanted) -> PaperRun:
    with speaking(wanted.language):
        return paper_run(run.raw, run.limits, run.as_of, run.sticks)


def _paper_job(job: JobSource, part: str, wanted: Wanted, heard: Heard) -> PaperJob:
    runs = list[PaperRun]()
    for number, run in enumerate(job.runs if part in _WITH_RUNS else ()):
        heard(number / (len(job.runs) + 1))
        runs.append(_paper(run, wanted))
    try:
        model = model_of_job(job.name, job.placed) if part == "job" else None
    except NothingToDraw:
        model = None
    return PaperJob(job.name, job.place, model, tuple(runs), job.bars, job.bring, job.as_of)


def small_picture(raw: Mapping[str, Any], limits: Limits) -> str:
    """A run from the front as a small SVG. Raises UnreadableDocument, NothingToDraw."""
    views, svg = import_module("formats.views"), import_module("formats.svg")
    return str(svg.write_view(views.view_of(model_of_run(raw, limits), "front"), *SMALL))
