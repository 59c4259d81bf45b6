"""Cut plans are made by planners, processes of their own, on any machine with the same database.

A job has one question at a time (`Solve`): who asks the same again is told how it goes, who asks something else has
the one before stopped. The planner keeps the first good plan at once and the better one when it has it; it says
every second that it is at work and how much of the work is done, and looks whether it is to stop. The work is what was
asked for, in seconds of a usual machine: where others keep the machine busy it takes longer, and is done all the same.
"""

import logging
import os
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any
from uuid import uuid4

from django.db import transaction
from django.utils import timezone
from django_tasks import task

from conduit.cutting import CutTerms
from server.accounts.models import User, name_of
from server.cutting.models import AT_WORK, Asked, Proposal, Solve, State
from server.cutting.planning import Clock, Cutting, read_terms
from server.cutting.schemas import SolveOut
from server.errors import Busy, Overloaded
from server.jobs.models import Job
from server.observing.logs import told
from server.observing.metrics import SOLVES
from server.sentences import message

QUEUE = "cuts"
# A first plan is found in this time; looked for on its own only where much more was asked for.
FIRST = 0.5
A_BEAT = 1.0
MOST_FOR_A_CREW, MOST_WAITING = 4, 60
# On a busy machine the work of a second may take so many. Then the search ends by itself; what does not is ended from
# outside, with its process.
SLOWEST, PATIENCE = 8, 60
FAILED = "Planning these cuts failed; it is written in the server's log. Your runs and the rack are as they were."
log = logging.getLogger("crelda.planner")


def ask(user: User, cutting: Cutting, terms: CutTerms, seconds: float) -> None:
    """Have a plan made for just this, unless there is one that was looked for as long. Raises Busy, Overloaded."""
    known = cutting.proposal(terms)
    if known and known.seconds >= seconds:
        # What else is looked for is not wanted any more, and must not come after this.
        stop(cutting)
        _keep_terms(cutting.job, terms)
        return
    digest, now = cutting.digests(terms)["all"], timezone.now()
    with transaction.atomic():
        # Whoever asks for the same job at the same moment waits here.
        Job.objects.select_for_update().get(pk=cutting.job.pk)
        mine = Solve.objects.filter(job=cutting.job).first()
        if mine and mine.is_active and mine.digest == digest and mine.seconds >= seconds:
            return
        others = Solve.objects.active().exclude(job=cutting.job)
        if others.filter(crew=cutting.job.crew_id).count() >= MOST_FOR_A_CREW:
            raise Busy(message("cutting.queue.crew_full", most_for_a_crew=MOST_FOR_A_CREW))
        if others.count() >= MOST_WAITING:
            raise Overloaded(message("cutting.queue.full"))
        wanted: dict[str, Any] = {"crew": cutting.job.crew, "digest": digest, "terms": terms.model_dump(mode="json")}
        wanted |= {"seconds": seconds, "number": uuid4(), "by": user, "state": State.WAITING, "asked_at": now}
        wanted |= {"started_at": None, "heard_at": now, "says": "", "part_done": 0.0}
        solve, _ = Solve.objects.update_or_create(job=cutting.job, defaults=wanted)
        # In the same transaction: what is written here waits for a planner, and for none in vain.
        make_plan.enqueue(solve.pk, solve.number.hex)


def stop(cutting: Cutting) -> None:
    """Stop looking; what was found stays."""
    Solve.objects.active().filter(job=cutting.job).update(state=State.STOPPED)


def going_on(cutting: Cutting) -> SolveOut | None:
    """How the job's question goes; also how it ended, where that was without a plan and the job is as it was."""
    solve = Solve.objects.filter(job=cutting.job).select_related("by").first()
    if not solve or solve.state == State.DONE:
        return None
    if not solve.is_active:
        terms = read_terms(cutting.job.crew, solve.terms)
        # One that fell silent with its process is forgotten, so that it is asked anew.
        if solve.state in AT_WORK or cutting.digests(terms)["all"] != solve.digest:
            return None
    ahead = Solve.objects.active().filter(state=State.WAITING, asked_at__lt=solve.asked_at).count()
    gone = (timezone.now() - solve.started_at).total_seconds() if solve.started_at else 0.0
    return SolveOut(
        state=solve.state,  # type: ignore[arg-type]
        by=name_of(solve.by),
        seconds=solve.seconds,
        done=solve.part_done * solve.seconds,
        late=gone > solve.seconds + A_BEAT,
        ahead=ahead,
        says=solve.says,
    )


@task(queue_name=QUEUE)
def make_plan(job_id: int, number: str) -> None:
    """Make the plan that was asked for under this number; passed over where something else was asked since."""
    began = Solve.objects.filter(job=job_id, number=number, state=State.WAITING)
    if not began.update(state=State.RUNNING, started_at=timezone.now(), heard_at=timezone.now()):
        return
    solve = Solve.objects.select_related("job__crew", "by").get(job=job_id)
    with SOLVES.time(), _ended_from_outside(SLOWEST * solve.seconds + PATIENCE):
        try:
            _search(solve)
            end, says = State.DONE, ""
        except Exception as error:
            # Whatever it was: whoever waits is told, and the planner goes on with the next.
            log.error("planning failed", extra={"job": job_id, **told(error)})
            end, says = State.FAILED, FAILED
        Solve.objects.filter(job=job_id, number=number, state=State.RUNNING).update(state=end, says=says)


def _search(solve: Solve) -> None:
    """Keep a first plan, then the one that the whole time finds. A plan is kept by the job as it then is."""
    terms = read_terms(solve.job.crew, solve.terms)
    cutting = Cutting(solve.job)
    cutting.digests(terms)
    stages = [FIRST, solve.seconds] if solve.seconds >= 4 * FIRST else [solve.seconds]
    before = cutting.before()
    for seconds in stages:
        clock = Beating(SLOWEST * seconds, solve)
        proposal = cutting.propose(terms, seconds, clock, before)
        stopped = clock.is_stopped()
        if stopped or clock.left() <= 0:
            # Who asks for the whole time later is not told that it was looked for as long.
            Proposal.objects.filter(pk=proposal.pk).update(seconds=min(proposal.seconds, clock.part_done * seconds))
        if stopped:
            return
        _keep_terms(solve.job, terms)


def _keep_terms(job: Job, terms: CutTerms) -> None:
    """By what the job was asked for: not before there is a plan, as terms without one would stand in the way.

    In inches, so that they stay what they are on whatever tape is read; what is as usual follows the crew's limits.
    """
    usual = read_terms(job.crew, {}).model_dump(mode="json")
    kept = {name: value for name, value in terms.model_dump(mode="json").items() if value != usual[name]}
    Asked.objects.update_or_create(job=job, defaults={"terms": kept})


class Beating(Clock):
    """Says each second that it is at work; no time is left once it is to stop."""

    def __init__(self, seconds: float, solve: Solve) -> None:
        super().__init__(seconds)
        self.mine = Solve.objects.filter(job=solve.job_id, number=solve.number, state=State.RUNNING)
        self.stopped = False
        self.next_beat = time.monotonic() + A_BEAT

    def left(self) -> float:
        """Seconds that are left."""
        if not self.stopped and time.monotonic() >= self.next_beat:
            self.next_beat = time.monotonic() + A_BEAT
            self.stopped = not self.mine.update(heard_at=timezone.now(), part_done=self.part_done)
        return 0.0 if self.stopped else super().left()

    def is_stopped(self) -> bool:
        """Whether it was stopped, be it in the last moment."""
        return self.stopped or not self.mine.exists()

    @property
    def part_done(self) -> float:
        """How much of the work is done, from 0 to 1."""
        return self.meter.part_done if self.meter else 0.0


@contextmanager
def _ended_from_outside(seconds: float) -> Iterator[None]:
    """In a planner's own process, end it where something does not come to an end; the launcher starts another."""
    if os.environ.get("CRELDA_PLANNER") != "1":
        yield
        return
    watchdog = threading.Timer(seconds, os._exit, (1,))
    watchdog.daemon = True
    watchdog.start()
    try:
        yield
    finally:
        watchdog.cancel()
