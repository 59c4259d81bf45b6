import json
import re

from django.conf import settings as django_settings
from hypothesis import HealthCheck, given, seed, settings
from playwright.sync_api import expect

from conduit.answers import QUESTIONS, answer_text
from conduit.bending import Bencher, BendAsMade
from conduit.notes import read_note
from conduit.tables import DEFAULT_LIMITS
from conduit.tests.support import runs
from e2e.on_device import BEGINNING, OnDevice
from e2e.support import Journey, enter, expect_plan_of, field, kept, saved, screen, until
from server.bench.models import BendMade, Stick
from server.jobs.models import Run

LIMITS = DEFAULT_LIMITS.model_dump_json()
DIST = django_settings.WEB_DIST
# Asks a worker with the core as the page does.
ASK = """async ([file, folder, asked]) => {
  const worker = new Worker(file, { type: "module" });
  const next = () => new Promise((told) => { worker.onmessage = ({ data }) => told(data); });
  const ready = next();
  worker.postMessage({ folder });
  await ready;
  const told = [];
  for (const one of asked) {
    const answer = next();
    worker.postMessage({ id: told.length, ...one });
    told.push(await answer);
  }
  worker.terminate();
  return told;
}"""


def examples():
    """The runs that are shipped as examples."""
    for file in sorted((django_settings.ROOT / "examples").iterdir()):
        text = file.read_text()
        yield json.loads(text) if file.suffix == ".json" else read_note(text).document


def random_runs(count):
    found = []

    @seed(35)
    @settings(max_examples=count, deadline=None, database=None, suppress_health_check=list(HealthCheck))
    @given(runs())
    def draw(raw):
        found.append(raw)

    draw()
    return found[:count]


def asked_of(document):
    """Every question that can be asked of a document."""
    note = json.loads(answer_text("note/write", json.dumps({"document": document}), LIMITS, "en")[1])["text"]
    steps = len(document.get("steps", []))
    plan = Bencher(document).plan
    marks = [{"at": mark.use.at.reads} for piece in plan.pieces for mark in piece.bends] if plan.makeable else []
    given_to = {
        "ways": {"step": max(0, steps - 1)},
        "pipe-rack/ways": {"step": 0},
        "closing": {"legs": ["end.at"]},
        "check-marks": {"marks": marks},
        "note/read": {"text": note},
        "cut-list": {"runs": [{"key": "1", "name": "Feed", "document": document}]},
        "bench": {"acts": [{"key": "1", "kind": "bent", "piece": 1, "bend": 1, "angle": 88}]},
        "compare": {"mine": document, "theirs": {**document, "name": "Another"}},
    }
    for question in QUESTIONS:
        yield question, {"document": document, **given_to.get(question, {})}


class OnThisDevice(OnDevice):
    def test_a_run_is_planned_on_without_a_network(self):
        page = self.window(installed=True)
        self.fetch_the_core(page)
        run = next(one for one in Run.objects.all() if one.name == "Kiln 2 feed")
        page.goto(f"{self.live_server_url}/runs/{run.pk}/layout")
        expect_plan_of(page, run.document)
        self.cut_off(page)
        field(page, "Step 1, measure").fill("41 3/4")
        steps = [{**run.document["steps"][0], "at": "41 3/4"}, *run.document["steps"][1:]]
        expect_plan_of(page, {**run.document, "steps": steps})
        page.context.set_offline(False)
        saved(page)
        run.refresh_from_db()
        self.assertEqual(run.document["steps"][0]["at"], "41 3/4")

    def test_a_layout_opens_without_a_network_and_what_is_typed_is_saved_later(self):
        page = self.with_all_runs()
        run = next(one for one in Run.objects.all() if one.name == "Wedging table outlet")
        page.context.set_offline(True)
        page.goto(f"{self.live_server_url}/runs/{run.pk}/layout")
        self.cut_off(page)
        expect_plan_of(page, run.document)
        field(page, "Step 1, measure").fill("41 3/4")
        changed = {**run.document, "steps": [{**run.document["steps"][0], "at": "41 3/4"}, *run.document["steps"][1:]]}
        expect_plan_of(page, changed)
        page.reload()
        self.cut_off(page)
        expect_plan_of(page, changed)
        page.get_by_role("button", name="Field note").click()
        expect(page.get_by_role("textbox", name="The run as a field note")).to_contain_text("41 3/4")
        page.context.set_offline(False)
        saved(page)
        run.refresh_from_db()
        self.assertEqual(run.document, changed)

    def test_a_run_is_begun_without_a_network_and_sent_once_there_is_one(self):
        page = self.with_all_runs()
        before = Run.objects.count()
        document = self.begin_here(page)
        here = page.url
        # It is opened again from the list, the page loaded anew.
        page.goto(self.live_server_url)
        page.get_by_role("link", name="Basement pump").click()
        self.cut_off(page)
        expect_plan_of(page, document)
        page.goto(self.live_server_url)
        row = page.get_by_role("link", name="Basement pump")
        expect(row).to_contain_text("only on this device")
        page.context.set_offline(False)
        expect(row).not_to_contain_text("only on this device")
        self.assertEqual(Run.objects.count(), before + 1)
        run = Run.objects.latest("pk")
        self.assertEqual([step["kind"] for step in run.document["steps"]], [step["kind"] for step in document["steps"]])
        page.goto(here)
        expect(page).to_have_url(re.compile(f"/runs/{run.pk}/layout"))
        expect_plan_of(page, run.document)

    def test_a_bench_never_opened_is_made_here_and_a_bad_bend_is_corrected(self):
        page = self.with_all_runs()
        run = next(one for one in Run.objects.all() if one.name == "Wedging table outlet")
        document = run.document
        page.context.set_offline(True)
        page.goto(f"{self.live_server_url}/runs/{run.pk}/bench")
        self.cut_off(page)
        sheet = Bencher(document).sheet(1)
        self.cut(page, sheet)
        bend = sheet.bends[0]
        expect(screen(page, bend.number).get_by_test_id("mark")).to_have_text(bend.use.at.reads)
        off = bend.angle - 7
        enter(page, f"{off:g}")
        after = Bencher(document).sheet(1, made=[BendAsMade(bend=bend.number, angle=off)])
        self.assertIsNotNone(after.correction)
        told = page.get_by_role("region", name="Correction")
        expect(told).to_contain_text(f"{after.correction.rebends[0].by_reads}", timeout=BEGINNING)
        # The browser is closed and opened again: all of it is still there, and made anew.
        page.reload()
        self.cut_off(page)
        expect(told).to_be_visible(timeout=BEGINNING)
        self.assertEqual(BendMade.objects.filter(stick__run=run).count(), 0)
        page.context.set_offline(False)
        until(page, lambda: BendMade.objects.filter(stick__run=run, angle=off).count() == 1)
        expect(page.get_by_text("All sent")).to_be_visible()
        expect(told).to_be_visible()
        self.assertIsNotNone(run.sticks.get().cut_at)

    def test_a_run_begun_here_is_cut_and_bent_before_the_server_has_it(self):
        page = self.with_all_runs()
        document = self.begin_here(page)
        page.get_by_role("link", name="Bench").click()
        self.cut(page, Bencher(document).sheet(1))
        # What is typed afterwards is another version: the stick is what was cut.
        page.get_by_role("link", name="Layout").click()
        field(page, "Step 1, measure").fill("41 3/4")
        expect(page.get_by_text("Kept on this device")).to_be_visible()
        before = Run.objects.count()
        page.context.set_offline(False)
        until(page, lambda: Stick.objects.filter(cut_at__isnull=False).exists())
        [stick] = Stick.objects.filter(cut_at__isnull=False)
        run = stick.run
        self.assertEqual((Run.objects.count(), run.name), (before + 1, "Basement pump"))
        until(page, lambda: Run.objects.get(pk=run.pk).document["steps"][0]["at"] == "41 3/4")
        self.assertEqual(stick.document["steps"][0]["at"], document["steps"][0]["at"])

    def test_a_reading_that_is_being_typed_stays_while_the_run_gets_its_number(self):
        page = self.with_all_runs()
        document = self.begin_here(page)
        page.get_by_role("link", name="Bench").click()
        self.cut(page, Bencher(document).sheet(1))
        page.get_by_label("finder reads").fill("44")
        page.context.set_offline(False)
        expect(page).to_have_url(re.compile(r"/runs/\d+/bench"))
        expect(page.get_by_text("All sent")).to_be_visible()
        expect(page.get_by_label("finder reads")).to_have_value("44")
        page.get_by_role("button", name="Enter it").click()
        until(page, lambda: BendMade.objects.filter(angle=44).exists())

    def test_a_plain_cut_list_stands_in_for_the_planned_one(self):
        page = self.with_all_runs()
        kept(page, '"scraps"')
        [job] = {run.job for run in Run.objects.all() if run.name == "Wedging table outlet"}
        page.context.set_offline(True)
        page.goto(f"{self.live_server_url}/jobs/{job.pk}/stock")
        self.cut_off(page)
        plain = page.get_by_role("region", name="Plain cut list")
        expect(plain.get_by_text("Nothing is reserved")).to_be_visible(timeout=BEGINNING)
        expect(plain.get_by_role("region", name="3/4 EMT plan")).to_be_visible()
        for run in job.runs.filter(status="laid out"):
            expect(plain.get_by_text(run.name).first).to_be_attached()

    def test_the_server_need_not_answer_in_time(self):
        page = self.window(installed=True)
        self.fetch_the_core(page)
        page.goto(f"{self.live_server_url}/runs/{Run.objects.first().pk}/layout")
        self.cut_off(page)
        page.context.set_offline(False)
        page.route(re.compile("/api/(plan|remedies)"), lambda route: None)
        field(page, "Step 1, measure").fill("41 3/4")
        document = {**Run.objects.first().document}
        document["steps"] = [{**document["steps"][0], "at": "41 3/4"}, *document["steps"][1:]]
        expect_plan_of(page, document)

    def test_it_can_be_taken_off_again(self):
        page = self.window(installed=True)
        self.fetch_the_core(page)
        page.get_by_role("button", name="Take it off this device").click()
        expect(page.get_by_role("button", name="Fetch it")).to_be_visible()
        page.reload()
        expect(page.get_by_role("button", name="Fetch it")).to_be_visible()

    def test_what_cannot_be_fetched_whole_is_told_and_fetched_on(self):
        page = self.window(installed=False)
        page.goto(f"{self.live_server_url}/devices")
        page.route("**/core.zip", lambda route: route.abort())
        page.get_by_role("button", name="Fetch it").click()
        expect(page.get_by_text("It could not be fetched whole.")).to_be_visible()
        page.unroute("**/core.zip")
        page.get_by_role("button", name="Fetch the rest").click()
        expect(page.get_by_text("It is here, of the version that you use.")).to_be_visible()


class TheSameAnswers(Journey):
    """What the core answers in the browser and on the server: floats to 1e-9, all else equal."""

    def same(self, one, other, place):
        if isinstance(one, float) and isinstance(other, float | int):
            self.assertAlmostEqual(one, other, 9, place)
        elif isinstance(one, dict) and isinstance(other, dict):
            self.assertEqual(one.keys(), other.keys(), place)
            for key, value in one.items():
                self.same(value, other[key], f"{place}.{key}")
        elif isinstance(one, list) and isinstance(other, list):
            self.assertEqual(len(one), len(other), place)
            for number, pair in enumerate(zip(one, other, strict=True)):
                self.same(*pair, f"{place}.{number}")
        else:
            self.assertEqual(one, other, place)

    def test_of_every_example_and_three_hundred_random_runs(self):
        asked = [one for document in examples() for one in asked_of(document)]
        asked += [("plan", {"document": document}) for document in random_runs(300)]
        texts = [(question, json.dumps(what), LIMITS, "en") for question, what in asked]
        [worker] = (DIST / "assets").glob("worker-*.js")
        folder = json.loads((DIST.parent / "core.json").read_text())["folder"]
        questions = [dict(zip(("question", "given", "limits", "language"), one, strict=True)) for one in texts]
        told = self.window().evaluate(ASK, [f"/assets/{worker.name}", folder, questions])
        for text, here in zip(texts, told, strict=True):
            found, there = answer_text(*text)
            self.assertEqual(here.get("found"), found, (text, here))
            self.same(json.loads(there), json.loads(here["text"]), text[0])
