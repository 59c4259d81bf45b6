"""A crew's shoes. Lengths in inches, angles in degrees."""

from django.conf import settings
from django.db import models

from conduit.as_typed import AsWritten
from conduit.bender import shoe as core
from conduit.document import ShoeFigures
from conduit.tables import OUTSIDE_DIAMETER
from conduit.units import format_length
from server.accounts.models import Binnable, CrewOwned, User

THIRTY_SECONDS = 32


class Shoe(Binnable):
    """A bender's shoe with the figures in use: those of its last calibration, or typical ones until then."""

    name = models.CharField(max_length=80)
    called_before = models.JSONField(
        default=list, editable=False, help_text="Names that it had: runs that were laid out then still know it by them."
    )
    material = models.CharField(max_length=8)
    trade_size = models.CharField(max_length=8)
    deduct = models.FloatField()
    gain = models.FloatField()
    front = models.FloatField(null=True)
    heel = models.FloatField(null=True)
    references = models.JSONField(default=dict)
    handle_up = models.FloatField(default=30.0)
    machine = models.BooleanField(default=False)
    shared = models.BooleanField(default=False, help_text="The other crews of the company bend on it too.")
    dial_factor = models.FloatField(default=1.0)
    dial_constant = models.FloatField(default=0.0)
    calibrated_at = models.DateTimeField(null=True)

    class Meta:
        """Listed by size, then name; a name is one shoe's."""

        ordering = ("trade_size", "name")
        constraints = [models.UniqueConstraint(fields=["crew", "name", "live"], name="one_shoe_a_name")]

    def to_core(self) -> core.Shoe:
        """The shoe as the core knows it. Raises NoSuchShoe."""
        return core.Shoe(
            self.name,
            OUTSIDE_DIAMETER[self.material][self.trade_size],  # type: ignore[index]
            self.deduct,
            self.gain,
            self.front,
            tuple(self.references.items()),
            None if self.machine else self.handle_up,
            core.Dial(self.dial_factor, self.dial_constant),
            self.heel,
        )

    def figures(self) -> AsWritten:
        """The shoe as it is written into a run, as short as it can be."""
        written: AsWritten = {
            "name": self.name,
            "deduct": _written(self.deduct),
            "gain": _written(self.gain),
            "front": None if self.front is None else _written(self.front),
            "heel": None if self.heel is None else _written(self.heel),
            "references": {name: _written(distance) for name, distance in self.references.items()},
            "handle_up": self.handle_up,
            "dial_factor": round(self.dial_factor, 4),
            "dial_constant": round(self.dial_constant, 2),
            "bends": [f"{self.material} {self.trade_size}"],
            "machine": self.machine,
        }
        usual = ShoeFigures().model_dump()
        return {key: value for key, value in written.items() if value != usual[key]}


def _written(inches: float) -> str | float:
    """A figure as a tape reads it, where a tape can; else as a decimal to a thousandth."""
    if abs(inches * THIRTY_SECONDS - round(inches * THIRTY_SECONDS)) < 1e-6:
        return format_length(inches, "1/32")
    return round(inches, 3)


def shoes_by_name(user: User) -> dict[str, Shoe]:
    """The shoes that the crew bends on by every name that they have or had; a name of today goes before an old one."""
    shoes = list(Shoe.objects.in_reach(user))
    # Of two of a name the crew's own is meant.
    shoes.sort(key=lambda one: user.place is not None and one.crew_id == user.place.crew_id)
    before = {name: shoe for shoe in shoes for name in shoe.called_before}
    return before | {shoe.name: shoe for shoe in shoes}


class Calibration(CrewOwned):
    """How a shoe's figures came to be: by test bends, or taken from the log. Never changed."""

    shoe = models.ForeignKey(Shoe, on_delete=models.CASCADE, related_name="calibrations")
    source = models.CharField(max_length=12, help_text="“test bends” or “log”.")
    readings = models.JSONField(help_text="What was measured.")
    deduct = models.FloatField()
    gain = models.FloatField()
    dial_factor = models.FloatField()
    dial_constant = models.FloatField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """Newest first."""

        ordering = ("-id",)
