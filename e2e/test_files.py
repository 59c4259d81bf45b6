"""A run and a job given out: asked for on their page, made, and saved to the disk."""

import io
import json

import ezdxf
from playwright.sync_api import expect
from pypdf import PdfReader

from e2e.support import Journey


class Files(Journey):
    def saved_as(self, page, name):
        with page.expect_download() as download:
            page.get_by_role("button", name=name).click()
        expect(page.get_by_role("status").filter(has_text="is made.").first).to_be_visible()
        return download.value.suggested_filename, download.value.path().read_bytes()

    def test_a_run_is_saved_as_paper_and_as_a_drawing(self):
        page = self.open_run()
        page.get_by_role("link", name="Run sheet").click()
        page.get_by_role("link", name="Save as PDF, DXF, IFC").click()
        page.get_by_role("radio", name="A4").click()
        name, made = self.saved_as(page, "Bench cards")
        self.assertEqual(name, "kiln-2-feed-cards.pdf")
        card = PdfReader(io.BytesIO(made)).pages[0]
        self.assertEqual(round(card.mediabox.width), 595)
        self.assertIn("Kiln 2 feed, stick 1 of 2", card.extract_text())
        name, made = self.saved_as(page, "Drawing, DXF")
        drawn = ezdxf.read(io.StringIO(made.decode()))
        self.assertEqual(len(drawn.modelspace().query('ARC[layer=="CENTRELINE"]')), 4)
        expect(page.get_by_role("link", name="Save kiln-2-feed-cards.pdf")).to_be_visible()

    def test_a_job_is_saved_from_its_menu_and_what_cannot_be_is_told(self):
        page = self.window()
        page.get_by_role("button", name="Kiln room fit-out: more").click()
        page.get_by_role("menuitem", name="Save as PDF, DXF, IFC").click()
        name, made = self.saved_as(page, "Job, JSON")
        self.assertEqual(name, "kiln-room-fit-out.json")
        self.assertIn("Kiln 2 feed", [run["document"]["name"] for run in json.loads(made)["runs"]])
        page.route("**/api/jobs/*/exports", lambda route: route.abort())
        page.get_by_role("button", name="Cut list").click()
        expect(page.get_by_role("alert")).to_be_visible()
