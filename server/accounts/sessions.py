"""Where a person is signed in."""

from typing import Any

from django.conf import settings
from django.contrib.sessions.middleware import SessionMiddleware as DjangoSessionMiddleware
from django.http import HttpRequest
from django.utils import timezone
from django.utils.crypto import salted_hmac
from qsessions.models import Session

from server.accounts.client import address_of
from server.accounts.models import User
from server.accounts.schemas import SessionOut


class SessionMiddleware(DjangoSessionMiddleware):
    """A session knows from where it is used: by the address that trusted proxies tell."""

    def process_request(self, request: HttpRequest) -> None:
        """Find the request's session."""
        key = request.COOKIES.get(settings.SESSION_COOKIE_NAME)
        agent = request.headers.get("User-Agent", "")
        request.session = self.SessionStore(session_key=key, ip=address_of(request), user_agent=agent)  # type: ignore[call-arg]


def sessions_of(user: User, here: str | None) -> list[SessionOut]:
    """Where the person is signed in, the one used last first; `here`: the key of the session that asks."""
    return [
        SessionOut(
            id=_id_of(session),
            here=session.session_key == here,
            device=_device_of(session),
            address=session.ip or "",
            since=session.created_at,
            last=session.updated_at,
        )
        for session in _open(user).order_by("-updated_at")
    ]


def sign_out(user: User, number: str) -> bool:
    """End one of the person's sessions; whether there was such a one."""
    ended = [session for session in _open(user) if _id_of(session) == number]
    for session in ended:
        session.delete()
    return bool(ended)


def sign_out_elsewhere(user: User, but: str | None = None) -> int:
    """End all sessions of the person but one; how many there were."""
    count, _ = Session.objects.filter(user=user).exclude(session_key=but or "").delete()
    return int(count)


def _open(user: User) -> Any:
    return Session.objects.filter(user=user, expire_date__gt=timezone.now())


def _id_of(session: Any) -> str:
    """How a session is named to the person: its key would let whoever has it in."""
    return salted_hmac("crelda.session", session.session_key).hexdigest()[:20]


def _device_of(session: Any) -> str:
    """The browser and the system that it runs on, as it says itself."""
    told = session.device_info
    names = [part.family for part in (told and told.user_agent, told and told.os) if part and part.family]
    return " on ".join(names) or "a browser that does not say what it is"
