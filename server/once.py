"""Each write is done once, however often it is sent: by the key that comes with it (Idempotency-Key)."""

from collections.abc import Callable
from functools import wraps
from typing import Any
from uuid import UUID

from django.db import OperationalError, transaction
from django.http import HttpRequest, HttpResponse
from django.utils.crypto import salted_hmac

from server.accounts.changes import note_change
from server.accounts.models import Reply
from server.errors import LOCKED
from server.gate import FULL, is_locked_out, told_when_again
from server.guard import problem
from server.room import disks
from server.sentences import message

HEADER = "Idempotency-Key"
# These write nothing of the crew's.
ANSWERING = {
    *("signIn", "signInByCode", "signOut", "testShoe", "stopPlanning"),
    *("previewPlan", "previewRack", "listRackWays", "listWays", "listRemedies", "shareClosing", "checkMarks"),
    *("readNote", "writeNote", "compareRuns", "tellUnderChange", "readScrapList"),
    *("runAmongOthers", "listSpaceRemedies"),
}
# Of these nothing is kept, or what is sent has keys of its own: sent twice they do no more than once.
REPEATABLE = ANSWERING | {
    "askForPasswordLink",
    # A link is used up by itself, and a code that was guessed with it stays counted.
    "takePasswordLink",
    # What they tell once is a secret, and is not kept.
    *("makePasswordLink", "beginSecondFactor", "confirmSecondFactor"),
    *("planCuts", "pickChoices", "doActs", "doCut"),
}
# So often one that the database undid for another's sake is done again.
TRIES = 3
NEEDED = message("once.needed", header=HEADER)
OTHER = message("once.other", header=HEADER)
Run = Callable[..., HttpResponse]


def needs_key(methods: list[str], operation: str | None) -> bool:
    """Whether an operation of the API must come with a key."""
    return "GET" not in methods and operation not in REPEATABLE


def once_only(run: Run) -> Run:
    """An operation of the API, done once for a key: sent again it is answered as it was the first time."""
    operation: Any = run.__self__  # type: ignore[attr-defined]
    if "GET" in operation.methods or operation.operation_id in ANSWERING:
        return run
    if not needs_key(operation.methods, operation.operation_id):
        return _with_room(_noted(run))

    @wraps(run)
    def once(request: HttpRequest, **given: Any) -> HttpResponse:
        if not request.user.is_authenticated:
            return run(request, **given)
        try:
            key = UUID(request.headers.get(HEADER, ""))
        except ValueError:
            return problem(400, NEEDED)
        for _ in range(TRIES):
            answer = _tried(request, key, lambda: run(request, **given))
            if answer.status_code != 409 or not answer.has_header("Retry-After"):
                break
        return answer

    return _with_room(once)


def _tried(request: HttpRequest, key: UUID, run: Callable[[], HttpResponse]) -> HttpResponse:
    """The answer; 409 where others held what it wanted, with `Retry-After` where it may be done again at once."""
    try:
        return _answer(request, key, run)
    except OperationalError as error:
        if not is_locked_out(error):
            raise
        return told_when_again(problem(409, LOCKED), error)


def _with_room(run: Run) -> Run:
    """A write that is refused as long as the disk is full."""

    @wraps(run)
    def write(request: HttpRequest, **given: Any) -> HttpResponse:
        return problem(507, FULL) if disks.are_full() else run(request, **given)

    return write


def _noted(run: Run) -> Run:
    """A write that is repeatable, with what it changes noted in its transaction."""

    @wraps(run)
    def write(request: HttpRequest, **given: Any) -> HttpResponse:
        with transaction.atomic():
            answer = run(request, **given)
            if answer.status_code < 400:
                note_change(request)
        return answer

    return write


@transaction.atomic
def _answer(request: HttpRequest, key: UUID, run: Callable[[], HttpResponse]) -> HttpResponse:
    # Keyed, as passwords are among what is sent.
    sent = f"{request.method} {request.path}\n".encode() + request.body
    asked = salted_hmac(__name__, sent, algorithm="sha256").hexdigest()
    # One that is under way has the key's row locked until it is done.
    kept, is_new = Reply.objects.get_or_create(user_id=int(request.user.pk or 0), key=key, defaults={"asked": asked})
    if not is_new:
        if kept.asked != asked:
            return problem(422, OTHER)
        return HttpResponse(kept.body or b"", status=kept.status, content_type="application/json; charset=utf-8")
    answer = run()
    if answer.status_code >= 400:
        # What was refused may be sent again with the same key.
        transaction.set_rollback(True)
        return answer
    note_change(request)
    kept.status, kept.body = answer.status_code, answer.content.decode()
    kept.save(update_fields=["status", "body"])
    return answer
