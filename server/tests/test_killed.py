"""A confirmation that is killed in the middle loses nothing and doubles nothing."""

import subprocess
import sys
from pathlib import Path
from uuid import uuid4

from django.db import OperationalError, connection, connections
from django.test import TransactionTestCase

from server.cutting import actions, sawing
from server.stock.models import Entry, Scrap
from server.tests.support import cutting_state, environment, planned_shed

# Confirms a cut in a process of its own, which kills itself outright just before one of its steps.
CONFIRM = """
import os, signal, sys, uuid
import django
django.setup()
from server.accounts.models import User
from server.bench import actions as bench
from server.cutting import actions, sawing
from server.stock import keeping
module = {"keeping": keeping, "sawing": sawing}[sys.argv[1]]
setattr(module, sys.argv[2], lambda *given, **more: os.kill(os.getpid(), signal.SIGKILL))
actions.act(User.objects.get(pk=sys.argv[3]), int(sys.argv[4]), "cut", uuid.UUID(sys.argv[5]))
"""
STEPS = [("keeping", "cut_into"), ("sawing", "_finish"), ("keeping", "put_offcut"), ("sawing", "mark_cut")]


class Killed(TransactionTestCase):
    def setUp(self):
        self.lead, self.cut = planned_shed()
        self.before = cutting_state()

    def once_more(self, key):
        """The same act again, as a browser that got no answer sends it: it is done, once."""
        for _ in range(2):
            actions.act(self.lead, self.cut.pk, "cut", key)
        self.assertEqual(Entry.objects.filter(what="cut").count(), 1)
        self.assertEqual(Scrap.objects.filter(taken_at=None).count(), 1)

    def test_the_server_is_killed_at_each_step(self):
        key = str(uuid4())
        for module, step in STEPS:
            with self.subTest(step):
                words = [sys.executable, "-c", CONFIRM, module, step, str(self.lead.pk), str(self.cut.pk), key]
                self.assertEqual(subprocess.run(words, env=environment(), cwd=Path(__file__).parents[2]).returncode, -9)
                self.assertEqual(cutting_state(), self.before)
        self.once_more(key)

    def test_the_database_drops_the_connection_in_the_middle(self):
        key, mark_cut = uuid4(), sawing.mark_cut

        def cut_off(*given):
            with connections["default"].cursor() as cursor:
                cursor.execute("SELECT CONNECTION_ID()")
                mine = cursor.fetchone()[0]
            other = connection.copy()
            with other.cursor() as cursor:
                cursor.execute(f"KILL {mine}")
            other.close()
            mark_cut(*given)

        sawing.mark_cut = cut_off
        try:
            with self.assertRaises(OperationalError):
                actions.act(self.lead, self.cut.pk, "cut", key)
        finally:
            sawing.mark_cut = mark_cut
            connections.close_all()
        self.assertEqual(cutting_state(), self.before)
        self.once_more(key)
