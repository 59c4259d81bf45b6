"""A rack's pipe as checked and bent in simulation, where it stands."""

from dataclasses import dataclass
from functools import cached_property

from conduit.geometry import Vec
from conduit.plan import CheckedRun, Prover
from conduit.racks.members import Member
from conduit.simulation import Bent, Curve, standing_curve


@dataclass(frozen=True)
class BentPipe:
    """A member of a rack with what was found of its run document. Bent as far as it goes."""

    member: Member
    checked: CheckedRun

    @cached_property
    def bent(self) -> Bent | None:
        """The pipe bent from its exact marks, end A where the lead's is; None where nothing could be laid out."""
        one = self.checked
        if not one.layout or not one.shoe or not one.measured.start:
            return None
        return (one.prover or Prover(one.measured, one.layout, one.shoe)).exact_bent

    @cached_property
    def curve(self) -> Curve | None:
        """The same where it stands in the rack."""
        return standing_curve(self.bent, self.member.origin) if self.bent and not self.member.free else None

    def point_at(self, s: float) -> Vec:
        """Where the place `s` of its straight pipe comes to be."""
        return self.bent.point_at(s).plus(self.member.origin) if self.bent else self.member.origin

    def step_at(self, s: float) -> int | None:
        """The index of the lead's step whose bends are nearest to a place of the straight pipe; None without any."""
        layout = self.checked.layout
        step = layout.step_near(s) if layout else None
        return None if step is None else min(step, max(0, len(self.member.taken) - 1))
