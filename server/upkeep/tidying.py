"""What is thrown away, and how old it is then. `manage.py tidy` does it; `crelda up` once a day."""

from collections.abc import Iterable
from datetime import datetime, timedelta

from axes.models import AccessAttempt, AccessLog
from django.db.models import QuerySet
from django.utils import timezone
from django_tasks_db.models import DBTaskResult
from qsessions.models import Session

from server.accounts.models import Reply
from server.bench.models import ActDone
from server.cutting.models import Proposal
from server.exchange.models import Export, Import
from server.jobs.models import Revision
from server.jobs.photo_store import tidy_files

# Whoever got no answer tries again within minutes; a phone may lie in a van for months with acts unsent.
REPLIES, ACTS = timedelta(days=7), timedelta(days=365)
# A plan is found again in seconds. Guesses at passwords count for minutes, sign-ins are of interest for longer.
PROPOSALS, GUESSES, SIGN_INS = timedelta(days=30), timedelta(days=2), timedelta(days=180)
# Of saves older than this the last of each hour is kept, and of those older still the last of each day.
HOURLY, DAILY = timedelta(days=30), timedelta(days=180)
QUESTIONS = timedelta(days=2)
# A file is made again in seconds.
FILES = timedelta(days=2)
AT_A_TIME = 1000


def tidy(now: datetime | None = None) -> dict[str, int]:
    """Throw away what is old; how many of each."""
    now = now or timezone.now()
    return {
        "sessions": _delete(Session.objects.filter(expire_date__lt=now)),
        "replies": _delete(Reply.objects.filter(at__lt=now - REPLIES)),
        "act keys": _delete(ActDone.objects.filter(at__lt=now - ACTS)),
        "cut plans that were not taken": _delete(Proposal.objects.filter(at__lt=now - PROPOSALS)),
        "questions to planners": _delete(DBTaskResult.objects.filter(enqueued_at__lt=now - QUESTIONS)),
        "files that were asked for": _delete(Export.objects.filter(asked_at__lt=now - FILES)),
        "files that were read in": _delete(Import.objects.filter(asked_at__lt=now - FILES)),
        "failed sign-ins": _delete(AccessAttempt.objects.filter(attempt_time__lt=now - GUESSES)),
        "sign-ins": _delete(AccessLog.objects.filter(attempt_time__lt=now - SIGN_INS)),
        "saves between others": _thin_out(now),
        "photo files of nothing": tidy_files(),
    }


def _delete(old: "QuerySet") -> int:  # type: ignore[type-arg]
    """So many at a time that others never wait for long."""
    count = 0
    while keys := list(old.values_list("pk", flat=True)[:AT_A_TIME]):
        count += old.model._default_manager.filter(pk__in=keys).delete()[0]
    return count


def _thin_out(now: datetime) -> int:
    old = Revision.objects.filter(saved_at__lt=now - HOURLY).order_by("run_id", "version")
    saves = old.values_list("pk", "run_id", "version", "run__version", "saved_at").iterator(AT_A_TIME)
    return _delete(Revision.objects.filter(pk__in=list(_between(saves, now - DAILY))))


def _between(saves: Iterable[tuple[int, int, int, int, datetime]], daily: datetime) -> Iterable[int]:
    """The keys of saves that another of the same hour, or day, follows. A run's first save and its last stay."""
    before: tuple[int, int, int, object] | None = None
    for key, run, version, newest, at in saves:
        within = at.replace(minute=0, second=0, microsecond=0) if at >= daily else at.date()
        if before and before[1] == run and before[3] == within and before[2] > 1:
            yield before[0]
        before = (key, run, version, within)
        if version == newest:
            before = None
