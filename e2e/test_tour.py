"""The five minutes and the views of the manual, sentence by sentence."""

from playwright.sync_api import expect

from e2e.support import Journey, field
from server.demo.scene import PASSWORD


class FiveMinutes(Journey):
    whole = True

    def test_they_are_as_they_are_told(self):
        page = self.outside(self.live_server_url)
        page.get_by_label("Name").fill("dana")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("link", name="Kiln 2 feed").click()
        self.walk(page)
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_role("region", name="Cut and mark")).to_be_visible()
        page.get_by_role("link", name="Stock").click()
        expect(page.get_by_text("it cannot be done with fewer", exact=False).first).to_be_visible()
        expect(page.get_by_role("button", name="Reserve and cut this")).to_be_visible()
        page.get_by_role("link", name="Log").click()
        expect(page.get_by_role("heading", name="Log")).to_be_visible()
        self.others(page)

    def walk(self, page):
        row = page.get_by_role("listitem").filter(has=field(page, "Step 1, rise"))
        expect(row).to_contain_text("done by")
        sticks = page.get_by_role("region", name="Sticks")
        expect(sticks.get_by_text("Piece 1")).to_be_visible()
        field(page, "Step 1, angle").fill("60")
        field(page, "Step 1, rise").fill("2")
        expect(row.get_by_role("alert")).to_contain_text("too tight at 60°")
        expect(row.get_by_role("alert").get_by_role("button").first).to_be_visible()
        expect(page.get_by_text("when the run could still be bent")).to_be_visible()
        expect(page.get_by_text("Piece 1", exact=True)).to_be_visible()
        for _ in range(2):
            page.keyboard.press("Control+z")
        expect(page.get_by_text("Can be bent", exact=True)).to_be_visible()
        page.get_by_role("radio", name="From above").click()
        page.get_by_role("button", name="Step 1: Other ways, arithmetic").click()
        ways = page.get_by_role("region", name="Other ways, and the arithmetic")
        for says in ("By the card", "Exact, on this shoe", "One degree off moves the far end"):
            expect(ways.get_by_text(says).first).to_be_visible()
        for panel, title in (("Field note", "Field note"), ("Check marks", "Check my marks"), ("History", "History")):
            page.get_by_role("button", name=panel).click()
            expect(page.get_by_role("heading", name=title)).to_be_visible()

    def others(self, page):
        page.get_by_role("link", name="all jobs").click()
        page.get_by_role("link", name="Kiln 4 feed", exact=False).first.click()
        page.get_by_role("button", name="Parallel runs", exact=True).click()
        page.get_by_role("link", name="Lay them out on the floor").click()
        expect(page.get_by_text("squared line").first).to_be_visible()
        for path in ("shoes", "limits", "people"):
            page.goto(f"{self.live_server_url}/{path}")
            expect(page.get_by_role("heading", level=1)).to_be_visible()
