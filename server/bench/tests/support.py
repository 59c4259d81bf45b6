"""What the bench's tests share: acts, and a run's bench over HTTP."""

from datetime import UTC, datetime
from uuid import uuid4

from server.tests.support import CrewTestCase

NOON = datetime(2026, 3, 2, 12, tzinfo=UTC)


def act(kind, piece=1, **more):
    return {"kind": kind, "piece": piece, "key": str(uuid4()), "at": NOON.isoformat(), **more}


def bent(bend, angle, tape=None, **more):
    return act("bent", bend=bend, angle=angle, tape=tape, **more)


class BenchTestCase(CrewTestCase):
    """A run with one 90, back at 20 from end A, on the typical 3/4 shoe."""

    def do(self, *acts, api=None, run=None):
        """Send acts; what came of each, and the bench then."""
        answer = (api or self.api).send("POST", f"/runs/{(run or self.feed).pk}/bench", {"acts": list(acts)})
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()["outcomes"], answer.json()["bench"]

    def bench(self, run=None):
        return self.api.send("GET", f"/runs/{(run or self.feed).pk}/bench").json()

    def status(self, run=None):
        for job in self.api.send("GET", "/jobs").json():
            for line in job["runs"]:
                if line["id"] == (run or self.feed).pk:
                    return line["status"], [tuple(one.values()) for one in line["begun"]]
        return None
