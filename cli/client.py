"""A signed-in person, over HTTP: for the benchmark and for tests of whole installations."""

import json
import time
import urllib.request
from http.cookiejar import CookieJar
from typing import Any
from uuid import UUID, uuid4

from server.demo.scene import PASSWORD, PEOPLE

PAUSE = 0.25


class Client:
    """Somebody of the demo's crew, on the server at an address (`http://host:port/`)."""

    def __init__(self, address: str, username: str = PEOPLE[0][0]) -> None:
        self.address, self.jar = address, CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.opener.open(address).read()
        self.send("api/session", {"username": username, "password": PASSWORD})

    def send(self, path: str, body: object = None, method: str | None = None, key: UUID | None = None) -> Any:
        """What is answered to a body, or to none. Raises HTTPError."""
        token = next((cookie.value or "" for cookie in self.jar if cookie.name == "csrftoken"), "")
        headers = {"Content-Type": "application/json", "X-CSRFToken": token, "Idempotency-Key": str(key or uuid4())}
        data = None if body is None else json.dumps(body).encode()
        with self.opener.open(urllib.request.Request(self.address + path, data, headers, method=method)) as answer:
            return json.loads(answer.read() or "null")

    def job_of(self, *documents: object) -> int:
        """A new job with these runs; its number."""
        job: int = self.send("api/jobs", {"name": f"Job {uuid4().hex[:6]}", "place": ""})["id"]
        for document in documents:
            self.send(f"api/jobs/{job}/runs", {"document": document})
        return job

    def planned(self, job: int, seconds: float, give_up: float = 60.0, **terms: object) -> Any:
        """A job's cutting once it is planned by these terms. Raises HTTPError, TimeoutError."""
        ask = {"terms": terms, "seconds": seconds}
        now = self.send(f"api/jobs/{job}/cutting/plan", ask)
        until = time.monotonic() + give_up
        while _looking(now) or not now["proposal"]:
            if time.monotonic() > until:
                raise TimeoutError(now["solve"])
            time.sleep(PAUSE)
            now = self.send(f"api/jobs/{job}/cutting")
            if not _looking(now) and not now["proposal"]:
                # Its planner is gone, and the question with it.
                now = self.send(f"api/jobs/{job}/cutting/plan", ask)
        return now


def _looking(now: Any) -> bool:
    return bool(now["solve"]) and now["solve"]["state"] in ("waiting", "running")
