"""Journeys with the network cut, on a device that plans by itself."""

from playwright.sync_api import expect

from conduit.notes import written_note
from e2e.support import Journey, expect_plan_of, kept, kept_ones, until
from server.demo.scene import RUNS
from server.jobs.models import Run

# Milliseconds.
BEGINNING = 120_000


class OnDevice(Journey):
    """What is done on such a device in many journeys."""

    def cut_off(self, page):
        """Take the network away, and wait until the device plans by itself, which takes a loud machine its time."""
        page.context.set_offline(True)
        expect(page.get_by_text("Runs are planned on this device.")).to_be_visible(timeout=BEGINNING)

    def fetch_the_core(self, page):
        page.goto(f"{self.live_server_url}/devices")
        page.get_by_role("button", name="Fetch it").click()
        expect(page.get_by_text("It is here, of the version that you use.")).to_be_visible()

    def with_the_list(self):
        """A window on a device that opens the program and its list of jobs without a network; the core is not on it."""
        page = self.window(installed=True)
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        kept(page, "Kiln room fit-out")
        return page

    def with_all_runs(self):
        """The same on a device with the core and the crew's runs."""
        page = self.with_the_list()
        self.fetch_the_core(page)
        page.goto(self.live_server_url)
        until(page, lambda: len(kept_ones(page)) >= Run.objects.count())
        return page

    def begin_here(self, page):
        """Measure a run without a network, as a field note; gives its document."""
        page.context.set_offline(True)
        page.reload()
        page.get_by_role("button", name="Measure a new run").first.click()
        self.cut_off(page)
        expect(page.get_by_role("heading", name="Layout")).to_be_visible()
        page.get_by_role("button", name="Field note").click()
        note = page.get_by_role("textbox", name="The run as a field note")
        expect(note).to_contain_text("straps tight")
        note.click()
        page.keyboard.press("Control+A")
        document = {**RUNS[1], "name": "Basement pump"}
        page.keyboard.insert_text(written_note(document).text)
        expect_plan_of(page, document)
        expect(page.get_by_text("Kept on this device")).to_be_visible()
        return document

    def cut(self, page, sheet):
        expect(page.get_by_test_id("cut")).to_have_text(sheet.cut.reads, timeout=BEGINNING)
        page.get_by_role("button", name="Cut and marked").click()
