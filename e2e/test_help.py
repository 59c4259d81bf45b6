"""Help in place: on a first visit to each view, until it is left; and whenever it is asked for."""

from playwright.sync_api import expect

from e2e.support import Journey


class FirstVisit(Journey):
    first_visit = True

    def test_notes_go_along_the_first_walk_to_the_bench(self):
        page = self.window()
        page.get_by_role("complementary", name="Help: Jobs").get_by_role("button", name="I see").click()
        expect(page.get_by_role("complementary", name="Help")).to_have_count(0)
        page.get_by_role("link", name="Kiln 2 feed").click()
        note = page.get_by_role("complementary", name="Help: Walk: measure the run")
        expect(note.get_by_text("When it can be bent, go to Bench.")).to_be_visible()
        page.get_by_role("link", name="Bench").click()
        page.get_by_role("complementary", name="Help: Bench").get_by_role("button", name="No such notes").click()
        page.get_by_role("link", name="Stock").click()
        expect(page.get_by_role("heading", name="Cut list")).to_be_visible()
        expect(page.get_by_role("complementary", name="Help")).to_have_count(0)
        page.get_by_role("button", name="Dana Wexcombe").click()
        page.get_by_role("menuitem", name="What is done here").click()
        expect(page.get_by_role("complementary", name="Help: Stock")).to_be_visible()
        page.reload()
        expect(page.get_by_role("heading", name="Cut list")).to_be_visible()
        expect(page.get_by_role("complementary", name="Help")).to_have_count(0)
