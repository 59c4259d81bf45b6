"""The server as people use it: one who types, alone and while others have plans of cuts made."""

import statistics
import time
import urllib.error
from concurrent.futures import ThreadPoolExecutor

from cli.client import Client
from cli.timing import bounded, line, times
from server.demo.scene import RUNS

BOUND_MS = 100.0
PLANNERS, SECONDS, BETWEEN_KEYS = 8, 20.0, 0.12


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
        made = [crowd.submit(_planning, client, until) for client in clients[1:]]
        taken = []
        while time.monotonic() < until:
            taken += times(lambda: _recompute(clients[0]), 1)
            time.sleep(BETWEEN_KEYS)
        plans = sum(one.result() for one in made)
    line(f"the same while {PLANNERS} plan cuts ({plans} plans made)", taken)
    return bounded("recompute meanwhile, p95", statistics.quantiles(taken, n=20)[-1], BOUND_MS)


def _recompute(client: Client) -> None:
    client.send("api/plan", {"document": RUNS[0]})


def _planning(client: Client, until: float) -> int:
    """Has plans made that nobody had before, one after the other, for a job of its own; how many."""
    job, made = client.job_of(*RUNS), 0
    while (left := until - time.monotonic()) > 0:
        try:
            client.planned(job, 10, left, coupling=0.2 + made / 100)
            made += 1
        except TimeoutError:
            break
        except urllib.error.HTTPError as error:
            time.sleep(float(error.headers.get("Retry-After") or 1))
    return made
