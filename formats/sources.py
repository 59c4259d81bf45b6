"""What is given out: a run, or a job with its runs; and what of it, in which form, is wanted."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal, get_args

from conduit.catalogue import ENGLISH, Language
from conduit.cutting import BringLine
from conduit.space import MOST_PLACED, Placed, RunGiven, placed_in
from conduit.tables import DEFAULT_LIMITS, Limits
from formats.paper import PaperBar, PaperStick

To = Literal["pdf", "dxf", "ifc", "gltf", "svg", "csv", "json"]
TO: tuple[To, ...] = get_args(To)
Size = Literal["letter", "A4"]
SIZES: tuple[Size, ...] = get_args(Size)
# What can be had of a run and of a job in each format; the first is what comes where nothing is said.
OF_RUN: dict[To, tuple[str, ...]] = {
    "pdf": ("sheet", "cards", "floor"),
    "dxf": ("model",),
    "ifc": ("model",),
    "gltf": ("model",),
    "svg": ("sheet", "front", "plan", "side", "sticks"),
    "csv": ("bends", "marks"),
    "json": ("document",),
}
OF_JOB: dict[To, tuple[str, ...]] = {
    **OF_RUN,
    "pdf": ("job", "sheets", "cards", "cuts", "bring"),
    "svg": ("sheet", "front", "plan", "side"),
    "json": ("job",),
}
ENDINGS: dict[To, tuple[str, str]] = {
    "pdf": ("pdf", "application/pdf"),
    "dxf": ("dxf", "image/vnd.dxf"),
    "ifc": ("ifc", "application/x-step"),
    "gltf": ("glb", "model/gltf-binary"),
    "svg": ("svg", "image/svg+xml"),
    "csv": ("csv", "text/csv"),
    "json": ("json", "application/json"),
}


# How much is done, from 0 to 1; raises where it is to stop.
Heard = Callable[[float], None]


def nobody(part: float) -> None:
    """Nobody wants to hear."""


@dataclass(frozen=True)
class Wanted:
    """A format, what of it (`""`: the first there is), the paper's size and the language."""

    to: To
    part: str = ""
    size: Size = "letter"
    language: Language = ENGLISH


@dataclass(frozen=True)
class RunSource:
    """A run to be given out; `as_of`: of which save it is; `sticks`: as they are on the bench, else as proposed."""

    name: str
    raw: Mapping[str, Any]
    limits: Limits = DEFAULT_LIMITS
    as_of: str = ""
    sticks: Sequence[PaperStick] | None = None


@dataclass(frozen=True)
class JobSource:
    """A job to be given out: its runs, where they stand, its cut list and what to bring."""

    name: str
    place: str
    placed: Placed
    runs: tuple[RunSource, ...]
    bars: tuple[PaperBar, ...] = ()
    bring: tuple[BringLine, ...] = ()
    as_of: str = ""


def job_of(name: str, boxes: Sequence[Mapping[str, Any]], runs: Sequence[RunGiven], limits: Limits) -> JobSource:
    """A job of boxes and runs as they were typed, nothing of it cut yet."""
    placed = placed_in(boxes[:MOST_PLACED], runs, limits)
    named = {key: checked.measured.head.name for key, checked in placed.checked.items()}
    sources = tuple(RunSource(named.get(run.key, ""), run.document, limits) for run in runs)
    return JobSource(name, "", placed, sources)
