"""The stand-in for a company's own sign-in, beside the server."""

import secrets
import subprocess

from ops.children import free_port, start, stop
from ops.paths import LOGS, PYTHON


class StandInProvider:
    """One on loopback, with a secret of its own for as long as it runs."""

    def __init__(self) -> None:
        self._child: subprocess.Popen[bytes] | None = None

    def start(self, env: dict[str, str]) -> dict[str, str]:
        """Start it; the environment by which the server knows it."""
        port = free_port()
        own = {
            "CRELDA_PROVIDER_ISSUER": f"http://127.0.0.1:{port}",
            "CRELDA_PROVIDER_CLIENT_SECRET": secrets.token_urlsafe(24),
            "CRELDA_PROVIDER_NAME": "the Saltmarsh account",
        }
        self._child = start([PYTHON, "-m", "cli.provider", "--port", str(port)], LOGS / "provider.log", env | own)
        return own

    def stop(self) -> None:
        """Stop it."""
        if self._child:
            stop(self._child)
