"""Refreshes docs/screenshots from the demo: ./crelda test e2e.screenshots."""

from django.conf import settings
from playwright.sync_api import expect

from e2e.support import DESK, PHONE, Journey, enter, field, saved

FOLDER = settings.ROOT / "docs" / "screenshots"
SETTLE = 600


class Screenshots(Journey):
    whole = True

    def shoot(self, page, name):
        page.wait_for_timeout(SETTLE)
        page.screenshot(path=FOLDER / f"{name}.png")

    def test_views_at_a_desk(self):
        page = self.window(size=DESK)
        self.shoot(page, "jobs")
        page.get_by_role("link", name="Kiln 2 feed").click()
        field(page, "Step 1, rise").click()
        self.shoot(page, "layout")
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_test_id("cut")).to_be_visible()
        page.get_by_role("button", name="Cut and marked").click()
        page.get_by_role("button", name="Next bend").click()
        page.get_by_role("button", name="Next bend").click()
        page.get_by_role("radio", name="End of it").click()
        self.shoot(page, "bench")
        page.get_by_role("button", name="‹ Back").click()
        enter(page, 27)
        page.get_by_role("region", name="Correction").scroll_into_view_if_needed()
        page.mouse.wheel(0, 400)
        self.shoot(page, "bench-correction")
        page.get_by_role("link", name="Stock").click()
        expect(page.get_by_role("button", name="Reserve and cut this")).to_be_visible()
        self.shoot(page, "stock")

    def test_the_whole_job(self):
        page = self.window()
        job = page.locator("section").filter(has=page.get_by_role("heading", name="Kiln room fit-out"))
        job.get_by_role("link", name="Whole job").click()
        expect(page.locator("[data-drawn=solid]")).to_be_visible()
        self.shoot(page, "whole-job")

    def test_people_of_the_crew(self):
        page = self.window()
        page.goto(f"{self.live_server_url}/people")
        page.get_by_label("For whom").fill("Nora, from Monday on")
        page.get_by_role("button", name="Make the link").click()
        expect(page.get_by_role("textbox", name="The link")).to_be_visible()
        self.shoot(page, "people")

    def test_a_rack_and_a_sweep(self):
        page = self.window()
        page.get_by_role("link", name="Kiln 4 feed").click()
        page.get_by_role("button", name="Parallel runs", exact=True).click()
        expect(page.get_by_text("All 5 pipes, gaps kept")).to_be_visible()
        self.shoot(page, "rack")
        page.get_by_role("link", name="Lay them out on the floor").click()
        expect(page.get_by_role("region", name="Stick 2")).to_be_visible()
        page.get_by_role("region", name="Stick 2").evaluate("stick => stick.scrollIntoView()")
        self.shoot(page, "rack-floor")
        page.get_by_role("link", name="Crelda, all jobs").click()
        page.get_by_role("link", name="Booth light").click()
        page.get_by_role("link", name="Bench").click()
        page.get_by_role("button", name="Cut and marked").click()
        for reads in (10.5, 20.5):
            enter(page, reads)
        expect(page.get_by_role("region", name="Sweep").get_by_text("Shot 3 of 9")).to_be_visible()
        self.shoot(page, "bench-sweep")

    def test_walk_with_everything(self):
        page = self.open_run("Glaze store feed")
        page.get_by_role("radio", name="From above").click()
        page.get_by_role("button", name="Step 2: Other ways, arithmetic").click()
        expect(page.get_by_role("list", name="Ways to do it")).to_be_visible()
        self.shoot(page, "layout-ways")
        page.get_by_role("button", name="Close: Other ways").click()
        page.get_by_role("radio", name="Turn").click()
        page.wait_for_timeout(2 * SETTLE)
        self.shoot(page, "layout-turned")

    def test_walk_beside(self):
        page = self.open_run()
        page.get_by_role("button", name="Field note").click()
        expect(page.get_by_role("textbox", name="field note")).to_be_visible()
        self.shoot(page, "layout-note")
        page.get_by_role("button", name="Check marks").click()
        field(page, "Bend 1, mark laid").fill("27 3/16")
        field(page, "Bend 2, mark laid").fill("38 1/8")
        expect(page.get_by_text("not corrected for shrink")).to_be_visible()
        self.shoot(page, "layout-marks")

    def test_told_at_its_place(self):
        page = self.open_run("Vent hood switch")
        field(page, "Step 2, angle").fill("60")
        saved(page)
        self.shoot(page, "layout-impossible")

    def test_bench_in_a_glove(self):
        page = self.open_run("Vent hood switch", size=PHONE)
        page.get_by_role("link", name="Bench").click()
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_test_id("mark")).to_be_visible()
        self.shoot(page, "bench-phone")

    def test_shoes_and_log(self):
        page = self.window()
        page.get_by_role("link", name="Log").click()
        expect(page.get_by_role("table")).to_be_visible()
        self.shoot(page, "log")
        page.get_by_role("link", name="Shoes").click()
        page.get_by_role("region", name="Old faithful", exact=True).scroll_into_view_if_needed()
        self.shoot(page, "shoes")

    def test_measured_with_a_thumb(self):
        page = self.window(size=PHONE, touched=True)
        page.get_by_role("button", name="New run").first.tap()
        for choice in ("right", "Offset to another level", "out"):
            page.get_by_role("region", name="One thing at a time").get_by_role("button", name=choice).first.tap()
        pad = page.get_by_role("region", name="Tape pad")
        for key in ("3", "1/2", "Next", "Next", "3", "8", "1/4"):
            pad.get_by_role("button", name=key, exact=True).tap()
        saved(page)
        self.shoot(page, "measure-phone")
