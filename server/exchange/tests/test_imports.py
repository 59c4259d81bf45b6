"""Files read in over the API: sent in parts, looked at, taken into a job once; a bad one changes nothing."""

import io
import json
from base64 import b64encode
from uuid import uuid4

import ezdxf

from conduit.tests.support import ninety
from formats.exporting import export_run
from formats.sources import RunSource, Wanted
from server.exchange.models import Import, ImportedRun, State
from server.exchange.reading import read
from server.exchange.schemas import A_PART
from server.jobs.models import Job, Run
from server.jobs.space import place_box
from server.tests.support import RUN, Api, CrewTestCase

POINTS = b"run,x,y,z\nFeed,0,0,0\nFeed,0,40,0\nFeed,30,40,0\nTail,0,0,0\nTail,x,0,0\n"


class Imports(CrewTestCase):
    def sent(self, data, name="points.csv", api=None):
        """A file that was sent whole; what is told of it then."""
        api = api or self.api
        begun = api.send("POST", "/imports", {"name": name, "length": len(data)}).json()
        for number, at in enumerate(range(0, len(data), A_PART)):
            self.part(begun["id"], number, data[at : at + A_PART], api)
        return api.send("GET", f"/imports/{begun['id']}").json()

    def part(self, file, number, data, api=None):
        return (api or self.api).send(
            "POST", f"/imports/{file}/parts", {"number": number, "data": b64encode(data).decode()}
        )

    def take(self, file, runs, key=None, **more):
        return self.api.send("POST", f"/imports/{file}/take", {"job_id": self.job.pk, "runs": runs, **more}, key)

    def test_points_are_looked_at_and_become_runs_once(self):
        file = self.sent(POINTS)
        self.assertEqual((file["state"], file["says"]), ("done", ""))
        [feed] = file["runs"]
        self.assertEqual((feed["name"], feed["bends"], feed["stops"]), ("Feed", 1, []))
        self.assertIn("right", feed["note"])
        self.assertEqual([one["where"] for one in file["passed_over"]], ["line 6", "Tail"])
        self.assertEqual(Run.objects.count(), 1)
        picture = self.api.send("GET", f"/imports/{file['id']}/runs/1/picture")
        self.assertTrue(picture.content.startswith(b"<?xml"))
        key = uuid4()
        taken = self.take(file["id"], [1], key)
        self.assertEqual(taken.json(), self.take(file["id"], [1], key).json())
        [run_id] = taken.json()["run_ids"]
        self.assertEqual(Run.objects.get(pk=run_id).document["name"], "Feed")
        self.assertEqual(Run.objects.count(), 2)
        self.assertEqual(self.take(file["id"], [1]).status_code, 409)
        other = self.sent(POINTS)["id"]
        self.assertEqual(self.take(other, [1], job_id=None).status_code, 422)
        new = self.take(other, [1], job_id=None, job_name=" Barn ").json()["job_id"]
        self.assertEqual(Job.objects.get(pk=new).name, "Barn")
        self.assertEqual(self.api.send("GET", f"/imports/{file['id']}").json()["runs"][0]["run_id"], run_id)

    def test_a_job_comes_with_its_boxes_and_one_that_stands_elsewhere_stays(self):
        place_box(self.lead, self.job.pk, {"name": "KP", "along": "1", "up": "2"}, None)
        boxes = [{"name": "kp", "along": "5", "up": "2"}, {"name": "Q", "along": "9", "up": "2"}, {"along": "9"}]
        job = {"name": "Shed", "boxes": boxes, "runs": [{"document": RUN}, {"document": {"name": "none"}}]}
        file = self.sent(json.dumps(job).encode(), "job.json")
        self.assertEqual((file["boxes"], len(file["runs"])), (2, 1))
        self.assertEqual([one["where"] for one in file["passed_over"]], ["runs.2", "box"])
        self.assertEqual(self.take(file["id"], [1]).json()["boxes_left"], ["kp"])
        self.assertEqual(set(self.job.boxes.values_list("place__along", flat=True)), {"1", "9"})

    def test_what_a_drawing_does_not_say_is_asked(self):
        drawing, written = ezdxf.new(units=0), io.StringIO()
        drawing.modelspace().add_polyline3d([(0, 0, 0), (0, 0, 1000), (700, 0, 1000)])
        drawing.write(written)
        file = self.sent(written.getvalue().encode(), "pipe.dxf")
        self.assertEqual((file["state"], file["asks"], file["runs"]), ("failed", "unit", []))
        meant = {"unit": "mm", "trade_size": "1", "material": "rigid"}
        file = self.api.send("POST", f"/imports/{file['id']}/read", meant).json()
        [run] = file["runs"]
        self.assertEqual((file["asks"], file["meant"]["unit"], run["bends"]), ("", "mm", 1))
        self.assertEqual((run["trade_size"], run["material"]), ("1", "rigid"))
        anew = self.api.send("POST", f"/imports/{file['id']}/read", {**meant, "unit": "in"}).json()
        self.assertNotEqual(anew["runs"][0]["reads"], run["reads"])

    def test_a_file_comes_in_parts_in_any_order_and_one_that_is_short_is_not_read(self):
        table = export_run(RunSource("Feed", RUN), Wanted("csv", "bends"))
        data = table + b"\n" * (A_PART + 5 - len(table))
        begun = self.api.send("POST", "/imports", {"name": "bends.csv", "length": len(data)}).json()
        self.assertEqual(self.part(begun["id"], 1, data[A_PART:]).json()["state"], "coming")
        self.assertEqual(self.part(begun["id"], 0, data[:9]).status_code, 422)
        self.assertEqual(self.part(begun["id"], 2, b"a").status_code, 422)
        self.assertEqual(self.take(begun["id"], [1]).status_code, 409)
        done = self.part(begun["id"], 0, data[:A_PART]).json()
        self.assertEqual((done["state"], [run["bends"] for run in done["runs"]]), ("done", [1]))
        self.assertEqual(self.part(begun["id"], 0, data[:A_PART]).json()["state"], "done")

    def test_bad_files_are_told_and_change_nothing(self):
        for data, says in (
            (b"\xff\xfe\x00", "neither a drawing nor text"),
            (b'{"steps": ', "cannot be read at line 1"),
            (b"  0\nSECTION\n  2\nENTITIES\n", "no line in it"),
            (b"[" * 100_000, "cannot be read"),
        ):
            with self.subTest(says):
                file = self.sent(data, "bad")
                self.assertEqual((file["state"], says in file["says"]), ("failed", True), file["says"])
        self.assertEqual((Run.objects.count(), Job.objects.count(), ImportedRun.objects.count()), (1, 1, 0))
        long = {**RUN, "steps": [ninety("20", "up")] * 3000}
        file = self.sent(json.dumps({"runs": [{"document": long}]}).encode(), "long.json")
        self.assertEqual((file["runs"], len(file["passed_over"])), ([], 1))

    def test_a_file_is_its_senders_alone_and_a_viewer_reads_none_in(self):
        file = self.sent(POINTS)
        for other in (self.bender, self.stranger):
            self.assertEqual(Api(other).send("GET", f"/imports/{file['id']}").status_code, 404)
            answer = Api(other).send("POST", f"/imports/{file['id']}/take", {"job_id": self.job.pk, "runs": [1]})
            self.assertEqual(answer.status_code, 404)
        begun = Api(self.viewer).send("POST", "/imports", {"name": "a", "length": 1})
        self.assertEqual(begun.status_code, 403)
        theirs = self.sent(POINTS, api=Api(self.stranger))
        answer = Api(self.stranger).send("POST", f"/imports/{theirs['id']}/take", {"job_id": self.job.pk, "runs": [1]})
        self.assertEqual((answer.status_code, Run.objects.count()), (404, 1))

    def test_one_whose_reader_is_gone_is_read_anew_and_is_read_once(self):
        file = self.sent(POINTS)
        Import.objects.update(state=State.RUNNING, heard_at="2020-01-01T00:00:00Z")
        told = self.api.send("GET", f"/imports/{file['id']}").json()
        self.assertEqual((told["state"], "failed" in told["says"]), ("failed", True))
        self.assertEqual(self.api.send("POST", f"/imports/{file['id']}/read", {}).json()["state"], "done")
        read(file["id"])
        self.assertEqual(ImportedRun.objects.count(), 1)

    def test_a_job_goes_out_whole_and_comes_in_elsewhere(self):
        asked = self.api.send("POST", f"/jobs/{self.job.pk}/exports", {"to": "zip"}).json()
        self.assertEqual((asked["state"], asked["says"], asked["file_name"]), ("done", "", "shed.zip"))
        data = self.api.send("GET", f"/exports/{asked['id']}/file").getvalue()
        self.assertEqual(len(data), asked["length"])
        there = Api(self.stranger)
        file = self.sent(data, "shed.zip", there)
        self.assertEqual((file["archive"]["of"], file["archive"]["counts"]["runs"]), ("job", 1))
        taken = there.send("POST", f"/imports/{file['id']}/unpack", {"name": "Shed, theirs"}).json()
        self.assertEqual((taken["state"], taken["says"]), ("taken", ""))
        self.assertEqual(there.send("GET", f"/jobs/{taken['job_id']}").json()["name"], "Shed, theirs")
        again = there.send("POST", f"/imports/{file['id']}/unpack", {"name": "Once more"})
        self.assertEqual((again.status_code, Job.objects.filter(crew=self.stranger.membership.crew).count()), (409, 1))

    def test_what_a_crew_has_is_for_its_lead_and_a_broken_archive_is_told(self):
        self.assertEqual(Api(self.bender).send("POST", "/crew/exports", {"to": "zip"}).status_code, 403)
        asked = self.api.send("POST", "/crew/exports", {"to": "zip"}).json()
        data = self.api.send("GET", f"/exports/{asked['id']}/file").getvalue()
        self.assertEqual(self.api.send("POST", "/crew/exports", {"to": "pdf"}).status_code, 422)
        mine = self.sent(data, "ours.zip", Api(self.bender))
        answer = Api(self.bender).send("POST", f"/imports/{mine['id']}/unpack", {})
        self.assertEqual((mine["archive"]["with_settings"], answer.status_code), (False, 403))
        broken = self.sent(data[:-30], "ours.zip")
        self.assertEqual((broken["state"], "no zip" in broken["says"]), ("failed", True))
        self.assertEqual(self.take(mine["id"], [1]).status_code, 404)
