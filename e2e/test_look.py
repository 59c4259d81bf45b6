"""What the eye and the hand need: sizes, contrast, names for screen readers, the keyboard alone."""

import re

from django.conf import settings
from playwright.sync_api import expect

from e2e.support import DESK, PHONE, TABLET, Journey, enter, field, marks, still

SMALLEST_TEXT = 14
FIGURE_CONTRAST = 7.0
THUMB = 48

SMALL_TEXTS = """() => {
  const found = [];
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walker.nextNode()) {
    const node = walker.currentNode, element = node.parentElement;
    if (!node.textContent.trim() || !element.checkVisibility()) continue;
    if (element.closest('.sr-only, .print\\\\:block')) continue;
    const scale = element.closest('svg')?.getScreenCTM?.()?.a ?? 1;
    const size = parseFloat(getComputedStyle(element).fontSize) * Math.min(scale, 1);
    if (size < %s - 0.01) found.push(`${size} ${node.textContent.trim().slice(0, 30)}`);
  }
  return found;
}"""

CONTRASTS = """(pairs) => {
  const style = getComputedStyle(document.documentElement);
  const light = (name) => {
    const hex = style.getPropertyValue(name).trim();
    const parts = [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255)
      .map((part) => (part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4));
    return 0.2126 * parts[0] + 0.7152 * parts[1] + 0.0722 * parts[2];
  };
  return pairs.map(([ink, ground]) => {
    const [a, b] = [light(ink), light(ground)].sort((x, y) => y - x);
    return (a + 0.05) / (b + 0.05);
  });
}"""

GROUNDS = ("--sheet", "--paper")
INKS = ("--ink", "--soft", "--accent", "--stop", "--good", "--caution")

UNNAMED = """() => [...document.querySelectorAll('input, button, [role=combobox], svg[role=img]')]
  .filter((one) => one.checkVisibility())
  .filter((one) => !(one.getAttribute('aria-label') || one.textContent.trim() || one.labels?.length))
  .map((one) => one.outerHTML.slice(0, 80))"""


AXE = settings.ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js"
VIOLATIONS = """async () => {
  const { violations } = await axe.run(document, { resultTypes: ['violations'] });
  return violations.flatMap((one) => one.nodes.map((node) => `${one.id}: ${node.html.slice(0, 120)}`));
}"""

FINGER = 44
TOO_SMALL = """(least) => [...document.querySelectorAll('button, [role=combobox], [role=radio], input, summary')]
  .filter((one) => one.checkVisibility() && !one.closest('.sr-only, [inert], .print\\\\:block'))
  .map((one) => [one, one.getBoundingClientRect()])
  .filter(([one, at]) => at.height < least - 0.5 && !['checkbox', 'file', 'hidden'].includes(one.type))
  .map(([one, at]) => `${Math.round(at.height)} ${one.outerHTML.slice(0, 90)}`)"""


class Look(Journey):
    def views(self, size):
        """Each main view in turn, with its name."""
        page = self.open_run(size=size)
        expect(marks(page)).to_be_visible()
        yield "layout", page
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_role("region", name=re.compile("^(Cut|Bend)"))).to_be_visible()
        page.goto(f"{page.url}?at=cut")
        expect(page.get_by_test_id("cut")).to_be_visible()
        yield "bench, cut", page
        page.get_by_role("button", name=re.compile("Cut and marked|On to the bends")).click()
        expect(page.get_by_test_id("mark")).to_be_visible()
        if page.get_by_role("form", name="As bent").is_visible():
            enter(page, 86)
        expect(page.get_by_role("region", name="Correction")).to_be_visible()
        yield "bench, out", page
        page.get_by_role("link", name="Stock").click()
        expect(page.get_by_role("heading", name="Cut list")).to_be_visible()
        expect(page.get_by_role("region", name="New stick 1,").first).to_be_visible()
        yield "stock", page
        page.get_by_role("link", name="all jobs").click()
        expect(page.get_by_role("heading", name="Jobs")).to_be_visible()
        yield "jobs", page
        page.get_by_role("button", name="Kiln room fit-out: more").click()
        page.get_by_role("menuitem", name="Save as PDF").click()
        expect(page.get_by_role("heading", name="Your files")).to_be_visible()
        yield "files", page
        page.goto(self.live_server_url)
        page.get_by_role("link", name="Log").click()
        expect(page.get_by_role("table")).to_be_visible()
        yield "log", page
        page.get_by_role("link", name="Shoes").click()
        page.get_by_role("button", name="Calibrate").last.click()
        expect(page.get_by_text("From the log").last).to_be_visible()
        yield "shoes", page
        page.goto(f"{self.live_server_url}/people")
        page.get_by_role("button", name="Make the link").click()
        expect(page.get_by_role("textbox", name="The link")).to_be_visible()
        yield "people", page
        page.goto(f"{self.live_server_url}/me")
        page.get_by_role("button", name="Ask for a code").click()
        expect(page.get_by_label("The code that it shows then")).to_be_visible()
        yield "me", page

    def test_each_view_is_legible_named_and_has_nothing_against_it(self):
        for size in (DESK, TABLET, PHONE):
            for name, page in self.views(size):
                with self.subTest(f"{name} {size['width']}"):
                    # What is not needed for the first picture is drawn a moment later.
                    expect(page.locator("h1:visible")).to_have_count(1)
                    self.assertEqual(page.evaluate(SMALL_TEXTS % SMALLEST_TEXT), [])
                    self.assertEqual(page.evaluate(UNNAMED), [])
                    self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), size["width"])
                    if size == PHONE:
                        self.assertEqual(page.evaluate(TOO_SMALL, FINGER), [])
                    for theme in ("light", "dark"):
                        page.evaluate(f"document.documentElement.dataset.theme = '{theme}'")
                        # Colours go over into each other.
                        still(page)
                        self.expect_nothing_against_it(page)

    def test_axe_finds_nothing_in_what_is_opened(self):
        page = self.open_run("Glaze store feed")
        for side in ("Field note", "Check marks", "History", "About", "Step 1: Other ways, arithmetic"):
            page.get_by_role("button", name=side).first.click()
            still(page)
            with self.subTest(side):
                self.expect_nothing_against_it(page)
        field(page, "Step 1, angle").fill("0")
        expect(page.get_by_text("Stops at step 1")).to_be_visible()
        self.expect_nothing_against_it(page)
        page.get_by_role("button", name="Dana Wexcombe").click()
        self.expect_nothing_against_it(page)
        page.get_by_role("menuitem", name="Show me around").click()
        expect(page.locator("[data-pointed]")).to_be_visible()
        self.expect_nothing_against_it(page)

    def test_what_is_chosen_shows_in_forced_colours(self):
        page = self.open_run()
        page.emulate_media(forced_colors="active")
        chosen, other = (page.get_by_role("radio", name=name) for name in ("Front", "From above"))
        lines = [one.evaluate("one => getComputedStyle(one).outlineStyle") for one in (chosen, other)]
        self.assertEqual(lines, ["solid", "none"])
        page.get_by_role("button", name="Field note").click()
        still(page)
        # The contrast is that of the person's own colours.
        self.expect_nothing_against_it(page, but="color-contrast")

    def expect_nothing_against_it(self, page, but=None):
        page.evaluate(AXE.read_text())
        found = page.evaluate(VIOLATIONS)
        self.assertEqual([one for one in found if not but or not one.startswith(but)], [])

    def test_figures_stand_out_in_daylight_and_in_basements(self):
        page = self.open_run()
        pairs = [[ink, ground] for ink in INKS for ground in GROUNDS]
        for theme in ("light", "dark"):
            page.evaluate(f"document.documentElement.dataset.theme = '{theme}'")
            for pair, contrast in zip(pairs, page.evaluate(CONTRASTS, pairs), strict=True):
                wanted = FIGURE_CONTRAST if pair[0] in ("--ink", "--soft", "--accent") else 6.5
                self.assertGreaterEqual(contrast, wanted, (theme, pair))

    def test_a_thumb_finds_everything_at_the_bench(self):
        page = self.open_bench(size=PHONE)
        page.get_by_role("button", name="Cut and marked").click()
        card = page.get_by_role("region", name=re.compile("^Bend \\d+$"))
        expect(card.get_by_test_id("mark")).to_be_visible()
        for button in [
            *card.get_by_role("button").all(),
            *card.get_by_role("radio").all(),
            *card.get_by_role("textbox").all(),
        ]:
            self.assertGreaterEqual(button.bounding_box()["height"], THUMB, button.inner_text())
        self.assertGreaterEqual(card.get_by_test_id("mark").bounding_box()["height"], 72)

    def test_a_run_is_measured_with_the_keyboard_alone(self):
        page = self.open_run("Wedging table outlet")
        expect(marks(page)).to_be_visible()
        page.get_by_label("Run name").focus()
        reached = set()
        for _ in range(30):
            page.keyboard.press("Tab")
            reached.add(page.evaluate("document.activeElement.getAttribute('aria-label')"))
        wanted = {
            "Trade size",
            "Shoe",
            "Start box",
            "Step 1, new heading",
            "Step 1, measure",
            "End, pipe end at",
            "Step 1: more",
        }
        self.assertLessEqual(wanted, reached)
        page.get_by_role("button", name="Add a bend or fitting").focus()
        page.keyboard.press("Enter")
        wanted = page.get_by_role("menuitem", name="Offset to another level")
        expect(wanted).to_be_visible()
        while not wanted.evaluate("item => item === document.activeElement"):
            page.keyboard.press("ArrowDown")
        page.keyboard.press("Enter")
        expect(field(page, "Step 2, rise")).to_be_visible()
        field(page, "Step 2, rise").focus()
        page.keyboard.type("3")
        page.keyboard.press("Enter")
        expect(field(page, "Step 2, angle")).to_be_focused()
        page.keyboard.press("ArrowDown")
        expect(field(page, "Step 2, angle")).to_have_value("22 1/2")
        page.keyboard.press("Enter")
        page.keyboard.type("25")
        expect(page.get_by_text("Can be bent")).to_be_visible()

    def test_what_moves_stands_still_for_those_who_ask(self):
        page = self.open_run()
        page.emulate_media(reduced_motion="reduce")
        moving = "getComputedStyle(document.querySelector('button')).transitionDuration"
        self.assertIn(page.evaluate(moving), ("0s", ""))


class Room(Journey):
    """Whatever opens over a view stays in the window, and all of it can be reached."""

    SIZES = ((1366, 768), (1280, 800), (820, 1180), (390, 844), (320, 480))

    def opened(self, page):
        """Each thing that opens, by its role, once it is open."""
        page.get_by_role("button", name="Add a bend or fitting").click()
        yield "the menu of steps", page.get_by_role("menu")
        page.get_by_role("button", name="Step 1: more").click()
        yield "a step's menu", page.get_by_role("menu")
        page.get_by_role("button", name="Dana Wexcombe").click()
        yield "the person's menu", page.get_by_role("menu")
        page.get_by_role("combobox").first.click()
        yield "a list", page.get_by_role("listbox")
        page.keyboard.press("?")
        yield "the keys", page.get_by_role("dialog")

    def test_it_stays_in_the_window_and_scrolls(self):
        page = self.open_run()
        for width, height in self.SIZES:
            page.set_viewport_size({"width": width, "height": height})
            for what, there in self.opened(page):
                with self.subTest(f"{what} at {width} × {height}"):
                    expect(there).to_be_visible()
                    box = there.bounding_box()
                    self.assertGreaterEqual(min(box["x"], box["y"]), 0)
                    self.assertLessEqual(box["x"] + box["width"], width)
                    self.assertLessEqual(box["y"] + box["height"], height)
                    last = there.locator("[role^=menuitem], [role=option], button").last
                    last.scroll_into_view_if_needed()
                    expect(last).to_be_in_viewport()
                page.keyboard.press("Escape")
                expect(there).to_be_hidden()
