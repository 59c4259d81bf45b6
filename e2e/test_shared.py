"""A run that goes from one program to another: as a field note by the system's share sheet, and back as a new run."""

from urllib.parse import quote

from playwright.sync_api import expect

from e2e.support import PHONE, Journey, until
from server.jobs.models import Run

# A letter O where a nought is meant.
NOTE = """run Riser
pipe 1 EMT
start box J4, right
9O up, back at 40
end box J5, at 30
"""


class Shared(Journey):
    def test_a_note_that_is_shared_to_the_program_begins_a_run(self):
        page = self.window(size=PHONE, touched=True)
        page.goto(f"{self.live_server_url}/shared?title=Riser&text={quote(NOTE)}")
        expect(page.get_by_text("Line 4")).to_be_visible()
        begin = page.get_by_role("button", name="Kiln room fit-out")
        expect(begin).to_be_disabled()
        note = page.get_by_role("textbox", name="The note")
        expect(note).to_have_value(NOTE)
        note.fill(NOTE.replace("9O", "90"))
        begin.tap()
        expect(page.get_by_role("list", name="Steps of the run")).to_be_visible()
        run = Run.objects.latest("pk")
        self.assertEqual([one["kind"] for one in run.document["steps"]], ["bend"])
        self.assertEqual((run.name, run.document["trade_size"]), ("Riser", "1"))

    def test_a_run_is_shared_as_its_note_by_the_systems_sheet(self):
        page = self.window()
        page.context.add_init_script("navigator.share = async (told) => { window.told = told; };")
        page.reload()
        page.get_by_role("link", name="Kiln 2 feed").click()
        page.get_by_role("button", name="Field note").click()
        expect(page.get_by_role("textbox", name="The run as a field note")).to_contain_text("offset")
        page.get_by_role("button", name="Share", exact=True).click()
        until(page, lambda: page.evaluate("window.told"))
        told = page.evaluate("window.told")
        self.assertEqual(told["title"], "Kiln 2 feed")
        self.assertIn("offset", told["text"])
