"""Settings by which a server that others can reach would not be safe: it does not start by them."""

from ipaddress import ip_address

from django.conf import settings
from django.core.exceptions import ImproperlyConfigured
from django.db import DatabaseError, InterfaceError

from server.accounts.models import User
from server.demo.scene import PASSWORD

SHORTEST_KEY = 32


def is_public() -> bool:
    """Whether others than this machine can reach the server: by TLS, or under a name that is not this machine's."""
    return settings.HTTPS or not all(_is_loopback(host) for host in settings.ALLOWED_HOSTS)


def _is_loopback(host: str) -> bool:
    try:
        return ip_address(host.strip("[]")).is_loopback
    except ValueError:
        return host == "localhost" or host.endswith(".localhost")


def refuse_unsafe(with_demo: bool = False) -> None:
    """Raises ImproperlyConfigured, in words, where it is not safe to serve; `with_demo`: with the demo loaded."""
    if not is_public():
        return
    if not settings.HTTPS:
        hosts = ", ".join(host for host in settings.ALLOWED_HOSTS if not _is_loopback(host))
        raise ImproperlyConfigured(
            f"Others can reach this server ({hosts}), and passwords would go over the network for all to read. "
            "Put a proxy with TLS in front and set CRELDA_HTTPS=1, or listen on 127.0.0.1 only."
        )
    if len(settings.SECRET_KEY) < SHORTEST_KEY:
        raise ImproperlyConfigured(f"CRELDA_SECRET_KEY is too short: at least {SHORTEST_KEY} letters.")
    if with_demo:
        raise ImproperlyConfigured(
            "Others can reach this server, and the people of the demo sign in with a password that everybody knows. "
            "Set CRELDA_DEMO=0."
        )
    if name := _demo_person():
        raise ImproperlyConfigured(
            f"Others can reach this server, and “{name}” of the demo signs in with a password that everybody knows. "
            "Take the demo away: manage.py load_demo --remove."
        )


def _demo_person() -> str:
    """Somebody of the demo who signs in with its password; where the database cannot be asked, nobody signs in."""
    try:
        people = list(User.objects.filter(memberships__crew__is_demo=True, is_active=True))
        return next((one.username for one in people if one.check_password(PASSWORD)), "")
    except (DatabaseError, InterfaceError):
        return ""
