"""Every change to a crew's shoes: permission first, one transaction, a line in the shoe's history."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from conduit.bender import (
    Dial,
    DialFit,
    NoSuchShoe,
    Test90,
    calibrate,
    doubts_of_tests,
    fit_dial,
    must_be_possible,
    typical_machine,
    typical_shoe,
)
from conduit.bender import Shoe as CoreShoe
from conduit.catalogue import said_by
from conduit.plan import ShoeUsed
from conduit.tables import OUTSIDE_DIAMETER
from conduit.units import FINE_TAPE
from server.accounts.history import What, record
from server.accounts.models import User
from server.accounts.permissions import Right, require
from server.accounts.visiting import LOOKED_AT, WHOSE, Whose
from server.errors import Conflict, Refused
from server.sentences import message
from server.shoes.models import Calibration, Shoe
from server.shoes.schemas import CalibrationFound, CalibrationIn, DoubtOut, ShoeIn


def whose_shoe(shoe_id: int) -> Whose:
    """Whose a shoe that is shared is."""
    crew = Shoe.objects.present().filter(pk=shoe_id, shared=True).values_list("crew", flat=True).first()
    return (crew, None) if crew else None


WHOSE["shoe_id"] = whose_shoe
LOOKED_AT.add("shoe_id")
# A shoe is known by so many names that it had before.
MOST_NAMES = 20


def add_shoe(user: User, given: ShoeIn) -> Shoe:
    """Add a shoe: with figures of one's own, or typical ones. Raises Refused, and Conflict for a name taken."""
    crew = require(user, Right.WORK)
    return _keep(Shoe(crew=crew), given)


def change_shoe(user: User, shoe_id: int, given: ShoeIn) -> Shoe:
    """Change what a shoe is, and its figures by hand. Raises Refused, and Conflict for a name taken."""
    require(user, Right.WORK)
    return _keep(get_object_or_404(Shoe.objects.for_user(user), pk=shoe_id), given)


@transaction.atomic
def share_shoe(user: User, shoe_id: int, *, shared: bool) -> Shoe:
    """Let the other crews of the company bend on a shoe; its figures stay its own crew's to change."""
    crew = require(user, Right.SET_UP)
    shoe = get_object_or_404(Shoe.objects.for_user(user).select_related("crew"), pk=shoe_id)
    if shoe.shared != shared:
        shoe.shared = shared
        shoe.save(update_fields=["shared"])
        record(crew, user, What.SHARED, f"the shoe “{shoe.name}”: {'yes' if shared else 'no longer'}")
    return shoe


@transaction.atomic
def remove_shoe(user: User, shoe_id: int) -> None:
    """Put a shoe into the bin; what was bent on it stays in the log."""
    crew = require(user, Right.DELETE)
    shoe = get_object_or_404(Shoe.objects.for_user(user), pk=shoe_id)
    shoe.bin(user)
    record(crew, user, What.DELETED, f"the shoe “{shoe.name}”")


@transaction.atomic
def restore_shoe(user: User, shoe_id: int) -> Shoe:
    """Take a shoe out of the bin. Raises Conflict where another is called so now."""
    crew = require(user, Right.DELETE)
    shoe = get_object_or_404(Shoe.objects.in_bin(user), pk=shoe_id)
    try:
        with transaction.atomic():
            shoe.take_out()
    except IntegrityError as error:
        raise Conflict(message("shoes.name.taken_meanwhile", shoe=shoe.name)) from error
    record(crew, user, What.TOOK_OUT, f"the shoe “{shoe.name}”")
    return shoe


def _keep(shoe: Shoe, given: ShoeIn) -> Shoe:
    wanted = given.model_dump()
    if given.deduct is None or given.gain is None:
        typical = (typical_machine if given.machine else typical_shoe)(given.material, given.trade_size)
        if not typical or (given.deduct is None) != (given.gain is None):
            says = message("shoe.both_needed")
            raise Refused(message("shoes.figures.no_shoe"), {"deduct": says})
        wanted |= {"deduct": typical.deduct, "gain": typical.gain}
    if (shoe.deduct, shoe.gain) != (wanted["deduct"], wanted["gain"]):
        shoe.calibrated_at = None
    if shoe.pk and shoe.name != given.name:
        shoe.called_before = [*(one for one in shoe.called_before if one != given.name), shoe.name][-MOST_NAMES:]
    for key, value in wanted.items():
        setattr(shoe, key, value)
    _must_bend_pipe(shoe)
    try:
        with transaction.atomic():
            shoe.save()
    except IntegrityError as error:
        raise Conflict(message("shoes.name.taken", shoe=shoe.name)) from error
    return shoe


def _must_bend_pipe(shoe: Shoe) -> None:
    try:
        must_be_possible(shoe.to_core(), shoe.trade_size)  # type: ignore[arg-type]
    except NoSuchShoe as error:
        raise Refused(message("shoes.figures.no_shoe"), {"gain": said_by(error)}) from error


def found_by(shoe: Shoe, given: CalibrationIn) -> CalibrationFound:
    """What test bends show of a shoe; what they do not touch stays as it is. Raises Refused."""
    try:
        deduct, gain, spreads = shoe.deduct, shoe.gain, (0.0, 0.0)
        tests = [Test90(**test.model_dump()) for test in given.tests]
        if tests:
            found = calibrate(shoe.name, OUTSIDE_DIAMETER[shoe.material][shoe.trade_size], tests)  # type: ignore[index]
            deduct, gain = found.shoe.deduct, found.shoe.gain
            spreads = (found.deduct_spread, found.gain_spread)
        now = Dial(shoe.dial_factor, shoe.dial_constant)
        fit = fit_dial([(one.dial, one.angle) for one in given.dials]) if given.dials else DialFit(now, 0.0)
        core = CoreShoe(**{**_parts(shoe.to_core()), "deduct": deduct, "gain": gain, "dial": fit.dial})
    except NoSuchShoe as error:
        raise Refused(message("shoes.calibration.do_not_fit", why=said_by(error))) from error
    doubts = doubts_of_tests(core, shoe.trade_size, tests, [(one.dial, one.angle) for one in given.dials])  # type: ignore[arg-type]
    return CalibrationFound(
        doubts=[DoubtOut(says=one.says, test=one.test) for one in doubts],
        shoe=ShoeUsed.of(core, FINE_TAPE),
        deduct_spread=spreads[0],
        gain_spread=spreads[1],
        tests=len(given.tests),
        dial_factor=fit.dial.factor,
        dial_constant=fit.dial.constant,
        dial_spread=fit.spread,
        dials=len(given.dials),
    )


def _parts(core: CoreShoe) -> dict[str, Any]:
    return {key: getattr(core, key) for key in core.__dataclass_fields__}


@transaction.atomic
def calibrate_shoe(user: User, shoe_id: int, given: CalibrationIn) -> Shoe:
    """Take what test bends show as the shoe's figures. Raises Refused."""
    require(user, Right.WORK)
    shoe = get_object_or_404(Shoe.objects.for_user(user).select_for_update(), pk=shoe_id)
    if not given.tests and not given.dials:
        raise Refused(message("shoes.calibration.nothing_given"), {"tests": message("shoes.figures.how")})
    found = found_by(shoe, given)
    line = Dial(found.dial_factor, found.dial_constant)
    readings = given.model_dump(mode="json")
    return take_figures(user, shoe, "test bends", readings, found.shoe.deduct.inches, found.shoe.gain.inches, line)


def take_figures(
    user: User, shoe: Shoe, source: str, readings: Mapping[str, object], deduct: float, gain: float, dial: Dial
) -> Shoe:
    """Put new figures into use, with a line in the shoe's history."""
    shoe.deduct, shoe.gain = deduct, gain
    shoe.dial_factor, shoe.dial_constant = dial.factor, dial.constant
    shoe.calibrated_at = timezone.now()
    _must_bend_pipe(shoe)
    shoe.save()
    line = {f"dial_{key}": value for key, value in asdict(dial).items()}
    Calibration.objects.create(
        crew=shoe.crew, shoe=shoe, source=source, readings=readings, deduct=deduct, gain=gain, by=user, **line
    )
    record(shoe.crew, user, What.CALIBRATED, f"{shoe.name}, by {source}")
    return shoe
