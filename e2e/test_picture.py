"""The picture and the sticks: seen from all sides, turned, pulled along; how soon they follow a key."""

import re
import statistics

from playwright.sync_api import expect

from conduit.plan import make_plan
from e2e.support import Journey, drawn, expect_plan_of, field, marks, saved, until
from server.demo.scene import RUNS
from server.jobs.models import Run

KEYS = 20
FOLLOW_A_KEY = """() => {
  window.waits = [];
  let began = null;
  document.addEventListener('keydown', () => { began = performance.now(); }, true);
  new MutationObserver(() => {
    const key = began;
    if (key === null) return;
    began = null;
    requestAnimationFrame(() => setTimeout(() => window.waits.push(performance.now() - key)));
  }).observe(document.querySelector('[data-testid=pipe]'), { attributes: true, attributeFilter: ['d'] });
}"""

FOLLOWED = """() => new Promise((done) => {
  const look = () => (window.waits.length > %d ? done() : setTimeout(look, 5));
  look();
})"""


class Picture(Journey):
    def picture(self, page):
        return page.get_by_role("region", name="Picture")

    def test_every_side_shows_the_measures_and_what_is_in_the_way(self):
        page = self.open_run("Glaze store feed")
        plan = make_plan(RUNS[4])
        for view in ("Front", "From above"):
            page.get_by_role("radio", name=view).click()
            for text in ("138 1/4", "31 1/2", "hood duct", "gas line", "Panel KP", "Glaze store box"):
                expect(self.picture(page).get_by_text(text).first).to_be_visible()
        kinds = [fitting.kind for fitting in plan.picture.fittings]
        for kind in set(kinds):
            expect(self.picture(page).locator("title", has_text=kind)).to_have_count(kinds.count(kind))

    def test_a_bend_chosen_in_the_picture_is_chosen_everywhere(self):
        page = self.open_run("Glaze store feed")
        page.get_by_role("radio", name="From above").click()
        self.picture(page).get_by_text("5", exact=True).click()
        expect(page.locator("[data-step='1']")).to_have_attribute("aria-current", "step")
        marks(page).get_by_text("2", exact=True).click()
        expect(page.locator("[data-step='0']")).to_have_attribute("aria-current", "step")

    def test_it_is_turned_zoomed_and_touched(self):
        page = self.open_run("Glaze store feed")
        page.get_by_role("radio", name="Turn").click()
        canvas = self.picture(page).locator("canvas")
        expect(canvas).to_be_visible()
        shown = [self.seen(canvas)]
        box = canvas.bounding_box()
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] - 40)
        page.mouse.down()
        page.mouse.move(box["x"] + box["width"] / 2 + 120, box["y"] + box["height"] - 70, steps=5)
        page.mouse.up()
        shown.append(self.seen(canvas))
        page.get_by_role("button", name="Nearer").click()
        shown.append(self.seen(canvas))
        page.get_by_role("img", name="turnable").focus()
        page.keyboard.press("ArrowLeft")
        shown.append(self.seen(canvas))
        self.assertEqual(len(set(shown)), 4)

    def seen(self, canvas):
        """What the canvas shows once it has come to rest."""
        shown = [canvas.screenshot()]

        def rests():
            shown.append(canvas.screenshot())
            return shown[-1] == shown[-2]

        until(canvas.page, rests)
        return shown[-1]

    def test_where_there_is_no_webgl_it_is_drawn_in_lines_and_turned_all_the_same(self):
        page = self.window()
        page.add_init_script("HTMLCanvasElement.prototype.getContext = () => null")
        page.reload()
        page.get_by_role("link", name="Glaze store feed").click()
        page.get_by_role("radio", name="Turn").click()
        drawing = self.picture(page).locator("[data-drawn=none]")
        expect(drawing.get_by_text("hood duct")).to_be_visible()
        before = drawing.screenshot()
        page.get_by_role("img", name="turnable").focus()
        page.keyboard.press("ArrowLeft")
        drawn(page)
        self.assertNotEqual(drawing.screenshot(), before)

    def test_a_step_chosen_in_the_list_is_framed_and_one_touched_in_it_is_not(self):
        page = self.open_run("Glaze store feed")
        page.get_by_role("radio", name="Turn").click()
        names = self.picture(page).locator("[data-drawn]")
        expect(names.get_by_text("gas line")).to_be_visible()
        page.locator("[data-step='2']").get_by_text("8", exact=True).click()
        expect(names.get_by_text("gas line")).to_have_count(0)
        expect(names.get_by_text("9", exact=True)).to_be_visible()


class Sticks(Journey):
    def test_a_coupling_is_moved_within_its_room_and_let_go(self):
        page = self.open_run()
        plan = make_plan(RUNS[0])
        coupling = page.get_by_role("slider", name="Coupling 1")
        coupling.focus()
        for _ in range(5):
            page.keyboard.press("Shift+ArrowLeft")
        saved(page)
        kept = Run.objects.get(document__name="Kiln 2 feed").document
        self.assertEqual(kept["couplings"], ["115"])
        expect_plan_of(page, kept)
        grip = coupling.bounding_box()
        page.mouse.move(grip["x"] + 12, grip["y"] + 12)
        page.mouse.down()
        page.mouse.move(grip["x"] - 700, grip["y"] + 12, steps=10)
        page.mouse.up()
        low = plan.couplings[0].room[0][0]
        until(page, lambda: abs(float(coupling.get_attribute("aria-valuenow")) - low) < 1 / 16)
        page.get_by_role("button", name="release it").click()
        expect_plan_of(page, RUNS[0])

    def test_a_stick_is_enlarged_and_pulled_along_like_a_tape(self):
        page = self.open_run()
        expect(marks(page)).to_be_visible()
        wide = marks(page).bounding_box()["width"]
        page.get_by_role("button", name="Larger").click()
        page.get_by_role("button", name="Larger").click()
        self.assertAlmostEqual(marks(page).bounding_box()["width"], 4 * wide, delta=2)
        strip = page.get_by_role("region", name="Pieces, drag to move along them")
        box = strip.bounding_box()
        page.mouse.move(box["x"] + 500, box["y"] + 60)
        page.mouse.down()
        page.mouse.move(box["x"] + 100, box["y"] + 60, steps=4)
        page.mouse.up()
        self.assertAlmostEqual(strip.evaluate("strip => strip.scrollLeft"), 400, delta=2)


class Following(Journey):
    def test_the_picture_follows_every_key(self):
        """Reports the time from key to picture; asserts that every key was followed."""
        page = self.open_run()
        expect(marks(page)).to_be_visible()
        field(page, "Step 2, measure").focus()
        page.evaluate(FOLLOW_A_KEY)
        for number in range(KEYS):
            page.keyboard.press("ArrowUp" if number % 7 else "ArrowDown")
            page.evaluate(FOLLOWED % number)
        waits = page.evaluate("window.waits")
        late = statistics.quantiles(waits, n=20)[-1]
        print(f"\nfrom key to picture: median {statistics.median(waits):.0f} ms, 95th percentile {late:.0f} ms")
        self.assertEqual(len(waits), KEYS)

    def test_one_question_at_a_time_and_the_last_one_counts(self):
        page = self.open_run()
        open_now, most = [], []
        page.on("request", lambda one: open_now.append(one) if "/api/plan?" in one.url else None)
        page.on("request", lambda one: most.append(len(open_now)))
        page.on("response", lambda one: open_now.remove(one.request) if one.request in open_now else None)
        field(page, "Step 2, measure").fill("")
        page.keyboard.type("5' 11-3/16\"")
        document = {
            **RUNS[0],
            "steps": [RUNS[0]["steps"][0], {**RUNS[0]["steps"][1], "at": "71 3/16"}, RUNS[0]["steps"][2]],
        }
        expect_plan_of(page, document)
        self.assertEqual(max(most), 1)
        expect(field(page, "Step 2, measure")).to_have_value(re.compile("11-3/16"))
