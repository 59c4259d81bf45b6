"""A stand-in for a company's own sign-in (OpenID Connect Core 1.0), to try and test ours with.

Whoever comes chooses as whom: it asks for no password, and sends nobody but to this machine.
"""

import argparse
import base64
import hashlib
import html
import json
import os
import secrets
import time
from collections.abc import Callable, Mapping
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Thread
from typing import Any
from urllib.parse import parse_qs, parse_qsl, unquote, urlencode, urlsplit

from joserfc import jwt
from joserfc.jwk import RSAKey

CLIENT = "crelda"
# Made up: the accounts that it knows, and how each proves who it is (RFC 8176).
PEOPLE: dict[str, dict[str, Any]] = {
    "1001": {"given_name": "Dana", "family_name": "Wexcombe", "preferred_username": "dana.w", "amr": ["pwd"]},
    "1002": {"given_name": "Osric", "family_name": "Fennimore", "preferred_username": "osric", "amr": ["pwd", "mfa"]},
    "1003": {"given_name": "Thea", "family_name": "Quillfeather", "preferred_username": "thea", "amr": ["pwd"]},
}
FROM_ENVIRONMENT = {"secret": "CLIENT_SECRET", "name": "NAME"}
HERE = {"127.0.0.1", "localhost"}
LARGEST = 8192


class StandIn(ThreadingHTTPServer):
    """It listens on loopback; `claims` go into every ID token in place of what stood there."""

    daemon_threads = True

    def __init__(self, port: int = 0, secret: str = "only-a-stand-in", name: str = "the Saltmarsh account") -> None:
        super().__init__(("127.0.0.1", port), _Answer)
        self.issuer = f"http://127.0.0.1:{self.server_port}"
        self.key = RSAKey.generate_key(2048, {"use": "sig", "alg": "RS256"}, auto_kid=True)
        self.secret, self.name = secret, name
        self.codes: dict[str, dict[str, str]] = {}
        self.claims: dict[str, Any] = {}

    def in_background(self) -> "StandIn":
        """The same, at work until `shutdown`."""
        Thread(target=self.serve_forever, daemon=True).start()
        return self

    def metadata(self) -> dict[str, Any]:
        """What it can do (OpenID Connect Discovery 1.0)."""
        return {
            "issuer": self.issuer,
            "authorization_endpoint": f"{self.issuer}/authorize",
            "token_endpoint": f"{self.issuer}/token",
            "jwks_uri": f"{self.issuer}/keys",
            "response_types_supported": ["code"],
            "subject_types_supported": ["public"],
            "id_token_signing_alg_values_supported": ["RS256"],
            "code_challenge_methods_supported": ["S256"],
        }

    def code_for(self, asked: Mapping[str, str]) -> str:
        """A code for what was asked for, as the person whom it names; it is good once."""
        code = secrets.token_urlsafe(24)
        self.codes[code] = dict(asked)
        return code

    def token_for(self, asked: Mapping[str, str]) -> dict[str, Any]:
        """The ID token of a person who came with a code."""
        now, person = int(time.time()), asked["person"]
        claims = {"iss": self.issuer, "sub": person, "aud": CLIENT, "iat": now, "exp": now + 300}
        claims |= {"nonce": asked.get("nonce", "")} | PEOPLE[person] | self.claims
        signed = jwt.encode({"alg": "RS256", "kid": self.key.kid}, claims, self.key)
        return {"access_token": secrets.token_urlsafe(24), "token_type": "Bearer", "id_token": signed}


class _Answer(BaseHTTPRequestHandler):
    server: StandIn

    def do_GET(self) -> None:
        place, asked = urlsplit(self.path), dict(parse_qsl(urlsplit(self.path).query))
        answers: dict[str, Callable[[], Any]] = {
            "/.well-known/openid-configuration": self.server.metadata,
            "/keys": lambda: {"keys": [self.server.key.as_dict(private=False)]},
        }
        if place.path in answers:
            self._send(200, json.dumps(answers[place.path]()), "application/json")
        elif place.path != "/authorize" or not _is_ours(asked):
            self._send(404, "Nothing is here.")
        elif asked.get("person") in PEOPLE:
            back = urlencode({"code": self.server.code_for(asked), "state": asked.get("state", "")})
            self._send(302, "", location=f"{asked['redirect_uri']}?{back}")
        else:
            self._send(200, _page(self.server.name, asked))

    def do_POST(self) -> None:
        size = min(int(self.headers.get("Content-Length") or 0), LARGEST)
        sent = {key: values[0] for key, values in parse_qs(self.rfile.read(size).decode()).items()}
        asked = self.server.codes.pop(sent.get("code", ""), None)
        fits = asked and self._is_client() and asked["redirect_uri"] == sent.get("redirect_uri")
        if asked and fits and _challenge(sent.get("code_verifier", "")) == asked.get("code_challenge"):
            self._send(200, json.dumps(self.server.token_for(asked)), "application/json")
        else:
            self._send(400, json.dumps({"error": "invalid_grant"}), "application/json")

    def _is_client(self) -> bool:
        basic = self.headers.get("Authorization", "").removeprefix("Basic ")
        name, _, secret = base64.b64decode(basic + "==").decode(errors="replace").partition(":")
        return (unquote(name), unquote(secret)) == (CLIENT, self.server.secret)

    def _send(self, status: int, body: str, kind: str = "text/html; charset=utf-8", location: str = "") -> None:
        sent = body.encode()
        self.send_response(status)
        if location:
            self.send_header("Location", location)
        self.send_header("Content-Type", kind)
        self.send_header("Content-Length", str(len(sent)))
        self.end_headers()
        self.wfile.write(sent)

    def log_message(self, format: str, *args: Any) -> None:
        """Nothing is logged."""


def _is_ours(asked: Mapping[str, str]) -> bool:
    return asked.get("client_id") == CLIENT and urlsplit(asked.get("redirect_uri", "")).hostname in HERE


def _challenge(verifier: str) -> str:
    """The S256 code challenge (RFC 7636) of a verifier."""
    return base64.urlsafe_b64encode(hashlib.sha256(verifier.encode()).digest()).decode().rstrip("=")


def _page(name: str, asked: Mapping[str, str]) -> str:
    links = "".join(
        f'<li><a href="/authorize?{html.escape(urlencode({**asked, "person": number}))}">'
        f"{person['given_name']} {person['family_name']}</a></li>"
        for number, person in PEOPLE.items()
    )
    style = "body{font:18px system-ui;margin:10vh auto;max-width:26rem}li{margin:1rem 0}"
    return (
        f'<!doctype html><html lang="en"><title>{html.escape(name)}</title><style>{style}</style>'
        f"<h1>{html.escape(name)}</h1><p>A stand-in: choose as whom you sign in.</p><ul>{links}</ul></html>"
    )


def main() -> None:
    """Serve until it is stopped."""
    parser = argparse.ArgumentParser(description="A stand-in for a company's own sign-in.")
    parser.add_argument("--port", type=int, default=0)
    told = {key: os.environ[f"CRELDA_PROVIDER_{variable}"] for key, variable in FROM_ENVIRONMENT.items()}
    StandIn(parser.parse_args().port, **told).serve_forever()


if __name__ == "__main__":
    main()
