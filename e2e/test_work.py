"""Dates and people of a job's runs, the crew's prices and figures, and what a job takes."""

from datetime import date, timedelta
from pathlib import Path
from tempfile import TemporaryDirectory

from playwright.sync_api import expect

from e2e.support import Journey
from server.accounts.models import Crew
from server.jobs.models import Job, Run

PRICES = "what,trade size,price\nstick,3/4,14.20\nstick,1/2,9\nstick,1,21\nconnector,,1.5\nstrap,,0.4\n"


class WorkOfAJob(Journey):
    def setUp(self):
        super().setUp()
        self.job = Job.objects.get(name="Kiln room fit-out")
        # As a crew that has said nothing yet.
        Crew.objects.update(prices=[], labour={})
        Run.objects.update(due=None, assigned_to=None)

    def open_work(self, **more):
        page = self.window(**more)
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/work")
        expect(page.get_by_role("heading", name="What it takes")).to_be_visible()
        return page

    def test_several_runs_get_a_date_and_a_person_at_once(self):
        page = self.open_work()
        for name in ("Kiln 2 feed", "Glaze store feed"):
            page.get_by_role("checkbox", name=f"Choose {name}").check()
        late = date.today() - timedelta(days=2)
        page.get_by_label("Due on").fill(f"{late}")
        page.get_by_role("combobox", name="For whom").click()
        page.get_by_role("option", name="Marek Olin").click()
        page.get_by_role("button", name="Set for all chosen").click()
        row = page.get_by_role("row").filter(has_text="Kiln 2 feed")
        expect(row.get_by_text("late")).to_be_visible()
        expect(row.get_by_text("Marek Olin")).to_be_visible()
        expect(page.get_by_role("row").filter(has_text="Marek Olin")).to_have_count(2)
        due = {run.name: run.due for run in Run.objects.filter(job=self.job)}
        self.assertEqual((due["Kiln 2 feed"], due["Kiln 3 feed"]), (late, None))
        # It stands in the list of jobs too.
        page.get_by_role("link", name="Jobs", exact=True).click()
        expect(page.get_by_text("for Marek Olin")).to_have_count(2)

    def test_prices_and_figures_make_an_estimate_that_adds_up(self):
        page = self.open_work()
        expect(page.get_by_text("no labour figures yet")).to_be_visible()
        page.get_by_role("link", name="Prices and labour figures").click()
        page.get_by_label("Bends").fill("4")
        page.get_by_label("Cuts").fill("3")
        page.get_by_label("What an hour costs").fill("60")
        page.get_by_role("button", name="Keep these figures").click()
        with TemporaryDirectory() as folder:
            bad, good = Path(folder) / "bad.csv", Path(folder) / "good.csv"
            bad.write_text(PRICES + "strap,,many\n")
            good.write_text(PRICES)
            reads = page.get_by_label("Read a list (CSV) in its place")
            reads.set_input_files(bad)
            expect(page.get_by_text("Line 7: “many” is no price.")).to_be_visible()
            expect(page.get_by_text("0 prices", exact=True)).to_be_visible()
            reads.set_input_files(good)
            expect(page.get_by_text("5 prices were taken.")).to_be_visible()
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/work")
        cells = page.get_by_role("region", name="What it takes").get_by_role("table").first.locator("tbody tr")
        expect(cells.first).to_be_visible()
        expect(page.get_by_text("What has a price")).to_be_visible()
        # What was kept of the page is shown at once, and what has a price by now a moment later.
        page.wait_for_load_state("networkidle")
        lines = [row.locator("td").all_inner_texts() for row in cells.all()]
        summed = sum(float(total.replace(",", "")) for _, _, total in lines if total != "no price")
        materials = page.locator("tfoot td").last.inner_text()
        self.assertAlmostEqual(float(materials.replace(",", "")), summed, delta=0.011)
        bends, cuts = (
            int(page.get_by_role("row").filter(has_text=name).locator("strong").inner_text())
            for name in ("Bends", "Cuts")
        )
        labour = 4 * bends + 3 * cuts
        total = page.get_by_test_id("total").inner_text()
        self.assertIn(f"{summed + labour:,.2f}", total)
