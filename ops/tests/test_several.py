"""Two web processes and two planners on one database, on ports of their own, as behind a balancer."""

import os
import time
import urllib.error
from concurrent.futures import ThreadPoolExecutor
from uuid import uuid4

from cli.client import Client
from ops.children import free_port, start, stop
from ops.environment import server_environment
from ops.paths import LOGS, PYTHON, ROOT
from ops.tests.balancer import Balancer
from ops.tests.support import DatabaseCase
from ops.up import gunicorn, wait_until_it_answers
from server.demo.scene import RUNS

LOG = LOGS / "several.log"


class Several(DatabaseCase):
    def setUp(self):
        self.database = self.database_called("several-db")
        outside = {key: value for key, value in os.environ.items() if key != "CRELDA_TASKS"}
        self.env = {**outside, **server_environment(self.database.url), "CRELDA_WORKERS": "1"}
        self.env.pop("CRELDA_TASKS", None)

    def begin(self, command, **more):
        process = start(command, LOG, {**self.env, **more})
        self.addCleanup(stop, process)
        return process

    def server(self):
        """One more: its port and its process."""
        port = free_port()
        process = self.begin(gunicorn(), CRELDA_PORT=str(port))
        wait_until_it_answers("127.0.0.1", port, process, LOG)
        return port, process

    def web(self):
        return Client(f"http://127.0.0.1:{self.server()[0]}/")

    def planner(self):
        return self.begin([PYTHON, ROOT / "manage.py", "planner"])

    def test_they_share_all_and_one_that_is_killed_is_not_missed(self):
        one, other = self.web(), self.web()
        doomed = self.planner()
        jobs = [one.job_of(*RUNS[:2]) for _ in range(3)]
        one.send(f"api/jobs/{jobs[0]}/cutting/plan", {"terms": {}, "seconds": 10})
        while other.send(f"api/jobs/{jobs[0]}/cutting")["solve"]["state"] == "waiting":
            time.sleep(0.1)
        doomed.kill()
        for _ in range(2):
            self.planner()
        with ThreadPoolExecutor(2) as both:
            found = list(both.map(lambda given: given[0].planned(given[1], 2), [(one, jobs[1]), (other, jobs[2])]))
        for now, job in zip(found, jobs[1:], strict=True):
            self.assertEqual(now["proposal"]["seconds"], 2)
            # What one process was told the other tells too.
            self.assertEqual(one.send(f"api/jobs/{job}/cutting"), other.send(f"api/jobs/{job}/cutting"))
        # Its planner is gone: after a while it is forgotten, and asked for anew by whoever looks.
        self.assertEqual(other.planned(jobs[0], 2)["proposal"]["seconds"], 2)

    def test_behind_a_balancer_a_person_works_on_both_and_goes_on_when_one_is_killed(self):
        servers = [self.server() for _ in range(2)]
        balancer = Balancer([port for port, _ in servers])
        self.addCleanup(balancer.close)
        self.planner()
        dana = Client(balancer.address)
        job = dana.job_of(*RUNS[:2])
        run = dana.send(f"api/jobs/{job}")["runs"][0]["id"]
        document, tags = dana.send(f"api/runs/{run}")["document"], set()
        for version in range(1, 9):
            dana.send(f"api/runs/{run}", {"version": version, "document": {**document, "name": f"{version}"}}, "PUT")
            self.assertEqual(dana.send(f"api/runs/{run}/saved")["version"], version + 1)
            if version == 4:
                servers[0][1].kill()
        for path in (f"api/runs/{run}/bench",) * 2:
            with dana.opener.open(balancer.address + path) as answer:
                tags.add(answer.headers["ETag"])
        self.assertEqual(len(tags), 1)
        self.assertEqual(dana.planned(job, 2)["proposal"]["seconds"], 2)
        self.assertGreater(min(balancer.taken.values()), 8, "each had its share")

    def test_two_who_save_the_same_run_are_told_and_a_write_is_done_once_by_either(self):
        one, other = self.web(), self.web()
        run = one.send("api/jobs")[0]["runs"][0]["id"]
        document = one.send(f"api/runs/{run}")["document"]
        saves = [{"version": 1, "document": {**document, "name": name}} for name in ("One", "Other")]
        with ThreadPoolExecutor(2) as both:
            answers = list(both.map(self.saved, (one, other), saves, (run, run)))
        self.assertEqual(sorted(answers), [200, 409])
        key = uuid4()
        made = [who.send("api/jobs", {"name": "Twice", "place": ""}, key=key)["id"] for who in (one, other)]
        self.assertEqual(len(set(made)), 1)
        self.assertEqual(sum(job["name"] == "Twice" for job in other.send("api/jobs")), 1)

    def saved(self, who, body, run):
        try:
            who.send(f"api/runs/{run}", body, "PUT")
        except urllib.error.HTTPError as refused:
            return refused.code
        return 200
