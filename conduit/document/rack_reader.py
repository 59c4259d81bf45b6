"""Reading the rack of a run document, pipe by pipe: one that cannot be read leaves its place free."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from conduit.catalogue import message
from conduit.document.rack import MOST_PIPES, RackLayout, RackPipe
from conduit.document.run import read_part, tape_in
from conduit.findings import Code, Finding, found


@dataclass(frozen=True)
class MeasuredRack:
    """What could be read of a rack: pipes that were unreadable are None, and have a finding."""

    layout: RackLayout | None
    pipes: tuple[RackPipe | None, ...]
    findings: tuple[Finding, ...]


def read_rack(raw: Mapping[str, Any]) -> MeasuredRack | None:
    """The rack of a raw run document, or None where it has none. Every fault is a finding at its place."""
    written = raw.get("rack")
    if written is None:
        return None
    if not isinstance(written, Mapping):
        no_rack = found(Code.UNREADABLE, "rack", what=message("part.rack"), fault=message("fault.no_rack"))
        return MeasuredRack(None, (), (no_rack,))
    findings: list[Finding] = []
    tape, pipes = tape_in(raw), written.get("pipes", [])
    if not isinstance(pipes, list) or len(pipes) >= MOST_PIPES:
        findings.append(found(Code.UNREADABLE, "rack.pipes", case="too_many_pipes", most=MOST_PIPES))
        pipes = []
    rest = {key: value for key, value in written.items() if key != "pipes"}
    layout = read_part(RackLayout, rest, "rack", message("part.rack"), tape, findings)
    read = tuple(
        read_part(RackPipe, _without_own(pipe), f"rack.pipes.{at}", message("part.pipe", number=at + 2), tape, findings)
        for at, pipe in enumerate(pipes)
    )
    return MeasuredRack(layout, read, tuple(findings))


def _without_own(pipe: object) -> object:
    """A pipe without its own steps, end and shoe: they are read part by part with the run that it is."""
    own = ("steps", "end", "shoe")
    return {key: value for key, value in pipe.items() if key not in own} if isinstance(pipe, Mapping) else pipe
