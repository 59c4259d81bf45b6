from playwright.sync_api import expect

from conduit.plan import make_plan
from e2e.support import PHONE, Journey, field, saved
from server.demo.scene import RUNS
from server.stock.models import Scrap


class Bench(Journey):
    def setUp(self):
        super().setUp()
        self.bends = [bend for piece in make_plan(RUNS[0]).pieces for bend in piece.bends]

    def open_bench(self, **more):
        page = self.open_run(**more)
        page.get_by_role("link", name="Bench").click()
        return page

    def test_bend_after_bend_on_a_phone(self):
        page = self.open_bench(size=PHONE)
        for bend in self.bends:
            card = page.get_by_role("region", name=f"Bend {bend.number}", exact=True)
            expect(card.get_by_test_id("mark")).to_have_text(bend.use.at.reads)
            expect(card.get_by_text(bend.turn)).to_be_visible()
            for check in bend.checks:
                expect(card.get_by_text(check.says)).to_be_visible()
            button = page.get_by_role("button", name="Next bend")
            if bend is not self.bends[-1]:
                self.assertGreaterEqual(button.bounding_box()["height"], 48)
                button.click()
        expect(page.get_by_role("button", name="Next bend")).to_be_disabled()
        wide = page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, PHONE["width"])

    def test_another_reference_and_hook_move_the_mark(self):
        page = self.open_bench()
        page.get_by_role("radio", name="Star").click()
        page.get_by_role("radio", name="Hook B").click()
        wanted = next(m for m in self.bends[0].marks if (m.reference, m.hook) == ("star", "B"))
        expect(page.get_by_test_id("mark")).to_have_text(wanted.at.reads)

    def test_the_card_prints_every_bend(self):
        page = self.open_bench()
        page.emulate_media(media="print")
        for bend in self.bends:
            expect(page.get_by_role("cell", name=bend.use.at.reads, exact=True)).to_be_visible()
        expect(page.get_by_role("button", name="Next bend")).to_be_hidden()

    def test_an_impossible_run_is_not_bent(self):
        page = self.open_run()
        field(page, "Step 1, angle").fill("60")
        field(page, "Step 1, rise").fill("2")
        saved(page)
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_role("heading", name="Nothing to bend yet")).to_be_visible()
        expect(page.get_by_role("alert")).to_contain_text("run into each other")


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
