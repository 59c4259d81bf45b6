"""Help in place: on a first visit to each view, until it is left, and whenever it is asked for; and the tour."""

from playwright.sync_api import expect

from e2e.support import Journey


class FirstVisit(Journey):
    first_visit = True

    def test_notes_go_along_the_first_walk_to_the_bench(self):
        page = self.window()
        page.get_by_role("complementary", name="Help: Jobs").get_by_role("button", name="Got it").click()
        expect(page.get_by_role("complementary", name="Help")).to_have_count(0)
        page.get_by_role("link", name="Kiln 2 feed").click()
        note = page.get_by_role("complementary", name="Help: Layout: measure the run")
        expect(page.get_by_text("Can be bent", exact=True)).to_be_visible()
        self.assertLess(note.bounding_box()["height"], 60, "one line, until more is asked for")
        note.get_by_role("button", name="More").click()
        expect(note.get_by_text("When it can be bent, go to Bench.")).to_be_visible()
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_role("list", name="Work on stick 1")).to_be_visible()
        tips = page.get_by_role("complementary", name="Help: Bench")
        tips.get_by_role("button", name="More").click()
        tips.get_by_role("button", name="No more tips").click()
        page.get_by_role("link", name="Stock").click()
        expect(page.get_by_role("heading", name="Cut list")).to_be_visible()
        expect(page.get_by_role("complementary", name="Help")).to_have_count(0)
        page.get_by_role("button", name="Dana Wexcombe").click()
        page.get_by_role("menuitem", name="What this page is for").click()
        expect(page.get_by_role("complementary", name="Help: Stock")).to_be_visible()
        page.reload()
        expect(page.get_by_role("heading", name="Cut list")).to_be_visible()
        expect(page.get_by_role("complementary", name="Help")).to_have_count(0)

    def test_the_tour_leads_from_a_figure_to_the_saw(self):
        page = self.window()
        page.get_by_role("complementary", name="Help: Jobs").get_by_role("button", name="Show me around").click()
        tour = page.get_by_role("complementary", name="The tour")
        self.pointed(page, "1 of 8").click()
        self.pointed(page, "2 of 8").fill("6")
        page.keyboard.press("Enter")
        self.pointed(page, "3 of 8")
        tour.get_by_role("button", name="Next").click()
        page.reload()
        self.pointed(page, "4 of 8").click()
        self.pointed(page, "5 of 8").click()
        self.pointed(page, "6 of 8").get_by_role("textbox", name="Angle finder reads, degrees").fill("90")
        page.get_by_role("button", name="Enter it").click()
        expect(tour).to_contain_text("7 of 8")
        page.get_by_role("link", name="Layout").click()
        expect(tour).to_contain_text("The tour goes on in Bench.")
        page.get_by_role("link", name="Bench").click()
        self.pointed(page, "7 of 8").click()
        expect(self.pointed(page, "8 of 8")).to_have_text("Reserve and cut this")
        tour.get_by_role("button", name="Next").click()
        tour.get_by_role("button", name="Done").click()
        expect(tour).to_have_count(0)
        self.assertEqual(page.locator("[data-pointed]").count(), 0)

    def test_the_tour_asks_nothing_of_a_viewer_that_a_viewer_may_not_do(self):
        page = self.window("ivy")
        page.get_by_role("complementary", name="Help: Jobs").get_by_role("button", name="Show me around").click()
        tour = page.get_by_role("complementary", name="The tour")
        self.pointed(page, "1 of 4").click()
        self.pointed(page, "2 of 4")
        tour.get_by_role("button", name="Next").click()
        self.pointed(page, "3 of 4").click()
        expect(tour).to_contain_text("4 of 4")
        for word in ("Type", "Cut", "enter"):
            expect(tour).not_to_contain_text(word)

    def pointed(self, page, stop):
        """What the tour points at, once it has come to that stop."""
        expect(page.get_by_role("complementary", name="The tour")).to_contain_text(stop)
        expect(page.locator("[data-pointed]")).to_be_in_viewport()
        return page.locator("[data-pointed]")
