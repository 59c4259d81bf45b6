"""What the people of the load test do, for locust: they measure, bend, look at the stock; one has cuts planned.

Each signs in as somebody of a crowd (`server.demo.crowd`) and works on the jobs of their crew. Between what they do
they pause as people do; what the pages ask by themselves meanwhile is asked too.
"""

import json
import os
import random
import time
from datetime import UTC, datetime
from itertools import count
from pathlib import Path
from typing import Any, ClassVar
from uuid import uuid4

from locust import FastHttpUser, between, constant_pacing, events, task

from server.demo.scene import PASSWORD

# How often the pages look for what others did, in seconds.
WALK_LOOKS, BENCH_LOOKS = 4.0, 6.0
KEY = (0.3, 0.6)
turn = count()
SIGN_IN = "sign in"
UNCHANGED = 304
# People come within the first half minute, which is not counted in the rest; their own waits are told apart.
waits: list[float] = []


@events.request.add_listener
def _listen(name: str, response_time: float, **more: object) -> None:
    if name == SIGN_IN:
        waits.append(response_time)


@events.quitting.add_listener
def _tell(**more: object) -> None:
    Path(os.environ["CRELDA_LOAD_OUT"], "sign-in.json").write_text(json.dumps(waits))


class Person(FastHttpUser):
    """Somebody who is signed in."""

    abstract = True
    connection_timeout = network_timeout = 30.0

    def on_start(self) -> None:
        """Sign in, and find a run of the crew's."""
        # As the page does: what was answered before is still so where the server says that.
        self.known: dict[str, tuple[str, Any]] = {}
        self.client.get("/", name="page")
        self.ask(SIGN_IN, "POST", "/api/session", {"username": f"crowd{next(turn)}", "password": PASSWORD})
        jobs = self.ask("jobs", "GET", "/api/jobs")
        self.job = jobs[0]["id"]
        self.run_id = random.choice(jobs[0]["runs"])["id"]
        found = self.ask("run", "GET", f"/api/runs/{self.run_id}")
        self.document, self.version = found["document"], found["version"]

    def ask(self, name: str, method: str, path: str, body: object = None, fine: tuple[int, ...] = ()) -> Any:
        """What is answered; a refusal is an error, but for those that are `fine` here."""
        token = next((cookie.value for cookie in self.client.cookiejar if cookie.name == "csrftoken"), "")
        headers = {"X-CSRFToken": token or "", "Idempotency-Key": str(uuid4())}
        tag, known = self.known.get(path, ("", None))
        if tag and method == "GET":
            headers["If-None-Match"] = tag
        with self.client.request(method, path, name=name, json=body, headers=headers, catch_response=True) as answer:
            if answer.status_code in fine:
                answer.success()
            if answer.status_code == UNCHANGED:
                return known
            told = answer.json() if answer.status_code == 200 else None
            self.known[path] = (answer.headers.get("ETag", ""), told)
            return told


class Measuring(Person):
    """Types figures in Layout: the plan follows each key, the run is saved when the hand rests."""

    weight = 12
    wait_time = between(4, 10)

    @task
    def type_a_figure(self) -> None:
        """Three keys, then a rest."""
        for _ in range(3):
            self.document["longest_piece"] = str(random.randint(96, 120))
            self.ask("plan", "POST", "/api/plan", {"document": self.document})
            time.sleep(random.uniform(*KEY))
        body = {"version": self.version, "document": self.document}
        saved = self.ask("save", "PUT", f"/api/runs/{self.run_id}", body, fine=(409,))
        # Somebody else of the crew was first: theirs is the newest.
        now = saved or self.ask("run", "GET", f"/api/runs/{self.run_id}")
        self.version = now["version"] if now else self.version
        for _ in range(2):
            time.sleep(WALK_LOOKS)
            self.ask("saved", "GET", f"/api/runs/{self.run_id}/saved")


class Bending(Person):
    """Enters what finder and tape read; the bench looks by itself for what others did."""

    weight = 6
    wait_time = between(3, 6)

    @task
    def bend(self) -> None:
        """Look, and now and then act."""
        bench = self.ask("bench", "GET", f"/api/runs/{self.run_id}/bench")
        if not bench or not bench["sticks"] or random.random() > 0.3:
            return
        stick = random.choice(bench["sticks"])
        now = datetime.now(UTC).isoformat()
        act = {
            "key": str(uuid4()),
            "piece": stick["sheet"]["piece"],
            "at": now,
            "kind": "arrange",
            "arranged": {"spare": "1"},
        }
        self.ask("act", "POST", f"/api/runs/{self.run_id}/bench", {"acts": [act]})


class Stocking(Person):
    """Looks at cut list and rack."""

    weight = 2
    wait_time = between(8, 15)

    @task
    def look(self) -> None:
        """The stock page."""
        self.ask("cutting", "GET", f"/api/jobs/{self.job}/cutting")
        self.ask("rack", "GET", "/api/rack")


class Planning(Person):
    """Has cuts planned, one a minute."""

    fixed_count = 1
    wait_time = constant_pacing(60)
    terms: ClassVar = count(1)

    @task
    def plan(self) -> None:
        """Ask; the page looks twice a second how it goes."""
        body = {"terms": {"coupling": 0.2 + next(self.terms) / 100}, "seconds": 2}
        now = self.ask("ask for cuts", "POST", f"/api/jobs/{self.job}/cutting/plan", body)
        while now and now["solve"] and now["solve"]["state"] in ("waiting", "running"):
            time.sleep(0.5)
            now = self.ask("cutting", "GET", f"/api/jobs/{self.job}/cutting")
