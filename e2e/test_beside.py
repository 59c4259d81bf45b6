"""What lies open beside the list: field note, ways and why, marks to check, history."""

from playwright.sync_api import expect

from conduit.notes import write_note
from conduit.plan import make_plan, ways_of
from e2e.support import Journey, drawn, expect_plan_of, field, more, saved, until
from server.demo.scene import RUNS
from server.jobs.models import Run

GLAZE = RUNS[4]
BOX_LID = """run Pasted
pipe 1/2 EMT, straps tight
start box J9, up
90 right, back at 30
saddle out over round 1 3/4 "gas line", clear 1/2, at 45, centre 40
end box J10, seat at 80
"""


class FieldNote(Journey):
    def opened(self, run="Kiln 2 feed"):
        page = self.open_run(run)
        page.get_by_role("button", name="Field note").click()
        expect(self.note(page)).to_be_visible()
        return page

    def note(self, page):
        return page.get_by_role("textbox", name="The run as a field note")

    def line(self, page, number):
        return self.note(page).locator(".cm-line").nth(number - 1)

    def test_either_is_edited_and_both_follow(self):
        page = self.opened()
        expect(self.line(page, 5)).to_have_text("90 right, back at 71 1/2")
        field(page, "Step 2, measure").fill("72 3/8")
        expect(self.line(page, 5)).to_have_text("90 right, back at 72 3/8")
        self.line(page, 5).click()
        page.keyboard.press("End")
        for _ in range(6):
            page.keyboard.press("Backspace")
        page.keyboard.type("70")
        expect(field(page, "Step 2, measure")).to_have_value("70")
        page.keyboard.press("Enter")
        page.keyboard.type("pull point C3 at 40")
        expect(page.get_by_label("Step 3, name")).to_have_value("C3")
        # What was typed without a pause is taken back at once; a loud machine may have made pauses of its own.
        until(page, lambda: self.taken_back(page) == "72 3/8")
        saved(page)

    def taken_back(self, page):
        page.keyboard.press("Control+z")
        drawn(page)
        return field(page, "Step 2, measure").input_value()

    def test_errors_stand_at_their_line_and_word_and_the_cursor_stays(self):
        page = self.opened()
        self.line(page, 4).click()
        page.keyboard.press("End")
        page.keyboard.type(", bak at 3")
        expect(page.get_by_text("Line 4, “bak at 3”:")).to_be_visible()
        expect(page.locator(".cm-lintRange-error").first).to_have_text("bak at 3")
        for _ in range(len(", bak at 3")):
            page.keyboard.press("Backspace")
        expect(page.get_by_text("Line 4,")).to_have_count(0)
        page.keyboard.type("5")
        expect(field(page, "Step 1, measure")).to_have_value("41 1/45")
        expect(page.locator(".cm-lintRange-error").first).to_contain_text("41 1/45")

    def test_a_note_is_pasted_to_make_a_run_and_copied(self):
        page = self.window()
        page.context.grant_permissions(["clipboard-read", "clipboard-write"])
        page.get_by_role("button", name="Measure a new run").click()
        page.get_by_role("button", name="Field note").click()
        self.note(page).click()
        page.keyboard.press("Control+a")
        page.evaluate("text => navigator.clipboard.writeText(text)", BOX_LID)
        page.keyboard.press("Control+v")
        expect(page.get_by_text("Can be bent")).to_be_visible()
        saved(page)
        until(page, Run.objects.filter(document__name="Pasted").exists)
        document = Run.objects.get(document__name="Pasted").document
        expect_plan_of(page, document)
        page.get_by_role("button", name="Copy the note").click()
        expect(page.get_by_role("button", name="Copied")).to_be_visible()
        self.assertEqual(page.evaluate("navigator.clipboard.readText()"), write_note(document))


class WaysAndWhy(Journey):
    def test_another_way_is_taken_with_one_touch(self):
        page = self.open_run("Glaze store feed")
        page.get_by_role("button", name="Step 1: Other ways, arithmetic").click()
        wanted = next(way for way in ways_of(GLAZE, 0) if way.name == "Three bends: 30°, two 15°")
        row = page.get_by_role("listitem").filter(has_text=wanted.name)
        for figure in (wanted.spacing, wanted.shrink, wanted.room):
            expect(row).to_contain_text(figure.reads)
        page.get_by_role("button", name=f"Use it: {wanted.name}").click()
        expect_plan_of(page, {**GLAZE, "steps": [wanted.step, *GLAZE["steps"][1:]]})
        page.get_by_text("more cannot be made here").click()
        expect(page.get_by_text("run into each other").first).to_be_visible()
        page.get_by_role("button", name="Use it: Four bends at 10°").click()
        expect(field(page, "Step 1, near edge")).to_be_visible()
        page.get_by_role("button", name="Undo").click()
        expect(field(page, "Step 1, angle")).to_have_value("30")

    def test_card_and_exact_stand_side_by_side_with_their_arithmetic(self):
        page = self.open_run("Glaze store feed")
        page.get_by_role("button", name="Step 2: Other ways, arithmetic").click()
        panel = page.get_by_role("region", name="Other ways, and the arithmetic")
        plan = make_plan(GLAZE)
        for line in (*plan.card[1].lines, *plan.exact[1].lines):
            expect(panel.get_by_text(line)).to_be_visible()
        by_card = next(pipe for pipe in plan.simulated if pipe.marks == "card")
        expect(panel).to_contain_text(f"its end would be out by {by_card.miss_reads}")
        expect(panel).to_contain_text("Clears hood duct by 1/2")
        expect(panel).to_contain_text(plan.by_hand.per_degree[3].reads)
        panel.get_by_text("Bend 4: why").click()
        expect(panel.get_by_text("Arrow, hook toward A").first).to_be_visible()


class CheckMyMarks(Journey):
    def test_a_wrong_mark_is_found_drawn_and_its_mistake_named(self):
        page = self.open_run()
        page.get_by_role("button", name="Check marks").click()
        expect(page.get_by_text("These marks are right")).to_be_visible()
        planned = [bend for piece in make_plan(RUNS[0]).pieces for bend in piece.bends]
        shrink = make_plan(RUNS[0]).exact[0].shrink.inches
        for bend in planned[:2]:
            field(page, f"Bend {bend.number}, mark laid").fill(f"{bend.use.at.inches - shrink:.3f}")
        expect(page.get_by_text("The mark that was not corrected for shrink was used.")).to_be_visible()
        expect(page.get_by_test_id("made")).to_be_visible()
        page.get_by_role("button", name="Back to the planned marks").click()
        expect(page.get_by_test_id("made")).to_have_count(0)
        field(page, "Bend 2, angle").fill("45")
        expect(page.get_by_text("Bend 2 is bent to 45° where 30° is wanted.")).to_be_visible()
        expect(page.get_by_text("These marks are right")).to_have_count(0)
        page.get_by_role("button", name="Back to the planned marks").click()
        length = make_plan(RUNS[0]).pieces[-1].length.inches
        field(page, f"Piece {len(make_plan(RUNS[0]).pieces)}, cut to").fill(f"{length + 1:.3f}")
        expect(page.get_by_text("as if measured to the box, not to where it seats")).to_be_visible()

    def test_a_mark_is_dragged_and_bad_ones_are_told(self):
        page = self.open_run("Wedging table outlet")
        page.get_by_role("button", name="Check marks").click()
        expect(page.get_by_text("These marks are right")).to_be_visible()
        mark = page.get_by_role("img", name="Piece 1,").get_by_text("33 1/2").bounding_box()
        page.mouse.move(mark["x"] + 10, mark["y"] + 10)
        page.mouse.down()
        page.mouse.move(mark["x"] + 40, mark["y"] + 10, steps=6)
        page.mouse.up()
        expect(page.get_by_text("too far from A")).to_be_visible()
        field(page, "Bend 1, mark laid").fill("7 1/0")
        expect(page.get_by_role("region", name="Check my marks").get_by_role("alert")).to_be_visible()
        expect(field(page, "Bend 1, mark laid")).to_have_value("7 1/0")


class Versions(Journey):
    def test_what_another_saves_is_shown_and_put_together_with_what_is_typed(self):
        mine, theirs = self.open_run(), self.open_run(user="marek")
        field(theirs, "End, pipe end at").fill("35")
        saved(theirs)
        expect(field(mine, "End, pipe end at")).to_have_value("35")
        told = mine.get_by_role("region", name="Changed by another")
        told.get_by_text("Marek Olin changed this run").click()
        expect(told.get_by_role("cell").nth(0)).to_have_text("end box Kiln 2 box, seat at 33 1/2")
        expect(told.get_by_role("cell").nth(1)).to_have_text("end box Kiln 2 box, seat at 35")
        told.get_by_role("button", name="OK").click()
        expect(told).to_have_count(0)
        mine.context.set_offline(True)
        field(mine, "Step 1, rise").fill("6")
        field(theirs, "End, pipe end at").fill("36")
        saved(theirs)
        mine.context.set_offline(False)
        for page in (mine, theirs):
            expect(field(page, "Step 1, rise")).to_have_value("6")
            expect(field(page, "End, pipe end at")).to_have_value("36")
        field(mine, "Step 1, rise").press("Control+z")
        expect(field(mine, "End, pipe end at")).to_have_value("36")

    def test_the_cursor_stays_in_its_figure_when_another_puts_a_step_before_it(self):
        mine, theirs = self.open_run(), self.open_run(user="marek")
        last = mine.get_by_role("textbox", name="Step 3, measure")
        last.focus()
        more(theirs, 1, "Duplicate")
        saved(theirs)
        expect(mine.get_by_role("textbox", name="Step 4, measure")).to_be_focused()

    def test_steps_back_outlast_the_view_and_a_reload(self):
        page = self.open_run()
        field(page, "Step 1, rise").fill("6")
        saved(page)
        page.get_by_role("navigation", name="Views").get_by_role("link", name="Log").click()
        expect(page.get_by_role("heading", name="Log").first).to_be_attached()
        page.go_back()
        page.reload()
        page.get_by_role("button", name="Undo").click()
        expect(field(page, "Step 1, rise")).to_have_value("5 1/2")

    def test_what_is_typed_is_saved_even_while_one_goes_on_typing(self):
        page = self.open_run()
        saves = []
        page.on("request", lambda one: saves.append(one) if one.method == "PUT" else None)
        field(page, "End, pipe end at").focus()

        def typed_on():
            page.keyboard.press("ArrowUp")
            return len(saves) >= 2

        until(page, typed_on)

    def test_an_earlier_save_is_brought_back(self):
        page = self.open_run()
        self.save_as("marek")
        expect(page.get_by_text("Marek Olin changed this run")).to_be_visible()
        page.get_by_role("button", name="History").click()
        history = page.get_by_role("region", name="History")
        expect(history.get_by_role("listitem")).to_have_count(2)
        history.get_by_role("button", name="Dana Wexcombe").click()
        expect(history.get_by_role("cell").last).to_have_text("end box Kiln 2 box, seat at 33 1/2")
        history.get_by_role("button", name="Restore this").click()
        expect(field(page, "End, pipe end at")).to_have_value("33 1/2")
        saved(page)
        self.assertEqual(Run.objects.get(document__name="Kiln 2 feed").version, 3)

    def save_as(self, user):
        page = self.open_run(user=user)
        field(page, "End, pipe end at").fill("50")
        saved(page)
        page.close()
