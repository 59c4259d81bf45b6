"""A phone under a thumb: figures typed with the tape pad, at 390 × 844."""

from playwright.sync_api import expect

from e2e.support import PHONE, Journey, field, saved
from e2e.test_look import AXE, VIOLATIONS
from server.jobs.models import Run

# Every key is as large as a finger in a glove wants it.
GLOVE = 48
SMALL_KEYS = """(least) => [...document.querySelectorAll("section[aria-label^='Tape pad'] button")]
  .map((key) => [key.getAttribute("aria-label"), key.getBoundingClientRect()])
  .filter(([, { width, height }]) => width < least || height < least)
  .map(([label]) => label)"""


class UnderAThumb(Journey):
    def open_on_a_phone(self):
        return self.open_run(size=PHONE, touched=True)

    def pad(self, page):
        return page.get_by_role("region", name="Tape pad")

    def tap(self, page, *keys):
        for key in keys:
            self.pad(page).get_by_role("button", name=key, exact=True).tap()

    def test_figures_are_typed_with_the_pad_while_picture_and_verdict_stay_in_sight(self):
        page = self.open_on_a_phone()
        field(page, "Step 1, rise").tap()
        expect(self.pad(page)).to_be_visible()
        self.tap(page, "3", "1/2", "Add", "2", "Take away", "1/4")
        expect(field(page, "Step 1, rise")).to_have_value("3 1/2 + 2 less 1/4")
        expect(self.pad(page).get_by_text("= 5 1/4")).to_be_visible()
        top = self.pad(page).bounding_box()["y"]
        for seen in (page.get_by_role("region", name="Picture"), page.get_by_text("Can be bent")):
            box = seen.first.bounding_box()
            self.assertLessEqual(box["y"] + box["height"], top)
        self.tap(page, "Next")
        expect(field(page, "Step 1, angle")).to_be_focused()
        self.tap(page, "22 1/2°")
        expect(field(page, "Step 1, angle")).to_have_value("22 1/2")
        saved(page)
        step = Run.objects.get(document__name="Kiln 2 feed").document["steps"][0]
        self.assertEqual((step["rise"], step["angle"]), ("3 1/2 + 2 less 1/4", "22 1/2"))

    def test_its_keys_are_large_and_nothing_is_against_it(self):
        page = self.open_on_a_phone()
        page.evaluate(AXE.read_text())
        for label in ("Step 1, rise", "Step 1, angle"):
            field(page, label).tap()
            expect(self.pad(page)).to_contain_text(label)
            self.assertEqual(page.evaluate(SMALL_KEYS, GLOVE), [])
            self.assertEqual(page.evaluate(VIOLATIONS), [])
        before = self.pad(page).get_by_role("button", name="Next", exact=True).bounding_box()["x"]
        self.tap(page, "For the left hand")
        self.assertLess(self.pad(page).get_by_role("button", name="Next", exact=True).bounding_box()["x"], before)

    def test_letters_are_there_when_they_are_wanted(self):
        page = self.open_on_a_phone()
        field(page, "Step 1, rise").tap()
        self.tap(page, "Keyboard with letters")
        expect(self.pad(page)).to_have_count(0)
        expect(field(page, "Step 1, rise")).to_be_focused()
        expect(field(page, "Step 1, rise")).to_have_attribute("inputmode", "text")
