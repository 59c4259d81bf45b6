"""Files of runs and jobs over the API: made as asked, fetched by who asked, told where there is none."""

import io
import json

import ezdxf
from pypdf import PdfReader

from server.exchange.making import make
from server.exchange.models import Export, State
from server.jobs.actions import add_run
from server.jobs.space import place_box
from server.tests.support import RUN, Api, CrewTestCase, taken_plan


class Exports(CrewTestCase):
    def ask(self, path, to, api=None, **more):
        return (api or self.api).send("POST", f"{path}/exports", {"to": to, **more})

    def fetched(self, path, to, **more):
        asked = self.ask(path, to, **more).json()
        told = self.api.send("GET", f"/exports/{asked['id']}").json()
        self.assertEqual((told["state"], told["says"]), ("done", ""))
        answer = self.api.send("GET", f"/exports/{asked['id']}/file")
        self.assertEqual(answer["Content-Length"], str(told["length"]))
        self.assertIn(told["file_name"], answer["Content-Disposition"])
        return answer.getvalue()

    def test_a_run_comes_as_it_is_saved(self):
        path = f"/runs/{self.feed.pk}"
        self.assertEqual(json.loads(self.fetched(path, "json")), RUN)
        drawn = ezdxf.read(io.StringIO(self.fetched(path, "dxf").decode()))
        self.assertEqual(len(drawn.modelspace().query('ARC[layer=="CENTRELINE"]')), 1)
        self.assertIn(b"reference", self.fetched(path, "csv", part="marks"))
        marks = Export.objects.get(part="marks")
        answer = self.api.send("GET", f"/exports/{marks.pk}/file")
        self.assertEqual((marks.file_name, answer["Content-Type"]), ("feed-marks.csv", "text/csv"))

    def test_cards_carry_what_the_bench_has_with_a_code_that_opens_it(self):
        bench = self.api.send("GET", f"/runs/{self.feed.pk}/bench").json()
        said = PdfReader(io.BytesIO(self.fetched(f"/runs/{self.feed.pk}", "pdf", part="cards"))).pages
        text = " ".join(page.extract_text() for page in said)
        [stick] = bench["sticks"]
        self.assertIn(f"card {stick['card']}", text)
        self.assertIn("Opens this stick", text)
        self.assertIn("save 1", text)
        for bend in stick["sheet"]["bends"]:
            self.assertIn(bend["use"]["at"]["reads"], text)

    def test_a_job_has_its_cuts_and_what_to_bring(self):
        taken_plan(self.lead, self.job)
        pdf = PdfReader(io.BytesIO(self.fetched(f"/jobs/{self.job.pk}", "pdf")))
        text = " ".join(page.extract_text() for page in pdf.pages)
        cutting = self.api.send("GET", f"/jobs/{self.job.pk}/cutting").json()
        for bar in cutting["taken"]["bars"]:
            for cut in bar["cuts"]:
                self.assertIn(cut["length"]["reads"], text)
        for line in cutting["order"]:
            self.assertIn(line["what"], text)

    def test_what_stands_nowhere_is_told_and_once_a_box_is_placed_it_comes(self):
        asked = self.ask(f"/jobs/{self.job.pk}", "ifc").json()
        self.assertEqual((asked["state"], asked["says"][:21]), ("failed", "No run of this job st"))
        self.assertEqual(self.api.send("GET", f"/exports/{asked['id']}/file").status_code, 409)
        add_run(self.lead, self.job.pk, {**RUN, "start": {**RUN["start"], "name": "KP"}})
        place_box(self.lead, self.job.pk, {"name": "KP", "along": "0", "up": "0"}, None)
        self.assertIn(b"IFCCABLECARRIERSEGMENT", self.fetched(f"/jobs/{self.job.pk}", "ifc"))

    def test_what_there_is_not_is_refused_with_what_there_is(self):
        refused = self.ask(f"/runs/{self.feed.pk}", "pdf", part="cuts")
        self.assertEqual((refused.status_code, list(refused.json()["places"])), (422, ["part"]))
        self.assertEqual(self.ask(f"/runs/{self.feed.pk}", "exe").status_code, 422)
        offered = self.api.send("GET", "/formats").json()
        self.assertIn({"to": "pdf", "of": "run", "parts": ["sheet", "cards", "floor"]}, offered)

    def test_a_file_is_its_askers_alone_and_of_ones_own_crew(self):
        asked = self.ask(f"/runs/{self.feed.pk}", "json").json()
        for other in (self.bender, self.stranger):
            for more in ("", "/file"):
                self.assertEqual(Api(other).send("GET", f"/exports/{asked['id']}{more}").status_code, 404)
        self.assertEqual(self.ask(f"/runs/{self.feed.pk}", "json", Api(self.stranger)).status_code, 404)
        self.assertEqual(self.ask(f"/runs/{self.feed.pk}", "json", Api(self.viewer)).status_code, 200)

    def test_in_spanish_it_is_spanish(self):
        wanted = {"to": "pdf", "part": "cards", "size": "A4"}
        asked = self.api.send("POST", f"/runs/{self.feed.pk}/exports", wanted, language="es").json()
        pdf = PdfReader(io.BytesIO(self.api.send("GET", f"/exports/{asked['id']}/file").getvalue()))
        self.assertIn("Escarie cada corte", pdf.pages[0].extract_text())

    def test_too_many_at_once_wait_and_one_that_was_begun_is_made_once(self):
        mine = {"crew": self.job.crew, "by": self.lead, "job": self.job, "run": self.feed, "to": "json", "size": "A4"}
        waiting = [Export.objects.create(**mine, language="en") for _ in range(3)]
        self.assertEqual(self.ask(f"/runs/{self.feed.pk}", "json").status_code, 429)
        for _ in range(2):
            make(waiting[0].pk)
        waiting[0].refresh_from_db()
        self.assertEqual((waiting[0].state, waiting[0].parts.count()), (State.DONE, 1))
        Export.objects.filter(pk=waiting[1].pk).update(state=State.RUNNING, heard_at="2020-01-01T00:00:00Z")
        self.assertEqual(self.api.send("GET", f"/exports/{waiting[1].pk}").json()["state"], "failed")

    def test_a_run_that_cannot_be_laid_out_says_so(self):
        bad = add_run(self.lead, self.job.pk, {"name": "No such pipe", "trade_size": "9"})
        told = self.ask(f"/runs/{bad.pk}", "dxf").json()
        self.assertEqual((told["state"], "no pipe to draw" in told["says"]), ("failed", True))
