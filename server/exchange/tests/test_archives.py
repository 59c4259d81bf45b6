"""A job and a crew's data as one file: packed, read in elsewhere, packed again, and compared; what is odd is told."""

import io
import json
import random
import struct
import zipfile
from contextlib import suppress
from hashlib import sha256
from unittest.mock import patch

from django.apps import apps

from server.accounts.limits import set_limits
from server.accounts.models import Crew, CrewOwned, Event
from server.bench.models import BendMade, Stick
from server.cutting.models import Bar, Cut
from server.demo.history import calibrated, work_before
from server.exchange.archive.container import ArchiveReader, UnreadableArchive
from server.exchange.archive.looking import check_rows, look
from server.exchange.archive.packing import pack
from server.exchange.archive.tables import BY_MODEL, LEFT_OUT, TABLES, Scope
from server.exchange.archive.unpacking import unpack
from server.jobs.actions import add_run, remove_run, save_run
from server.jobs.models import Job, Run, RunPhoto
from server.jobs.photos import add_photo
from server.jobs.space import place_box
from server.jobs.tests.test_about import encoded
from server.shoes.actions import add_shoe
from server.shoes.models import Shoe
from server.shoes.schemas import ShoeIn
from server.stock.actions import add_scrap
from server.stock.models import Scrap
from server.stock.schemas import ScrapIn
from server.tests.support import RUN, CrewTestCase, person, taken_plan


def packed(crew, job=None):
    file = io.BytesIO()
    pack(Scope(crew, job), file)
    return file.getvalue()


def opened(data):
    return ArchiveReader(io.BytesIO(data))


def records(data):
    """All rows of an archive, by table."""
    archive = opened(data)
    return {table.name: [row for _, row in archive.lines(table.path)] for table in TABLES} | {
        "people": [row for _, row in archive.lines("records/people.jsonl")]
    }


class PackedCrew(CrewTestCase):
    """A crew with a job that was bent, one whose cuts are planned and begun, photos, notes, a run in the bin."""

    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        cls.crew = cls.job.crew
        figures = {"material": "EMT", "trade_size": "3/4", "deduct": "6", "gain": "3 1/4"}
        cls.shoe = add_shoe(cls.lead, ShoeIn(name="Old faithful", **figures))
        calibrated(cls.lead, cls.shoe, 20)
        work_before(cls.bender)
        cls.old = Job.objects.exclude(pk=cls.job.pk).get()
        add_scrap(cls.lead, ScrapIn(material="EMT", trade_size="3/4", length="80", place="bay 1"))
        taken_plan(cls.lead, cls.job)
        place_box(cls.lead, cls.job.pk, {"name": "KP", "along": "0", "up": "0"}, None)
        add_photo(cls.lead, cls.feed.pk, encoded(), "the beam")
        save_run(cls.bender, cls.feed.pk, 1, {**RUN, "name": "Feed, north"})
        remove_run(cls.lead, add_run(cls.lead, cls.job.pk, RUN).pk)
        set_limits(cls.lead, {"keep": "10"})
        cls.elsewhere = Crew.objects.create(name="New yard")
        cls.newcomer = person(cls.elsewhere, "nora")


class Archives(PackedCrew):
    """What goes out comes in."""

    def test_every_table_of_a_crew_is_in_it_or_is_left_out_on_purpose(self):
        of_crews = {one for one in apps.get_models() if issubclass(one, CrewOwned)}
        missing = {one._meta.label for one in of_crews - set(BY_MODEL)}
        self.assertEqual(missing, set(LEFT_OUT))

    def test_a_crew_read_in_elsewhere_is_the_same(self):
        data = packed(self.crew)
        said = look(opened(data), self.elsewhere)
        self.assertEqual((said.of, said.with_settings, said.tags), ("crew", True, {}))
        self.assertEqual(set(said.people_away), {"lena", "ben"})
        unpack(opened(data), self.elsewhere, self.newcomer)
        # What it was called there, and that it was read in, is this crew's own.
        Event.objects.filter(crew=self.elsewhere, what="read in a file").delete()
        before, after = records(data), records(packed(Crew.objects.get(pk=self.elsewhere.pk)))
        before["crew"][0]["name"] = "New yard"
        self.maxDiff = 2000
        for name, rows in before.items():
            with self.subTest(name):
                self.assertEqual(after[name], rows)
                if name != "reservations":
                    self.assertTrue(rows)
        self.assertEqual(opened(data).bytes_of("photos/1.jpg", 10**6), bytes(RunPhoto.objects.last().data))

    def test_what_was_read_in_is_worked_on_as_before(self):
        job = unpack(opened(packed(self.crew, self.job)), self.elsewhere, self.newcomer, "Shed, again")
        self.assertEqual(
            (job.name, job.runs.count(), Run.objects.for_user(self.newcomer).count()), ("Shed, again", 2, 1)
        )
        [feed] = Run.objects.for_user(self.newcomer)
        self.assertEqual(feed.revisions.count(), 2)
        client = self.client_class()
        client.force_login(self.newcomer)
        for path in (f"/runs/{feed.pk}", f"/runs/{feed.pk}/bench", f"/jobs/{job.pk}/cutting", f"/jobs/{job.pk}/space"):
            self.assertEqual(client.get(f"/api{path}").status_code, 200, path)
        revisions = client.get(f"/api/runs/{feed.pk}/revisions").json()
        self.assertEqual({one["saved_by"] for one in revisions}, {"lena", "ben"})
        log = unpack(opened(packed(self.crew, self.old)), self.elsewhere, self.newcomer)
        told = client.get("/api/log").json()
        self.assertEqual({line["by"] for line in told["lines"]}, {"ben"})
        self.assertEqual(len(told["lines"]), BendMade.objects.filter(stick__run__job=self.old).count())
        self.assertEqual(Stick.objects.filter(run__job=log).count(), Stick.objects.filter(run__job=self.old).count())

    def test_beside_the_old_one_a_piece_lies_on_the_rack_once(self):
        scraps = Scrap.objects.filter(crew=self.crew).count()
        data = packed(self.crew, self.job)
        said = look(opened(data), self.crew)
        self.assertEqual((said.scraps_here, said.people_away), (1, []))
        twin = unpack(opened(data), self.crew, self.lead)
        self.assertEqual(Scrap.objects.filter(crew=self.crew).count(), scraps)
        self.assertEqual(
            (Cut.objects.filter(bar__job=self.job).count(), Cut.objects.filter(bar__job=twin).count()), (1, 0)
        )
        self.assertEqual(Run.objects.filter(job=twin, live=True).get().saved_by, self.bender)

    def test_tags_and_shoes_that_others_have_here_are_called_otherwise(self):
        add_scrap(self.newcomer, ScrapIn(material="EMT", trade_size="1", length="30", count=3))
        add_shoe(self.newcomer, ShoeIn(name="Old faithful", trade_size="3/4", material="EMT", deduct="5", gain="3"))
        data = packed(self.crew, self.old)
        said = look(opened(data), self.elsewhere)
        [shoe] = said.shoes
        self.assertEqual((shoe.name, shoe.here, shoe.becomes), ("Old faithful", False, "Old faithful 2"))
        job = unpack(opened(data), self.elsewhere, self.newcomer)
        made = BendMade.objects.filter(stick__run__job=job).first()
        self.assertEqual((made.shoe_name, made.shoe.name, made.shoe.deduct), ("Old faithful 2", "Old faithful 2", 6))
        self.assertEqual({run.document["shoe"]["name"] for run in job.runs.all()}, {"Old faithful 2"})
        # Read in once more it is there already, just so.
        self.assertEqual([one.here for one in look(opened(packed(self.elsewhere, job)), self.elsewhere).shoes], [True])
        shed = packed(self.crew, self.job)
        tags = look(opened(shed), Crew.objects.get(pk=self.elsewhere.pk)).tags
        self.assertIn("S1", tags)
        unpack(opened(shed), self.elsewhere, self.newcomer)
        [scrap] = Scrap.objects.filter(crew=self.elsewhere, trade_size="3/4")
        self.assertEqual((scrap.tag, scrap.length, scrap.reservation.job.name), (tags["S1"], 80, "Shed"))
        add_scrap(self.newcomer, ScrapIn(material="EMT", trade_size="1", length="30", count=9))

    def test_the_same_gives_the_same_and_each_part_is_as_open_as_it_is_said_to_be(self):
        data = packed(self.crew, self.job)
        self.assertEqual(records(data), records(packed(self.crew, self.job)))
        with zipfile.ZipFile(io.BytesIO(data)) as plain:
            listed = json.loads(plain.read("manifest.json"))["files"]
            self.assertEqual({*plain.namelist()}, {*listed, "manifest.json"})
            for path, said in listed.items():
                self.assertEqual(sha256(plain.read(path)).hexdigest(), said["sha256"])
            self.assertEqual(
                json.loads(plain.read("runs/001 Feed north.json")), Run.objects.get(pk=self.feed.pk).document
            )
            self.assertIn(b"90 up", plain.read("notes/001 Feed north.txt"))


def rewritten(data, change):
    """An archive with members changed, its manifest made anew for them."""
    with zipfile.ZipFile(io.BytesIO(data)) as plain:
        members = {path: plain.read(path) for path in plain.namelist()}
    manifest = json.loads(members.pop("manifest.json"))
    change(members)
    manifest["files"] = {path: {"length": len(one), "sha256": sha256(one).hexdigest()} for path, one in members.items()}
    return zipped({"manifest.json": json.dumps(manifest).encode(), **members})


def zipped(members):
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w", zipfile.ZIP_DEFLATED) as plain:
        for path, content in members.items():
            plain.writestr(path, content)
    return made.getvalue()


class SpoiledArchives(PackedCrew):
    """Files that somebody changed: told, and nothing of them is kept."""

    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        cls.data = packed(cls.crew, cls.job)

    def refused(self, data):
        before = [Run.objects.count(), Shoe.objects.count(), Bar.objects.count()]
        with self.assertRaises(UnreadableArchive) as caught:
            unpack(opened(data), self.elsewhere, self.newcomer)
        self.assertEqual([Run.objects.count(), Shoe.objects.count(), Bar.objects.count()], before)
        return str(caught.exception)

    def test_rows_that_no_such_row_can_be_are_told_by_line_and_field(self):
        for table, field, value, says in (
            ("runs", "document", {"steps": 3}, "records/runs.jsonl:1: document"),
            ("runs", "status", "gone", "none of the choices"),
            ("runs", "job", 7, "names row 7"),
            ("runs", "job", None, "is missing"),
            ("runs", "color", "red", "no such field"),
            ("runs", "version", -1, "version"),
            ("runs", "saved_at", "yesterday", "saved_at"),
            ("runs", "begun", [{"what": "all"}], "begun"),
            ("boxes", "place", {"along": "x"}, "place"),
            ("scraps", "length", "long", "length"),
            ("cuts", "bar", [1], "is no number"),
            ("jobs", "name", "x" * 81, "80"),
        ):
            with self.subTest(field, value=value):

                def change(members, table=table, field=field, value=value):
                    path = f"records/{table}.jsonl"
                    first, *others = members[path].split(b"\n")
                    row = json.dumps({**json.loads(first), field: value}).encode()
                    members[path] = b"\n".join([row, *others])

                self.assertIn(says, self.refused(rewritten(self.data, change)))

    def test_what_contradicts_itself_changes_nothing(self):
        def change(members):
            members["records/cuts.jsonl"] *= 2

        self.assertIn("contradicts itself", self.refused(rewritten(self.data, change)))

    def test_what_is_no_archive_is_not_whole_or_was_changed_is_told(self):
        def lost(members):
            members["photos/1.jpg"] = b"no photo"

        for data, says in (
            (b"PK\x03\x04 and no more", "no zip"),
            (self.data[:-100], "no zip"),
            (zipped({"a.txt": b"a"}), "no manifest"),
            (zipped({"manifest.json": b"{}"}), "no manifest"),
            (rewritten(self.data, lost), "is no photo"),
        ):
            with self.subTest(says):
                self.assertIn(says, self._told(data))
        with zipfile.ZipFile(io.BytesIO(self.data)) as plain:
            members = {path: plain.read(path) for path in plain.namelist()}
        self.assertIn("changed or damaged", self.refused(zipped({**members, "records/runs.jsonl": b"{}"})))
        self.assertIn("not what its manifest lists: more", self._told(zipped({**members, "more": b""})))

    def _told(self, data):
        try:
            return self.refused(data)
        except UnreadableArchive as error:
            return str(error)

    def test_a_zip_bomb_is_refused_before_it_is_unpacked(self):
        bomb = zipped({"manifest.json": b"{}", **{f"{n}": bytes(40 * 2**20) for n in range(3)}})
        with patch("server.exchange.archive.container.MOST_UNPACKED", 100 * 2**20):
            self.assertIn("larger than 100 MB", self._told(bomb))
        with patch("server.exchange.archive.container.MOST_MEMBERS", 3):
            self.assertIn("more than 3 members", self._told(bomb))
        # One that says that it is small gives no more than it says.
        large = rewritten(self.data, lambda members: members.update({"notes/x.txt": bytes(40 * 2**20)}))
        lying = large.replace(struct.pack("<I", 40 * 2**20), struct.pack("<I", 40))
        self.assertIn("notes/x.txt in the archive cannot be read", self._told(lying))

    def test_hundreds_of_broken_files_are_read_or_told(self):
        luck = random.Random(5)
        for _ in range(300):
            data = bytearray(self.data)
            for _ in range(luck.randint(1, 6)):
                data[luck.randrange(len(data))] = luck.randrange(256)
            with suppress(UnreadableArchive):
                archive = opened(bytes(data))
                archive.check()
                check_rows(archive)

        def change(members):
            path = luck.choice([one for one in members if one.startswith("records/") and members[one]])
            text = bytearray(members[path])
            for _ in range(luck.randint(1, 3)):
                text[luck.randrange(len(text))] = luck.choice(b'"{}[]:,0-1xnt\\ ')
            members[path] = bytes(text)

        for _ in range(200):
            with suppress(UnreadableArchive):
                check_rows(opened(rewritten(self.data, change)))
