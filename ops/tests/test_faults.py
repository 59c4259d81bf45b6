"""Writes that were acknowledged are there, once each, whatever was killed or frozen meanwhile; a full disk is told."""

import os
import shutil
import signal
import subprocess
import time
import urllib.error
from concurrent.futures import ThreadPoolExecutor, wait
from contextlib import suppress
from http.client import HTTPException
from uuid import uuid4

from cli.client import Client
from ops.children import free_port, start, stop
from ops.database import Database
from ops.environment import server_environment
from ops.paths import LOGS
from ops.tests.support import DatabaseCase, fill, on_a_small_disk, with_demo
from ops.up import gunicorn, wait_until_it_answers

LOG = LOGS / "faults.log"
# By hand: CRELDA_WRITES=1000.
WRITES, PEOPLE = int(os.environ.get("CRELDA_WRITES", "400")), 8
FROZEN = 2.0
ROOM = 48 * 2**20
# How often what people wrote is there, by its name; and of each scrap how often it was added.
THERE = """
from collections import Counter
from server.jobs.models import Job, Run
from server.bench.models import ActDone
from server.stock.models import Entry, Scrap
names = Counter(Job.objects.filter(name__startswith="w ").values_list("name", flat=True))
places = Counter(Scrap.objects.filter(place__startswith="w ").values_list("place", flat=True))
halves = sum(1 for run in Run.objects.all() if run.revisions.count() != run.version)
unledgered = Scrap.objects.exclude(entries__what="added").count()
print(json.dumps({"names": names, "places": places, "halves": halves, "unledgered": unledgered}))
"""


class Faults(DatabaseCase):
    def web(self, database, **more):
        port = free_port()
        env = {**os.environ, **server_environment(database.url), "CRELDA_PORT": str(port), **more}
        process = start(gunicorn(), LOG, env)
        self.addCleanup(stop, process)
        wait_until_it_answers("127.0.0.1", port, process, LOG)
        return process, f"http://127.0.0.1:{port}/"

    def test_acknowledged_writes_are_there_once_each_whatever_is_killed(self):
        database = self.database_called("faults-db")
        server, address = self.web(database)
        people = [Client(address, "marek") for _ in range(PEOPLE)]
        run = people[0].send("api/jobs")[0]["runs"][0]["id"]
        share = WRITES // PEOPLE
        with ThreadPoolExecutor(PEOPLE) as crowd:
            writing = [crowd.submit(self.write, one, run, share) for one in people]
            self.kill_things(database, server, writing)
            said = [one for part in writing for one in part.result()]
        self.assertEqual(len(said), PEOPLE * share)
        there = self.told(database, THERE)
        self.assertEqual((there["halves"], there["unledgered"]), (0, 0))
        self.assertEqual({**there["names"], **there["places"]}, dict.fromkeys(said, 1))

    def write(self, person, run, count):
        """Jobs and scraps, by turns; the names of those that were acknowledged. Each is sent until it is."""
        said = []
        for number in range(count):
            name = f"w {uuid4().hex[:12]}"
            scrap = {"material": "EMT", "trade_size": "3/4", "length": "30", "place": name}
            path, body = ("api/rack", scrap) if number % 2 else ("api/jobs", {"name": name, "place": ""})
            self.until_acknowledged(person, path, body)
            said.append(name)
        return said

    def until_acknowledged(self, person, path, body):
        key = uuid4()
        while True:
            try:
                person.send(path, body, key=key)
            except urllib.error.HTTPError as error:
                # What a person's fault would be is a fault of the test.
                if error.code < 500 and error.code not in (409, 429):
                    raise
            except (OSError, HTTPException):
                pass
            else:
                return
            time.sleep(0.2)

    def kill_things(self, database, server, writing):
        """By turns: a web process killed, the database frozen, the database killed and started again.

        In the main thread: what another starts would end with that.
        """

        def all_is_written():
            return not wait(writing, 1.5).not_done

        while not all_is_written():
            with suppress(subprocess.CalledProcessError):
                workers = subprocess.check_output(["pgrep", "-P", str(server.pid)], text=True).split()
                os.kill(int(workers[0]), signal.SIGKILL)
            if all_is_written():
                return
            os.kill(database.process.pid, signal.SIGSTOP)
            time.sleep(FROZEN)
            os.kill(database.process.pid, signal.SIGCONT)
            if all_is_written():
                return
            database.process.kill()
            database.process.wait()
            database.start()

    def test_a_full_disk_is_told_what_is_there_can_be_read_and_with_room_again_all_goes_on(self):
        database = self.database_on_a_small_disk()
        _, address = self.web(database)
        dana = Client(address)
        job = dana.send("api/jobs")[0]
        document = dana.send(f"api/runs/{job['runs'][0]['id']}")["document"]
        filler = database.data / "filler"
        fill(filler)
        refused = self.add_runs(dana, job["id"], document)
        self.assertEqual(refused.code, 507)
        self.assertIn(b"disk is full", refused.read())
        count = len(dana.send("api/jobs")[0]["runs"])
        filler.unlink()
        dana.send(f"api/jobs/{job['id']}/runs", {"document": document})
        self.assertEqual(len(dana.send("api/jobs")[0]["runs"]), count + 1)

    def add_runs(self, dana, job, document):
        """Add runs until it is refused; the refusal."""
        for _ in range(3000):
            try:
                dana.send(f"api/jobs/{job}/runs", {"document": {**document, "note": "x" * 4000}})
            except urllib.error.HTTPError as error:
                return error
        return None

    def database_on_a_small_disk(self):
        database = Database("full-db")
        database.port = 0
        shutil.rmtree(database.data, ignore_errors=True)
        size = sum(path.stat().st_size for path in with_demo().rglob("*") if path.is_file()) + ROOM
        on_a_small_disk(self, database.data, size)
        self.addCleanup(database.stop)
        subprocess.run(["cp", "--archive", f"{with_demo()}/.", database.data], check=True)
        database.start()
        return database
