"""Backups taken while people work are whole and come back the same; what is no backup replaces nothing."""

import contextlib
import gzip
import io
import os
import time
from datetime import UTC, datetime
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest.mock import patch

from ops.backup import backup, kept, must_be_known, restore
from ops.children import free_port
from ops.dump import LEFT_OUT, Contents, contents_of, read_backup
from ops.say import Stop
from ops.sealing import new_key
from ops.tests.support import DatabaseCase
from ops.up import up
from ops.upkeep import A_DAY, backup_is_due

# Saves runs and stocks the rack without a pause, until it is stopped.
WORK = """
from server.accounts.models import User
from server.jobs.actions import save_run
from server.jobs.models import Run
from server.stock.actions import add_scrap
from server.stock.schemas import ScrapIn
lead = User.objects.get(username="dana")
for round in range(10**6):
    if round == 2:
        print("at work", flush=True)
    for run in Run.objects.present().filter(rack_lead=None):
        save_run(lead, run.pk, run.version, {**run.document, "name": f"Saved {run.version} times"})
        add_scrap(lead, ScrapIn(material="EMT", trade_size="3/4", length="30", count=3))
"""
# What is written in one transaction is in a backup whole or not at all.
HALF_DONE = """
from django.db.models import Max
from server.accounts.models import Crew
from server.jobs.models import Run
from server.stock.models import Entry, Scrap
runs = Run.objects.annotate(last=Max("revisions__version"))
crew = Crew.objects.get()
print(json.dumps({
    "runs": [run.pk for run in runs if run.last != run.version],
    "documents": [r.pk for r in runs if r.revisions.get(version=r.version).document != r.document],
    "tags": crew.last_tag - Scrap.objects.count(),
    "entries": Scrap.objects.count() - Entry.objects.filter(what="added").count(),
    "saves": sum(run.version - 1 for run in runs),
}))
"""
CHECKSUMS = """
from django.db import connection
with connection.cursor() as cursor:
    cursor.execute("SHOW TABLES")
    names = [name for name, in cursor.fetchall()]
    cursor.execute("CHECKSUM TABLE " + ", ".join(names) + " EXTENDED")
    print(json.dumps({name.split(".")[1]: value for name, value in cursor.fetchall()}))
"""


class Backup(DatabaseCase):
    def setUp(self):
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        silent = contextlib.ExitStack()
        self.addCleanup(silent.close)
        silent.enter_context(contextlib.redirect_stdout(io.StringIO()))
        # A file, as programs that are called write into it too.
        self.heard = silent.enter_context((self.folder / "heard").open("w"))
        silent.enter_context(contextlib.redirect_stderr(self.heard))

    def on(self, database):
        return patch.dict(os.environ, {"CRELDA_DATABASE_URL": database.url})

    def back_up(self, database, name):
        with self.on(database):
            backup(str(self.folder / name), "", 1)
        return self.folder / name

    def test_one_taken_under_load_comes_back_elsewhere_the_same(self):
        here, there = self.database_called("backed-up-db"), self.database_called("restored-db", demo=False)
        worker = self.begin(here, WORK)
        self.assertEqual(worker.stdout.readline(), b"at work\n")
        time.sleep(1)
        during = self.back_up(here, "during.sql.gz")
        time.sleep(0.5)
        worker.kill()
        worker.communicate()
        for file in (during, self.back_up(here, "after.sql.gz")):
            with self.on(there):
                restore(str(file), yes=True)
            found = self.told(there, HALF_DONE)
            self.assertGreater(found.pop("saves"), 0)
            self.assertEqual(found, {"runs": [], "documents": [], "tags": 0, "entries": 0})
        left, right = self.told(here, CHECKSUMS), self.told(there, CHECKSUMS)
        self.assertEqual({**left, LEFT_OUT: 0}, {**right, LEFT_OUT: 0})
        self.assertEqual(during.stat().st_mode & 0o077, 0)

    def test_nothing_is_replaced_unasked_or_by_what_is_no_backup(self):
        here = self.database_called("asked-db")
        good = self.back_up(here, "good.sql.gz")
        lines = gzip.decompress(good.read_bytes()).splitlines(keepends=True)
        bad = {
            "cut off": good.read_bytes()[:-200],
            "without its end": gzip.compress(b"".join(lines[:-1])),
            "changed": gzip.compress(b"".join(lines).replace(b"Kiln", b"Kilo", 1)),
            "longer": gzip.compress(b"".join(lines) + b"DROP TABLE jobs_run;\n"),
            "none": b"something else",
        }
        before = self.told(here, CHECKSUMS)
        for name, content in bad.items():
            file = self.folder / "bad.sql.gz"
            file.write_bytes(content)
            with self.subTest(name), self.on(here), self.assertRaises(Stop):
                restore(str(file), yes=True)
        for answer in ("", "yes\n"):
            with self.on(here), patch("sys.stdin", io.StringIO(answer)) as typed, self.assertRaises(Stop) as stop:
                typed.isatty = lambda answer=answer: bool(answer)
                restore(str(good), yes=False)
            self.assertIn("nothing was changed", str(stop.exception))
            self.heard.flush()
            self.assertIn("3 people", (self.folder / "heard").read_text())
        self.assertEqual(self.told(here, CHECKSUMS), before)
        with self.on(here), self.assertRaisesRegex(Stop, "there already"):
            backup(str(good), "", 1)

    def test_interrupted_elsewhere_it_is_marked_and_done_again(self):
        here = self.database_called("marked-db")
        good = self.back_up(here, "good.sql.gz")
        with self.on(here), patch.dict(os.environ, {"CRELDA_PORT": str(free_port())}):
            with patch("ops.backup.contents_of", side_effect=[contents_of(here.url), KeyboardInterrupt]):
                self.assertRaises(KeyboardInterrupt, restore, str(good), yes=True)
            for act in (lambda: backup(str(self.folder / "half"), "", 1), lambda: up(fresh_demo=False)):
                with self.assertRaisesRegex(Stop, r"interrupted.+before-restoring-.+gz"):
                    act()
            restore(str(good), yes=True)
            backup(str(self.folder / "whole"), "", 1)

    def test_into_a_database_that_others_use_nothing_is_read(self):
        here = self.database_called("used-db")
        good = self.back_up(here, "good.sql.gz")
        worker = self.begin(here, WORK)
        worker.stdout.readline()
        with self.on(here), self.assertRaisesRegex(Stop, "connections of others are open"):
            restore(str(good), yes=True)
        worker.kill()
        worker.communicate()

    def test_encrypted_only_its_key_opens_it_and_it_is_tried_without_changing_anything(self):
        here = self.database_called("sealed-db")
        public, secret = new_key().strip().splitlines()
        key, other = self.folder / "key", self.folder / "other"
        key.write_text(secret)
        other.write_text(new_key())
        with patch.dict(os.environ, {"CRELDA_BACKUP_KEY": public.removeprefix("# public key: ")}):
            self.back_up(here, "kept.sql.gz")
        (sealed,) = self.folder.glob("kept*")
        self.assertEqual((sealed.name, sealed.stat().st_mode & 0o077), ("kept.sql.gz.age", 0))
        self.assertTrue(sealed.read_bytes().startswith(b"age-encryption.org/v1"))
        before = self.told(here, CHECKSUMS)
        with self.on(here):
            for given in ("", str(other)):
                with self.assertRaisesRegex(Stop, "encrypted|does not open"):
                    restore(str(sealed), yes=True, key=given)
            restore(str(sealed), yes=False, key=str(key), trial=True)
            self.assertEqual(self.told(here, CHECKSUMS), before)
            restore(str(sealed), yes=True, key=str(key))
        after = self.told(here, CHECKSUMS)
        self.assertEqual({**before, LEFT_OUT: 0}, {**after, LEFT_OUT: 0})

    def test_nothing_is_no_backup(self):
        here = self.database_called("empty-db", demo=False)
        with self.on(here), self.assertRaisesRegex(Stop, "nothing in this database"):
            backup(str(self.folder / "none.sql.gz"), "", 1)
        self.assertEqual(list(self.folder.glob("none*")), [])

    def test_a_backup_of_a_newer_version_is_refused(self):
        with self.assertRaisesRegex(Stop, "newer version"):
            must_be_known(Contents(migrations=["jobs.9001_later"]))
        must_be_known(Contents(migrations=["jobs.0001_initial", "auth.9001_later"]))

    def test_only_the_last_are_kept_and_nothing_else_is_removed(self):
        here = self.database_called("kept-db")
        (self.folder / "notes.txt").write_text("mine")
        for day in (1, 2, 3):
            (self.folder / f"crelda-2026-01-0{day}-120000.sql.gz").touch()
        with self.on(here):
            backup("", str(self.folder), 2)
        left = kept(self.folder)
        self.assertEqual([file.name for file in left][1:], ["crelda-2026-01-03-120000.sql.gz"])
        self.assertGreater(read_backup(left[0]).rows, 10)
        self.assertTrue((self.folder / "notes.txt").exists())
        now = datetime.now(UTC).timestamp()
        self.assertEqual([backup_is_due(self.folder, now + later) for later in (0, A_DAY + 60)], [False, True])
