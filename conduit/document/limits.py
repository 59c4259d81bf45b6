"""Limits as a person writes them, for one run or for a whole crew; what is left out is as it is without them."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from pydantic import Field, ValidationError

from conduit.document.faults import fault_in_words
from conduit.document.typed import MaybeLength
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.values import Given


def _bounds(name: str) -> Any:
    """A field that may be left out, with the bounds that the limit of that name has."""
    field = Limits.model_fields[name]
    bounds = {key: value for one in field.metadata for key, value in asdict(one).items()}
    return Field(None, title=field.title, description=field.description, **bounds)


class RunLimits(Given):
    """Limits that this run is held to instead of the crew's; what is left out is the crew's."""

    most_degrees: float | None = _bounds("most_degrees")
    straight_at_connector: MaybeLength = _bounds("straight_at_connector")
    clear_of_bend: MaybeLength = _bounds("clear_of_bend")
    least_piece: MaybeLength = _bounds("least_piece")
    support_from_box: MaybeLength = _bounds("support_from_box")
    support_spacing: MaybeLength = _bounds("support_spacing")
    closure: MaybeLength = _bounds("closure")


class CrewLimits(RunLimits):
    """Limits that a crew sets for all its runs; what is left out is as it is shipped."""

    keep: MaybeLength = _bounds("keep")
    kerf: MaybeLength = _bounds("kerf")
    stick: MaybeLength = _bounds("stick")
    edge_height: MaybeLength = _bounds("edge_height")
    air: bool | None = _bounds("air")
    helper: bool | None = _bounds("helper")
    knuckles: MaybeLength = _bounds("knuckles")
    machine_height: MaybeLength = _bounds("machine_height")
    coupling_set_screw: MaybeLength = _bounds("coupling_set_screw")
    coupling_compression: MaybeLength = _bounds("coupling_compression")
    coupling_threaded: MaybeLength = _bounds("coupling_threaded")
    coupling_threadless: MaybeLength = _bounds("coupling_threadless")
    between_runs: MaybeLength = _bounds("between_runs")

    @property
    def in_full(self) -> Limits:
        """All limits, these among them."""
        return DEFAULT_LIMITS.model_copy(update=self.model_dump(exclude_none=True))


def read_crew_limits(written: Mapping[str, Any], tape: str) -> tuple[CrewLimits | None, dict[str, str]]:
    """A crew's limits as they were typed on a tape; or, where some cannot be read, why, by their names."""
    try:
        return CrewLimits.model_validate(written, context={"tape": tape}), {}
    except ValidationError as error:
        return None, {str(fault["loc"][0]): fault_in_words(fault) for fault in error.errors()}
