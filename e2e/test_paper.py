"""What is printed: a run on one sheet, all cards of a job at once, and a card that knows later that it is old."""

import re

from playwright.sync_api import expect

from e2e.support import Journey
from server.jobs.actions import save_run
from server.jobs.models import Run


class OnPaper(Journey):
    def test_a_run_sheet_has_its_picture_sentences_and_marks(self):
        page = self.open_run()
        page.get_by_role("link", name="Run sheet").click()
        sheet = page.get_by_role("main")
        expect(sheet.get_by_role("heading", name="Kiln 2 feed")).to_be_visible()
        expect(sheet.get_by_role("img", name="Kiln 2 feed, to scale")).to_be_visible()
        expect(sheet.get_by_text("90 right, back at 71 1/2")).to_be_visible()
        expect(sheet.get_by_role("row").nth(1)).to_be_visible()
        page.emulate_media(media="print")
        expect(page.get_by_role("button", name="Print")).to_be_hidden()

    def test_all_cards_of_a_job_are_one_print_and_an_old_one_says_so(self):
        page = self.window()
        page.get_by_role("button", name="Kiln room fit-out: more").click()
        page.get_by_role("menuitem", name="All bench cards").click()
        expect(page.get_by_role("button", name=re.compile("Print [0-9]+ cards"))).to_be_enabled()
        card = page.get_by_role("region", name="Card of stick 1").filter(has_text="Kiln 2 feed, stick 1")
        code = re.search("card ([0-9a-f]{6})", card.inner_text())[1]
        run = next(one for one in Run.objects.all() if one.document["name"] == "Kiln 2 feed")
        bench = f"{self.live_server_url}/runs/{run.pk}/bench/1?card={code}"
        page.goto(bench)
        expect(page.get_by_role("list", name="Work on stick 1")).to_be_visible()
        expect(page.get_by_text(f"Card {code} is old.")).to_be_hidden()
        first, turn, *others = run.document["steps"]
        save_run(run.saved_by, run.pk, run.version, {**run.document, "steps": [first, {**turn, "at": "75"}, *others]})
        page.goto(bench)
        expect(page.get_by_text(f"Card {code} is old.")).to_be_visible()
