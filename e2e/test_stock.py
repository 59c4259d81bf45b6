from playwright.sync_api import expect

from e2e.support import Journey
from server.stock.models import Scrap


class Stock(Journey):
    def open_stock(self):
        page = self.window()
        page.get_by_role("link", name="Stock and cut list").click()
        expect(page.get_by_role("heading", name="Cut list")).to_be_visible()
        return page

    def test_a_scrap_added_is_used_and_one_taken_is_not(self):
        page = self.open_stock()
        sticks = page.get_by_role("region", name="Stick")
        expect(sticks.first).to_be_visible()
        before = sticks.count()
        page.get_by_label("Length").fill("106 1/4")
        page.get_by_role("combobox", name="Size of the scrap").click()
        page.get_by_role("option", name="1/2", exact=True).click()
        page.get_by_role("button", name="Add").click()
        expect(page.get_by_role("region", name="S10, 106 1/4")).to_be_visible()
        expect(sticks).to_have_count(before - 1)
        page.get_by_role("button", name="Take S10 off the rack").click()
        expect(sticks).to_have_count(before)
        page.get_by_role("button", name="Put back").click()
        expect(sticks).to_have_count(before - 1)

    def test_a_length_that_cannot_be_read_is_told_and_kept(self):
        page = self.open_stock()
        page.get_by_label("Length").fill("7 1/0")
        page.get_by_role("button", name="Add").click()
        expect(page.get_by_role("alert")).to_contain_text("nothing can be divided by 0")
        expect(page.get_by_label("Length")).to_have_value("7 1/0")

    def test_two_people_cannot_take_the_same_scrap(self):
        mine, theirs = self.open_stock(), self.open_stock()
        theirs.get_by_role("button", name="Take S1 off the rack").click()
        expect(theirs.get_by_text("S1 (41 3/8) taken")).to_be_visible()
        mine.get_by_role("button", name="Take S1 off the rack").click()
        expect(mine.get_by_text("S1 is no longer on the rack")).to_be_visible()
        self.assertEqual(Scrap.objects.exclude(taken_at=None).count(), 1)
