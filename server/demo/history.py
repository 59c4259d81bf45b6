"""What the demo crew did before: shoes calibrated, sticks bent, and how they came out."""

import math
import random
from datetime import datetime, timedelta
from typing import Literal
from uuid import UUID

from django.utils import timezone

from conduit.bender import Dial
from conduit.bending import SheetBend
from server.accounts.models import User
from server.bench.actions import bench_of, do_acts
from server.bench.schemas import BentAct, StageAct
from server.demo import scene
from server.jobs.actions import add_job, add_run
from server.shoes.actions import take_figures
from server.shoes.models import Calibration, Shoe

SEED = 27
# What the made-up bender does with its dial, and the standard deviations of hands and finder, in degrees.
FACTOR, CONSTANT = 0.992, -0.3
HANDS, TREMBLE = 0.35, 0.1


def calibrated(by: User, shoe: Shoe, days: int) -> None:
    """A calibration so many days ago, from one 90 bent in scrap."""
    at = timezone.now() - timedelta(days=days)
    leg, length = shoe.deduct + 7, 30.0
    test = {"mark": 7.0, "leg": leg, "other_leg": shoe.gain + length - leg, "length": length}
    take_figures(by, shoe, "test bends", {"tests": [test], "dials": []}, shoe.deduct, shoe.gain, Dial())
    Shoe.objects.filter(pk=shoe.pk).update(calibrated_at=at)
    Calibration.objects.filter(shoe=shoe).update(at=at)


def work_before(bender: User) -> None:
    """The old job, its runs bent and fitted; the made-up hands are the same each time."""
    luck = random.Random(SEED)
    job = add_job(bender, *scene.OLD_JOB)
    for days, document in scene.OLD_RUNS:
        run = add_run(bender, job.pk, document)
        at = timezone.now() - timedelta(days=days)
        for stick in bench_of(bender, run.pk).sticks:
            _bend_all(bender, run.pk, stick.sheet.piece, at, luck)


def _bend_all(bender: User, run_id: int, piece: int, at: datetime, luck: random.Random) -> None:
    def stage(kind: Literal["cut", "fitted"]) -> StageAct:
        return StageAct(kind=kind, key=_key(luck), piece=piece, at=at)

    do_acts(bender, run_id, [stage("cut")])
    while bend := _next(bender, run_id, piece):
        angle = _finder_reads(bend.angle + 0.9, luck)
        tape = _taped(bend, angle, luck) if bend.tape else None
        made = BentAct(kind="bent", key=_key(luck), piece=piece, at=at, bend=bend.number, angle=angle, tape=tape)
        do_acts(bender, run_id, [made])
        at += timedelta(minutes=4)
    do_acts(bender, run_id, [stage("fitted")])


def _taped(bend: SheetBend, angle: float, luck: random.Random) -> float:
    """What the tape reads behind a 90 on the worn shoe, to 1/32; a bend that is over takes its back further along.

    The back moves by R / (2 cos²(θ/2)) for each radian, which is R at a 90.
    """
    asked = bend.tape
    if not asked:
        return 0.0
    # Between two backs the first one's deduct is already counted as where that bend was found to be.
    from_end = asked.says.startswith("End A")
    worn = scene.WORN_DEDUCT if from_end else scene.WORN_DEDUCT + scene.WORN_GAIN
    moved = scene.RADIUS * math.radians(angle - bend.angle)
    return round((asked.wanted.inches + worn + moved + luck.gauss(0, 1 / 50)) * 32) / 32


def _finder_reads(dial: float, luck: random.Random) -> float:
    true = FACTOR * dial + CONSTANT + HANDS * luck.gauss(0, 1)
    return round(min(max(true + TREMBLE * luck.gauss(0, 1), 0.1), 179.9), 1)


def _next(user: User, run_id: int, piece: int) -> SheetBend | None:
    """The next bend of a piece that is not made yet, as its sheet has it."""
    sheets = {stick.sheet.piece: stick.sheet for stick in bench_of(user, run_id).sticks}
    return next((bend for bend in sheets[piece].bends if not bend.made), None)


def _key(luck: random.Random) -> UUID:
    return UUID(int=luck.getrandbits(128), version=4)
