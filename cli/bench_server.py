"""The server as people use it: one who types, alone and while others have plans of cuts made."""

import json
import statistics
import time
import urllib.error
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from http.cookiejar import CookieJar
from typing import Any

from cli.timing import bounded, line, times
from server.demo.scene import PASSWORD, PEOPLE, RUNS

BOUND_MS = 100.0
PLANNERS, SECONDS, BETWEEN_KEYS = 8, 10.0, 0.12


class Client:
    """A signed-in person, over HTTP."""

    def __init__(self, address: str) -> None:
        self.address, self.jar = address, CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.opener.open(address).read()
        self.send("api/session", {"username": PEOPLE[0][0], "password": PASSWORD})

    def send(self, path: str, body: object = None) -> Any:
        """What is answered to a body, or to none. Raises HTTPError."""
        token = next((cookie.value or "" for cookie in self.jar if cookie.name == "csrftoken"), "")
        headers = {"Content-Type": "application/json", "X-CSRFToken": token}
        data = None if body is None else json.dumps(body).encode()
        with self.opener.open(urllib.request.Request(self.address + path, data, headers)) as answer:
            return json.loads(answer.read())


def through_the_api(address: str) -> bool:
    """One recompute as the front end asks for it. Returns whether the median is within its bound."""
    client = Client(address)
    median = line("recompute through the API, demo run", times(lambda: _recompute(client), 300))
    return bounded("recompute", median, BOUND_MS)


def while_plans_are_made(address: str) -> bool:
    """The same while many have plans of cuts made. Returns whether the 95th percentile is within its bound."""
    clients = [Client(address) for _ in range(PLANNERS + 1)]
    until = time.monotonic() + SECONDS
    with ThreadPoolExecutor(PLANNERS) as crowd:
        made = [crowd.submit(_planning, client, number, until) for number, client in enumerate(clients[1:])]
        taken = []
        while time.monotonic() < until:
            taken += times(lambda: _recompute(clients[0]), 1)
            time.sleep(BETWEEN_KEYS)
        plans = sum(one.result() for one in made)
    line(f"the same while {PLANNERS} plan cuts ({plans} plans made)", taken)
    return bounded("recompute meanwhile, p95", statistics.quantiles(taken, n=20)[-1], BOUND_MS)


def _recompute(client: Client) -> None:
    client.send("api/plan", {"document": RUNS[0]})


def _planning(client: Client, number: int, until: float) -> int:
    """Has plans made that nobody had before, each time it is its turn; how many."""
    job, made = max(client.send("api/jobs"), key=lambda one: len(one["runs"]))["id"], 0
    while time.monotonic() < until:
        terms = {"kerf": f"{number + 1}/32", "coupling": 0.2 + made / 100}
        try:
            client.send(f"api/jobs/{job}/cutting/plan", {"terms": terms, "seconds": 10})
            made += 1
        except urllib.error.HTTPError as error:
            time.sleep(float(error.headers.get("Retry-After") or 1))
    return made
