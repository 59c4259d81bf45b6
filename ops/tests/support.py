"""What the tests of the launcher share: databases of their own, and what the server's code says of them."""

import atexit
import json
import shutil
import subprocess
from contextlib import contextmanager, suppress
from functools import cache
from unittest import TestCase

from ops.database import Database
from ops.environment import server_environment
from ops.paths import PYTHON, ROOT


def manage(database, *words):
    """A command of the server's, on a database."""
    env = server_environment(database.url)
    subprocess.run([PYTHON, ROOT / "manage.py", *words, "-v0"], env=env, cwd=ROOT, check=True)


@cache
def with_demo():
    """The data of a stopped database with the tables of today and the demo: made once, copied for each test."""
    made = Database("demo-template-db")
    made.port = 0
    atexit.register(shutil.rmtree, made.data, ignore_errors=True)
    shutil.rmtree(made.data, ignore_errors=True)
    made.start()
    manage(made, "migrate")
    manage(made, "load_demo")
    made.stop()
    return made.data


def copy_demo(folder):
    """Put such data into a folder that is not there yet."""
    shutil.rmtree(folder, ignore_errors=True)
    subprocess.run(["cp", "--archive", with_demo(), folder], check=True)


@contextmanager
def running_database(name, demo=True):
    """A database that runs, with the demo or with no table at all; it goes with what it was made for."""
    database = Database(name)
    database.port = 0
    try:
        if demo:
            copy_demo(database.data)
        database.start()
        yield database
    finally:
        database.stop()
        shutil.rmtree(database.data, ignore_errors=True)


def on_a_small_disk(case, folder, size):
    """Have a folder, which is made, lie on a disk of its own of so many bytes until the test is over."""
    folder.mkdir(exist_ok=True)
    mount = ["mount", "-t", "tmpfs", "-o", f"size={size},mode=755", "tmpfs", folder]
    if subprocess.run(mount, capture_output=True).returncode:
        case.skipTest("a small disk can be had by root alone")
    case.addCleanup(folder.rmdir)
    case.addCleanup(subprocess.run, ["umount", folder], check=True)


def fill(file):
    """Write a file that takes all the room of its disk."""
    with file.open("wb", buffering=0) as filler, suppress(OSError):
        while True:
            filler.write(bytes(2**16))


class DatabaseCase(TestCase):
    """Tests on private databases that are made for one test."""

    def database_called(self, name, demo=True):
        """A database that runs as long as the test."""
        return self.enterContext(running_database(name, demo))

    def begin(self, database, script, *words):
        """Run a script of the server's on a database; the process."""
        command = [PYTHON, "-c", f"import json, sys, django\ndjango.setup()\n{script}", *map(str, words)]
        return subprocess.Popen(command, env=server_environment(database.url), cwd=ROOT, stdout=subprocess.PIPE)

    def told(self, database, script, *words):
        """What a script of the server's says of a database."""
        process = self.begin(database, script, *words)
        said = process.communicate()[0]
        self.assertEqual(process.returncode, 0)
        return json.loads(said)
