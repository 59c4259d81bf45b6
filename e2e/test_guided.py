"""A run measured on a phone with a thumb, one thing a screen: from signing in to the marks, at 390 × 844."""

from playwright.sync_api import expect

from e2e.support import PHONE, Journey, drawn, field, saved
from e2e.test_look import AXE, VIOLATIONS
from server.jobs.models import Run

# All that a finger does from signing in to the marks of an offset, two 90s and a saddle.
MOST_TOUCHES = 60


class Guided(Journey):
    def setUp(self):
        super().setUp()
        self.taps, self.letters = 0, 0

    def tap(self, target):
        target.tap()
        self.taps += 1

    def type(self, target, text):
        self.tap(target)
        target.press_sequentially(text)
        self.letters += len(text)

    def choose(self, page, *names):
        for name in names:
            self.tap(self.guide(page).get_by_role("button", name=name).first)

    def pad(self, page, *keys):
        for key in keys:
            self.tap(page.get_by_role("region", name="Tape pad").get_by_role("button", name=key, exact=True))

    def guide(self, page):
        return page.get_by_role("region", name="One thing at a time")

    def begin(self):
        page = self.outside(self.live_server_url, size=PHONE, touched=True)
        self.type(page.get_by_label("Name"), "dana")
        self.type(page.get_by_label("Password"), "three-cone-six")
        self.tap(page.get_by_role("button", name="Sign in"))
        self.tap(page.get_by_role("button", name="New run").first)
        expect(self.guide(page)).to_contain_text("Which way does the pipe set off?")
        return page

    def test_an_offset_two_90s_and_a_saddle_take_few_touches_to_their_marks(self):
        page = self.begin()
        self.choose(page, "right", "Offset to another level", "out")
        self.pad(page, "3", "1/2", "Next", "Next", "3", "8", "Next")
        self.choose(page, "90 at a wall", "up")
        self.pad(page, "7", "1", "1/2", "Next")
        self.choose(page, "90 at a wall", "left")
        self.pad(page, "6", "0", "Next")
        self.choose(page, "Three-bend saddle", "out")
        self.pad(page, "1", "3/4", "Next", "Next", "Next", "4", "3", "Next")
        self.choose(page, "End of run")
        self.pad(page, "6", "0", "Next")
        expect(self.guide(page)).to_contain_text("Everything is measured")
        saved(page)
        self.tap(page.get_by_role("link", name="To the marks"))
        expect(page.get_by_role("region", name="Cut and mark")).to_be_visible()
        self.assertLessEqual(self.taps + self.letters, MOST_TOUCHES, (self.taps, self.letters))
        offset, first, second, saddle = Run.objects.latest("pk").document["steps"]
        self.assertEqual(
            (offset["toward"], offset["rise"], offset["angle"], offset["at"]), ("out", "3 1/2", "30", "38")
        )
        self.assertEqual([(one["turn"], one["at"]) for one in (first, second)], [("up", "71 1/2"), ("left", "60")])
        self.assertEqual((saddle["over"]["height"], saddle["at"]), ("1 3/4", "43"))

    def test_picture_verdict_and_the_way_to_all_steps_stay_in_sight_above_the_pad(self):
        page = self.begin()
        page.evaluate(AXE.read_text())
        self.choose(page, "right", "Offset to another level", "out")
        pad = page.get_by_role("region", name="Tape pad")
        expect(pad).to_contain_text("rise")
        drawn(page)
        top = pad.bounding_box()["y"]
        for seen in (
            page.get_by_role("region", name="Picture"),
            page.get_by_text("Still to measure"),
            page.get_by_role("button", name="All steps"),
            field(page, "Step 1, rise"),
        ):
            box = seen.first.bounding_box()
            self.assertGreaterEqual(box["y"], -1)
            self.assertLessEqual(box["y"] + box["height"], top + 1)
        self.assertEqual(page.evaluate(VIOLATIONS), [])
        page.get_by_role("button", name="All steps").tap()
        expect(page.get_by_role("list", name="Steps of the run")).to_be_visible()
        page.get_by_role("button", name="One at a time").tap()
        expect(field(page, "Step 1, rise")).to_be_focused()

    def test_one_goes_back_to_what_was_met_and_takes_another_in_its_place(self):
        page = self.begin()
        self.choose(page, "right", "Offset to another level", "out", "Back", "Back")
        expect(self.guide(page).get_by_role("button", name="Offset to another level")).to_have_attribute(
            "aria-pressed", "true"
        )
        page.evaluate(AXE.read_text())
        self.assertEqual(page.evaluate(VIOLATIONS), [])
        self.choose(page, "Box offset", "in")
        expect(self.guide(page)).to_contain_text("Step 1: Box offset")
        saved(page)
        self.assertEqual([one["kind"] for one in Run.objects.latest("pk").document["steps"]], ["box_offset"])

    def test_a_run_that_is_whole_opens_as_its_list(self):
        page = self.open_run(size=PHONE, touched=True)
        expect(page.get_by_role("list", name="Steps of the run")).to_be_visible()
