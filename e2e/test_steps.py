"""The list of steps: every kind of step entered as met, moved about, left out, explained."""

from playwright.sync_api import expect

from e2e.support import Journey, add, choose, drawn, expect_plan_of, field, more, move_by_keys, saved
from server.jobs.models import Run


class StepList(Journey):
    def new_run(self, name):
        page = self.window()
        page.get_by_role("button", name="Measure a new run").click()
        page.get_by_label("Run name").fill(name)
        return page

    def put(self, page, label, text):
        field(page, label).fill(text)

    def document(self, page, name):
        saved(page)
        return Run.objects.get(document__name=name).document

    def test_what_is_open_stays_put_when_the_page_behind_it_grows(self):
        page = self.open_run()
        grow = "node => node.parentElement.insertAdjacentHTML('beforebegin', '<p style=\"height: 90px\">')"
        for role, opener in (("menuitem", "Add a bend or fitting"), ("option", "Step 1, direction")):
            page.get_by_role("button" if role == "menuitem" else "combobox", name=opener, exact=True).click()
            last = page.get_by_role(role).last
            expect(last).to_be_visible()
            drawn(page)
            before = last.bounding_box()
            page.locator("[aria-expanded=true][aria-controls]").evaluate(grow)
            drawn(page)
            self.assertEqual(last.bounding_box(), before)
            page.keyboard.press("Escape")

    def test_every_kind_of_step_is_typed_as_it_was_met(self):
        page = self.new_run("Everything")
        choose(page, "First heading", "right")
        add(page, "Box offset")
        expect(field(page, "Step 1, knockout")).to_be_focused()
        page.keyboard.type("1 3/8")
        add(page, "Saddle over a pipe")
        expect(field(page, "Step 2, height")).to_be_focused()
        page.keyboard.type("1 3/4")
        self.put(page, "Step 2, measure", "24")
        add(page, "Saddle over something wide")
        for label, text in (("height", "3"), ("near edge", "55"), ("width", "8 1/2")):
            self.put(page, f"Step 3, {label}", text)
        add(page, "90° with a kick")
        choose(page, "Step 4, new heading", "down")
        for label, text in (("measure", "96"), ("rise", "3"), ("setback", "14")):
            self.put(page, f"Step 4, {label}", text)
        add(page, "Offset to another level")
        choose(page, "Step 5, direction", "right")
        choose(page, "Step 5, rise by", "over something flat")
        for label, text in (("height", "2"), ("measure", "38")):
            self.put(page, f"Step 5, {label}", text)
        add(page, "Rolled offset")
        choose(page, "Step 6, and", "right") if page.get_by_role("combobox", name="Step 6, and").count() else None
        for label, text in (("rise", "3"), ("roll", "4"), ("measure", "76")):
            self.put(page, f"Step 6, {label}", text)
        add(page, "Pull point")
        page.get_by_label("Step 7, name").fill("C1")
        self.put(page, "Step 7, measure", "90")
        add(page, "Sweep")
        choose(page, "Step 8, new heading", "right")
        self.put(page, "Step 8, measure", "140")
        add(page, "Coupling")
        self.put(page, "Step 9, measure", "28")
        add(page, "90° bend")
        choose(page, "Step 10, new heading", "up")
        self.put(page, "Step 10, measure", "50")
        field(page, "End, pipe end at").fill("30")
        expect(page.get_by_text("Can be bent")).to_be_visible()
        document = self.document(page, "Everything")
        kinds = [step["kind"] for step in document["steps"]]
        self.assertEqual(len(set(kinds)), 10, kinds)
        expect_plan_of(page, document)

    def test_a_knockout_is_met_by_a_lever_tool_s_offset(self):
        page = self.new_run("Stamped")
        choose(page, "First heading", "right")
        add(page, "Box offset")
        page.keyboard.type("31/32")
        page.get_by_role("button", name="+ lever tool").click()
        self.put(page, "Step 1, rise that the lever tool stamps", "3/8")
        self.put(page, "Step 1, length of its offset", "2 1/2")
        field(page, "End, pipe end at").fill("60")
        expect(page.get_by_text("the knockout stands 1/2 off the pipe; the lever tool stamps 3/8")).to_be_visible()
        self.put(page, "Step 1, rise that the lever tool stamps", "1/2")
        document = self.document(page, "Stamped")
        expect_plan_of(page, document)
        self.assertEqual(document["steps"][0]["stamped"], "1/2")
        page.get_by_role("button", name="Bend it on the shoe instead").click()
        expect(field(page, "Step 1, angle")).to_have_value("10")

    def test_steps_are_dragged_and_moved_by_keys(self):
        page = self.open_run()
        handle = page.get_by_role("button", name="Step 3: drag").bounding_box()
        above = page.get_by_role("button", name="Step 2: drag").bounding_box()
        page.mouse.move(handle["x"] + 10, handle["y"] + 10)
        page.mouse.down()
        page.mouse.move(above["x"] + 10, above["y"], steps=12)
        page.mouse.up()
        expect(field(page, "Step 2, measure")).to_have_value("88 3/4")
        expect(page.get_by_text("Stops at step 2")).to_be_visible()
        field(page, "Step 2, measure").focus()
        page.keyboard.press("Alt+ArrowDown")
        expect(field(page, "Step 3, measure")).to_have_value("88 3/4")
        expect(field(page, "Step 3, measure")).to_be_focused()
        expect(page.get_by_text("Can be bent")).to_be_visible()
        move_by_keys(page, "Step 1: drag", "ArrowDown")
        expect(field(page, "Step 2, rise")).to_have_value("5 1/2")

    def test_steps_are_doubled_left_out_put_before_and_undone_to_the_beginning(self):
        page = self.open_run("Vent hood switch")
        before = Run.objects.get(document__name="Vent hood switch").document
        expect_plan_of(page, before)
        field(page, "Step 2, measure").focus()
        page.keyboard.press("Alt+c")
        expect(field(page, "Step 3, measure")).to_have_value("14")
        field(page, "Step 3, measure").fill("36")
        more(page, 2, "Leave it out of the run")
        expect(page.get_by_text("Left out of the run")).to_be_visible()
        saved(page)
        kept = Run.objects.get(document__name="Vent hood switch").document
        self.assertEqual([step.get("muted", False) for step in kept["steps"]], [False, True, False])
        expect_plan_of(page, {**kept, "steps": [kept["steps"][0], kept["steps"][2]]})
        more(page, 2, "Put it back")
        page.get_by_role("button", name="Add a step before step 1").click()
        page.get_by_role("menuitem", name="Pull point").click()
        field(page, "Step 1, measure").fill("20")
        field(page, "Step 1, measure").press("Alt+Delete")
        expect(field(page, "Step 1, measure")).to_have_value("46 5/8")
        page.reload()
        expect(field(page, "Step 3, measure")).to_have_value("36")
        field(page, "End, pipe end at").fill("62")
        while page.get_by_role("button", name="Undo").is_enabled():
            page.keyboard.press("Control+z")
        expect(field(page, "End, pipe end at")).to_have_value("61")

    def test_words_of_the_trade_are_explained_when_asked(self):
        page = self.open_run("Glaze store feed")
        page.get_by_role("button", name="Three-bend saddle").click()
        expect(page.get_by_text("a centre bend and two of half its angle")).to_be_visible()
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Leave").focus()
        page.keyboard.press("Enter")
        expect(page.get_by_text("puts the far end")).to_be_visible()

    def test_a_remedy_is_taken_with_one_touch(self):
        page = self.open_run()
        field(page, "Step 1, rise").fill("2")
        field(page, "Step 1, angle").fill("60")
        page.get_by_role("button", name="Bend it at 30°").click()
        expect(field(page, "Step 1, angle")).to_have_value("30")
        expect(page.get_by_text("Can be bent", exact=True)).to_be_visible()
        field(page, "Step 2, measure").fill("20")
        page.get_by_role("button", name="Stops at step 2").click()
        remedy = page.get_by_role("listitem").filter(has=field(page, "Step 2, measure")).get_by_role("alert")
        remedy.get_by_role("button").first.click()
        expect(page.get_by_text("Can be bent", exact=True)).to_be_visible()

    def test_a_box_measured_on_its_own_closes_the_run(self):
        page = self.open_run("Glaze store feed")
        page.get_by_role("button", name="Your measures meet the box within").click()
        expect(page.get_by_text("1 in 2,333").last).to_be_visible()
        page.keyboard.press("Escape")
        field(page, "End box, up").fill("-42")
        expect(page.get_by_text("as the box was measured on its own")).to_be_visible()
        expect(page.get_by_text("one caution")).to_be_visible()
        page.get_by_text("Share it over the legs I am unsure of").click()
        page.get_by_role("checkbox", name="The end, ").check()
        expect(page.get_by_text("then by 1/16")).to_be_visible()
        page.get_by_role("button", name="Share it over these: the end").click()
        expect(page.get_by_text("one caution")).to_have_count(0)
        page.keyboard.press("Control+z")
        expect(page.get_by_text("one caution")).to_be_visible()
        page.get_by_role("button", name="Your measures meet the box within").click()
        expect(page.get_by_text("As a surveyor closes a traverse").last).to_be_visible()
