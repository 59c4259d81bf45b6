"""The database server is killed in the middle of a confirmed cut: it comes back as before, and the act is done once."""

import getpass
import subprocess
from uuid import uuid4

from ops.tests.support import DatabaseCase

PREPARE = """
from django.test.utils import setup_test_environment
from server.tests.support import cutting_state, planned_shed
setup_test_environment()
lead, cut = planned_shed()
print(json.dumps([lead.pk, cut.pk, cutting_state()], default=str))
"""
# Kills the database's process just before the last step of the confirmation, where one is given.
CONFIRM = """
import os, signal, uuid
from django.db import OperationalError
from server.accounts.models import User
from server.cutting import actions, sawing
from server.tests.support import cutting_state
lead, cut, key, database = sys.argv[1:]
mark_cut = sawing.mark_cut
def killing(*given):
    os.kill(int(database), signal.SIGKILL)
    mark_cut(*given)
if database:
    sawing.mark_cut = killing
try:
    actions.act(User.objects.get(pk=lead), int(cut), "cut", uuid.UUID(key))
    print(json.dumps(cutting_state(), default=str))
except OperationalError:
    print('"the database is gone"')
"""
STATE = """
from server.tests.support import cutting_state
print(json.dumps(cutting_state(), default=str))
"""

# What somebody who got hold of our account in the database would try next.
TRESPASS = """
from django.db import connection
from django.db.utils import OperationalError, ProgrammingError
done = []
for words in ("CREATE DATABASE elsewhere", "SELECT * FROM mysql.user", "SELECT 1 INTO OUTFILE '/tmp/crelda-out'",
              "CREATE USER other", "SET GLOBAL max_connections = 1"):
    try:
        with connection.cursor() as cursor:
            cursor.execute(words)
        done.append(words)
    except (OperationalError, ProgrammingError):
        pass
print(json.dumps(done))
"""


class DatabaseKilled(DatabaseCase):
    def setUp(self):
        self.database = self.database_called("killed-db")

    def says(self, script, *words):
        return self.told(self.database, script, *words)

    def test_the_server_has_no_more_rights_in_it_than_it_needs(self):
        self.assertEqual(self.says(TRESPASS), [])
        runs_as = subprocess.run(
            ["ps", "-o", "euser:32=", "-p", str(self.database.process.pid)], capture_output=True, text=True
        )
        self.assertEqual(runs_as.stdout.strip(), self.database.account or getpass.getuser())

    def test_killed_in_the_middle_nothing_is_lost_and_nothing_doubled(self):
        lead, cut, before = self.says(PREPARE)
        key = uuid4()
        said = self.says(CONFIRM, lead, cut, key, self.database.process.pid)
        self.assertEqual(said, "the database is gone")
        self.assertIsNotNone(self.database.process.wait(20))
        self.database.start()
        self.assertEqual(self.says(STATE), before)
        done = self.says(CONFIRM, lead, cut, key, "")
        self.assertEqual(self.says(CONFIRM, lead, cut, key, ""), done)
        self.assertEqual([what for what in done[3] if what == "cut"], ["cut"])
