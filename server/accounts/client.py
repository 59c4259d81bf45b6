"""From where a request comes, also behind proxies that we trust."""

from ipaddress import IPv4Address, IPv6Address, ip_address, ip_network

from django.conf import settings
from django.http import HttpRequest

LONGEST = 1000
# One household or site has as many IPv6 addresses as it likes within this.
A_SITE = 64


def address_of(request: HttpRequest) -> str | None:
    """The client's address: that of the connection, or what the last trusted proxy says of it; None if unknown.

    Of an IPv6 address the site's part.
    """
    said = request.META.get("HTTP_X_FORWARDED_FOR", "")[-LONGEST:].split(",")
    seen = request.META.get("REMOTE_ADDR", "")
    while said and _is_trusted(seen):
        nearer = said.pop().strip()
        if not _parsed(nearer):
            break
        seen = nearer
    address = _parsed(seen)
    if address and address.version == 6:
        return str(ip_network(f"{address}/{A_SITE}", strict=False).network_address)
    return str(address) if address else None


def through_a_proxy(request: HttpRequest) -> bool:
    """Whether the connection comes from a proxy that we trust."""
    return _is_trusted(request.META.get("REMOTE_ADDR", ""))


def _parsed(text: str) -> IPv4Address | IPv6Address | None:
    try:
        return ip_address(text)
    except ValueError:
        return None


def _is_trusted(text: str) -> bool:
    address = _parsed(text)
    return bool(address) and any(address in network for network in settings.TRUSTED_PROXIES)
