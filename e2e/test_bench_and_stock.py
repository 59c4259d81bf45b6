from playwright.sync_api import expect

from conduit.plan import make_plan
from e2e.support import PHONE, Journey, field, saved
from server.demo.scene import RUNS
from server.stock.models import Scrap


class Bench(Journey):
    def setUp(self):
        super().setUp()
        self.pieces = make_plan(RUNS[0], with_order=True).pieces
        self.acts = [(act, bend, use) for piece in self.pieces for act, bend, use in self.made(piece)]

    def made(self, piece):
        """Each act of a piece's order with its bend and mark."""
        for act in piece.order.acts:
            for number, use in zip(act.bends, act.uses, strict=True):
                yield act, next(bend for bend in piece.bends if bend.number == number), use

    def open_bench(self, **more):
        page = self.open_run(**more)
        page.get_by_role("link", name="Bench").click()
        return page

    def test_bend_after_bend_on_a_phone(self):
        page = self.open_bench(size=PHONE)
        bends = [bend for piece in self.pieces for bend in piece.bends]
        self.go_through(page, [(bend, bend.use, bend.turn, bend.checks) for bend in bends])
        wide = page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, PHONE["width"])

    def test_bend_after_bend_in_the_proposed_order(self):
        page = self.open_bench()
        page.get_by_role("radio", name="Proposed order").click()
        self.go_through(page, [(bend, use, act.turn_says, act.checks) for act, bend, use in self.acts])

    def go_through(self, page, wanted):
        """One bend a screen, each with its mark, how to turn the pipe, and what must then read."""
        for bend, use, turn, checks in wanted:
            card = page.get_by_role("region", name=f"Bend {bend.number}", exact=True)
            expect(card.get_by_test_id("mark")).to_have_text(use.at.reads)
            expect(card.get_by_text(turn)).to_be_visible()
            for check in checks:
                expect(card.get_by_text(check.says)).to_be_visible()
            button = page.get_by_role("button", name="Next bend")
            if bend is not wanted[-1][0]:
                self.assertGreaterEqual(button.bounding_box()["height"], 48)
                button.click()
        expect(page.get_by_role("button", name="Next bend")).to_be_disabled()

    def test_a_saddles_centre_comes_first_and_says_why(self):
        page = self.open_bench(name="Glaze store feed")
        page.get_by_role("radio", name="Proposed order").click()
        expect(page.get_by_role("region", name="Bend 2", exact=True)).to_be_visible()
        first = make_plan(RUNS[4], with_order=True).pieces[0].order.acts
        listed = page.get_by_role("region", name="Piece 1").get_by_role("button").all_inner_texts()
        order = [int(text.split("\n")[1]) for text in listed]
        self.assertEqual(order, [act.bends[0] for act in first])
        self.assertLess(order.index(2), order.index(1))
        self.assertLess(order.index(2), order.index(3))
        outer = next(act for act in first if act.bends == [1])
        page.get_by_role("region", name="Piece 1").get_by_role("button").nth(order.index(1)).click()
        for reason in outer.reasons:
            expect(page.get_by_role("region", name="Bend 1", exact=True)).to_contain_text(reason)

    def test_another_reference_and_hook_move_the_mark(self):
        page = self.open_bench()
        page.get_by_role("radio", name="Star").click()
        page.get_by_role("radio", name="Hook B").click()
        wanted = next(m for m in self.pieces[0].bends[0].marks if (m.reference, m.hook) == ("star", "B"))
        expect(page.get_by_test_id("mark")).to_have_text(wanted.at.reads)

    def test_the_card_prints_every_bend(self):
        page = self.open_bench()
        expect(page.get_by_test_id("mark")).to_be_visible()
        page.emulate_media(media="print")
        for bend in [bend for piece in self.pieces for bend in piece.bends]:
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
