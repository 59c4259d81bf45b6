from playwright.sync_api import expect

from conduit.document import changed
from e2e.support import PHONE, Journey, choose, expect_plan_of, field, marks, of_the_menu, saved, the_browser
from server.demo.scene import RUNS
from server.jobs.models import Run


class Settings(Journey):
    def test_another_shoe_and_own_figures_move_the_marks(self):
        page = self.open_run("Wedging table outlet")
        document = RUNS[3]
        expect_plan_of(page, document)
        choose(page, "Shoe", "a typical shoe")
        expect_plan_of(page, {**document, "shoe": None})
        choose(page, "Shoe", "own figures")
        field(page, "Shoe, deduct").fill("5 1/8")
        field(page, "Shoe, gain").fill("2 11/16")
        expect_plan_of(page, {**document, "shoe": {"deduct": "5 1/8", "gain": "2 11/16"}})
        field(page, "Shoe, gain").fill("1/2")
        expect(page.get_by_role("alert")).to_contain_text("bend a 90 in scrap and measure both legs again")

    def test_another_size_and_material_take_the_shoe_that_bends_them(self):
        page = self.open_run("Wedging table outlet")
        choose(page, "Trade size", "3/4")
        expect_plan_of(page, {**RUNS[3], "trade_size": "3/4", "shoe": None})
        choose(page, "Material", "rigid")
        expect_plan_of(page, {**RUNS[3], "trade_size": "3/4", "material": "rigid", "shoe": None})
        choose(page, "Trade size", "3-1/2")
        expect(page.get_by_text("no typical figures are known for 3-1/2 rigid")).to_be_visible()

    def test_the_lead_sets_the_crews_limits_and_every_run_is_held_to_them(self):
        page = self.window()
        page.get_by_role("button", name="Dana").click()
        page.get_by_role("menuitem", name="Limits of the crew").click()
        page.get_by_label("Bends between pull points").fill("many")
        page.get_by_label("Strap to strap").fill("5'")
        page.get_by_role("button", name="Save limits").click()
        expect(page.get_by_text("is not a number")).to_be_visible()
        expect(page.get_by_label("Strap to strap")).to_have_value("5'")
        page.get_by_label("Bends between pull points").fill("90")
        page.get_by_role("button", name="Save limits").click()
        expect(page.get_by_text("Every plan is held to these now")).to_be_visible()
        run = self.open_run()
        expect(run.get_by_text("over the 90° allowed").first).to_be_visible()
        looks_only = self.window("ivy")
        looks_only.goto(f"{self.live_server_url}/limits")
        expect(looks_only.get_by_text("A lead sets them")).to_be_visible()
        expect(looks_only.get_by_text("90°", exact=True)).to_be_visible()

    def test_new_runs_begin_as_the_crew_reads_them(self):
        page = self.window()
        page.goto(f"{self.live_server_url}/limits")
        choose(page, "Tape of new runs", "1 mm")
        field(page, "Stand-off of new runs").fill("far")
        page.get_by_role("button", name="Use for new runs").click()
        expect(page.get_by_text("“far” is not a length")).to_be_visible()
        field(page, "Stand-off of new runs").fill("38")
        page.get_by_role("button", name="Use for new runs").click()
        expect(page.get_by_role("button", name="Use for new runs")).to_have_count(0)
        page.get_by_role("link", name="all jobs").click()
        page.get_by_role("button", name="Measure a new run").first.click()
        expect(page.get_by_role("combobox", name="Tape rounding")).to_have_text("1 mm")
        saved(page)
        document = Run.objects.latest("pk").document
        self.assertEqual((document["tape"], document["stand_off"]), ("1 mm", "38"))

    def test_what_couplings_take_and_longer_pieces(self):
        page = self.open_run()
        page.get_by_role("button", name="Couplings …").click()
        field(page, "A coupling takes").fill("1/8")
        field(page, "Longest piece").fill("240")
        expect_plan_of(page, {**RUNS[0], "coupling_gap": "1/8", "longest_piece": "240"})
        field(page, "Longest piece").fill("abc")
        expect(page.get_by_role("alert")).to_contain_text("“abc” is not a length")
        field(page, "Longest piece").fill("240")
        choose(page, "Fittings", "compression")
        saved(page)
        page.get_by_role("link", name="Stock").click()
        wet = page.get_by_role("listitem").filter(has_text="connectors 3/4 EMT compression")
        expect(wet).to_contain_text("2")

    def test_what_the_tape_cannot_show_is_told_and_straps_may_be_others_before_a_thing(self):
        page = self.open_run("Glaze store feed")
        field(page, "Step 1, measure").fill("32 1/64")
        expect(page.get_by_text("≈ 32", exact=True)).to_be_visible()
        page.get_by_role("button", name="+ pipe off").click()
        field(page, "Step 1, pipe off before it").fill("1")
        saved(page)
        over = Run.objects.get(document__name="Glaze store feed").document["steps"][0]["over"]
        self.assertEqual(over["stand_off"], "1")

    def test_readings_in_feet_and_on_a_metric_tape(self):
        page = self.open_run()
        choose(page, "Readings", "feet and inches")
        expect_plan_of(page, {**RUNS[0], "feet": True})
        choose(page, "Tape rounding", "1 mm")
        expect_plan_of(page, {**RUNS[0], "feet": True, "tape": "1 mm"})
        saved(page)
        document = Run.objects.get(document__name="Kiln 2 feed").document
        self.assertEqual((document["feet"], document["tape"]), (True, "1 mm"))
        self.assertEqual(document["end"]["at"], f'{RUNS[0]["end"]["at"]}"', "every figure keeps the unit that it had")

    def test_on_a_metric_tape_bare_figures_and_nudges_are_millimetres(self):
        page = self.window()
        # Chosen before any figure has been read, each still keeps the unit that it was meant in.
        held = []
        page.route("**/api/plan?*", lambda route: held.append(route))
        page.get_by_role("link", name="Kiln 2 feed").click()
        choose(page, "Tape rounding", "1 mm")
        page.route("**/api/plan?*", lambda route: route.continue_())
        for route in held:
            route.continue_()
        expect(page.get_by_role("combobox", name="Tape rounding")).to_have_text("1 mm")
        run = {**changed(RUNS[0], lambda _, written: f'{written}"'), "tape": "1 mm"}
        seat = field(page, "End, pipe end at")
        seat.fill("1000")
        seat.press("ArrowUp")
        expect(seat).to_have_value("1001")
        seat.press("Shift+ArrowUp")
        expect(seat).to_have_value("1011")
        expect_plan_of(page, {**run, "end": {**run["end"], "at": "1011"}})
        seat.fill("5")
        page.get_by_role("button", name="It is 5 in").click()
        expect(seat).to_have_value('5"')

    def test_names_follow_everywhere(self):
        page = self.open_run()
        page.get_by_label("Run name").fill("Kiln 2, north wall")
        page.get_by_label("Start box").fill("Panel N")
        expect(page.get_by_role("region", name="Picture").get_by_text("Panel N")).to_be_visible()
        saved(page)
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_role("banner").get_by_text("Kiln 2, north wall")).to_be_visible()
        expect(page.get_by_text("Panel N").first).to_be_visible()

    def test_light_and_dark_are_remembered(self):
        page = self.open_run()
        page.get_by_role("button", name="Dana Wexcombe").click()
        page.get_by_role("menuitemradio", name="Dark, for basements").click()
        expect(page.locator("html")).to_have_attribute("data-theme", "dark")
        page.reload()
        expect(page.locator("html")).to_have_attribute("data-theme", "dark")


class People(Journey):
    def test_a_wrong_password_is_told_and_nothing_else(self):
        page = the_browser().new_page()
        self.addCleanup(page.close)
        page.goto(self.live_server_url + "/runs/1/layout")
        page.get_by_label("Name").fill("dana")
        page.get_by_label("Password").fill("guess")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("alert")).to_contain_text("do not go together")
        expect(page.get_by_label("Name")).to_have_value("dana")

    def test_signing_out_shows_nothing_more(self):
        page = self.window()
        page.get_by_role("button", name="Dana Wexcombe").click()
        page.get_by_role("menuitem", name="Sign out").click()
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        expect(page.get_by_text("Kiln 2 feed")).to_have_count(0)

    def test_jobs_and_runs_are_opened_and_removed_only_when_meant(self):
        page = self.window()
        page.get_by_label("New job").fill("Barn")
        page.get_by_label("Where").fill("Lower field")
        page.get_by_role("button", name="Start the job").click()
        expect(page.get_by_role("heading", name="Barn")).to_be_visible()
        of_the_menu(page, "Kiln 3 feed", "Delete")
        expect(page.get_by_role("link", name="Kiln 3 feed")).to_have_count(0)
        of_the_menu(page, "Barn", "Delete")
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("heading", name="Barn")).to_be_visible()
        of_the_menu(page, "Barn", "Delete")
        page.get_by_role("button", name="Delete the job", exact=True).click()
        expect(page.get_by_role("heading", name="Barn")).to_have_count(0)

    def test_a_viewer_finds_nothing_to_press(self):
        page = self.window("ivy")
        for name in ("Kiln 3 feed: more", "Measure a new run", "Start the job"):
            expect(page.get_by_role("button", name=name)).to_have_count(0)
        page.get_by_role("button", name="Kiln room fit-out: more").click()
        expect(page.get_by_role("menuitem")).to_have_text(["All bench cards", "Save as PDF, DXF, IFC …"])
        page.keyboard.press("Escape")
        page.get_by_role("link", name="Stock and cut list").click()
        expect(page.get_by_role("heading", name="Scrap rack")).to_be_visible()
        for name in ("Take", "Add"):
            expect(page.get_by_role("button", name=name)).to_have_count(0)

    def test_walk_on_a_phone_needs_no_sideways_scrolling(self):
        page = self.open_run(size=PHONE)
        expect(marks(page)).to_be_visible()
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), PHONE["width"])

    def test_another_crews_run_cannot_be_opened(self):
        page = self.window()
        page.goto(self.live_server_url + "/runs/999999/layout")
        expect(page.get_by_role("alert")).to_contain_text("This run cannot be opened")
