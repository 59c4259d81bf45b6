from playwright.sync_api import expect

from conduit.plan import make_plan
from e2e.support import Journey, field, marks, saved
from server.demo.scene import RUNS
from server.jobs.models import Run


class Layout(Journey):
    def test_the_demo_run_shows_the_marks_that_plan_prints(self):
        page = self.open_run()
        for piece in make_plan(RUNS[0]).pieces:
            wanted = ", ".join(bend.use.at.reads for bend in piece.bends)
            expect(marks(page, piece.number)).to_have_accessible_name(
                f"Piece {piece.number}, {piece.length.reads} long, marks at {wanted}"
            )

    def test_a_changed_number_moves_everything_and_survives_a_reload(self):
        page = self.open_run()
        before = marks(page).get_attribute("aria-label")
        field(page, "Step 2, measure").fill("5' 11-3/4\"")
        expect(marks(page)).not_to_have_accessible_name(before)
        expect(page.get_by_role("region", name="Picture").get_by_text("71 3/4")).to_be_visible()
        after = marks(page).get_attribute("aria-label")
        page.reload()
        expect(field(page, "Step 2, measure")).to_have_value("5' 11-3/4\"")
        expect(marks(page)).to_have_accessible_name(after)
        saved(page)
        self.assertEqual(Run.objects.get(document__name="Kiln 2 feed").document["steps"][1]["at"], "5' 11-3/4\"")

    def test_unreadable_and_impossible_input_is_told_at_its_place(self):
        page = self.open_run()
        for written, why in {
            "7 1/0": "nothing can be divided by 0",
            "5'13\"": "13 inches after feet",
            "-4": "cannot be negative",
            "1e9": "is not a length",
            "999999": "over 1,000 ft",
            "44": "On this shoe 48 1/16",
        }.items():
            field(page, "Step 2, measure").fill(written)
            row = page.get_by_role("listitem").filter(has=field(page, "Step 2, measure"))
            expect(row.get_by_role("alert")).to_contain_text(why)
            expect(row.get_by_role("alert")).to_contain_text("Step 2 (90)")
            expect(field(page, "Step 2, measure")).to_have_value(written)
            expect(field(page, "Step 2, measure")).to_have_attribute("aria-invalid", "true")
            expect(page.get_by_text("Stops at step 2")).to_be_visible()
        expect(field(page, "Step 3, measure")).to_have_value("88 3/4")
        saved(page)
        page.reload()
        expect(field(page, "Step 2, measure")).to_have_value("44")

    def test_steps_are_added_moved_removed_and_undone(self):
        page = self.open_run("Wedging table outlet")
        page.get_by_role("button", name="Add a bend or fitting").click()
        page.get_by_role("menuitem", name="Offset to another level").click()
        field(page, "Step 2, rise").fill("3")
        field(page, "Step 2, measure").fill("24")
        expect(page.get_by_text("Can be bent")).to_be_visible()
        page.get_by_role("button", name="Step 2: more").click()
        page.get_by_role("menuitem", name="Move up").click()
        expect(field(page, "Step 1, rise")).to_have_value("3")
        expect(page.get_by_text("Stops at step 1")).to_be_visible()
        page.get_by_role("combobox", name="Step 1, direction").click()
        page.get_by_role("option", name="out").click()
        expect(page.get_by_text("Can be bent")).to_be_visible()
        page.get_by_role("button", name="Step 1: more").click()
        page.get_by_role("menuitem", name="Remove this offset").click()
        expect(field(page, "Step 1, measure")).to_have_value("38 1/2")
        page.keyboard.press("Control+z")
        expect(field(page, "Step 1, rise")).to_have_value("3")
        page.get_by_role("button", name="Redo").click()
        expect(field(page, "Step 1, measure")).to_have_value("38 1/2")

    def test_keys_move_on_and_nudge(self):
        page = self.open_run("Wedging table outlet")
        expect(marks(page)).to_be_visible()
        field(page, "Step 1, measure").focus()
        page.keyboard.press("ArrowUp")
        expect(field(page, "Step 1, measure")).to_have_value("38 9/16")
        page.keyboard.press("Shift+ArrowDown")
        expect(field(page, "Step 1, measure")).to_have_value("37 9/16")
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="Add a bend or fitting")).to_be_focused()

    def test_a_new_run_from_nothing(self):
        page = self.window()
        page.get_by_role("button", name="Measure a new run").click()
        page.get_by_label("Run name").fill("Stub by the door")
        page.get_by_role("button", name="Add a bend or fitting").click()
        page.get_by_role("menuitem", name="90° bend").click()
        field(page, "Step 1, measure").fill("16 1/2")
        field(page, "End, pipe end at").fill("30")
        expect(page.get_by_text("Can be bent")).to_be_visible()
        saved(page)
        page.get_by_role("link", name="all jobs").click()
        expect(page.get_by_role("link", name="Stub by the door")).to_be_visible()


class TwoWindows(Journey):
    def test_a_stale_save_is_told_and_nothing_typed_is_lost(self):
        mine, theirs = self.open_run(), self.open_run(user="marek")
        mine.context.set_offline(True)
        field(mine, "End, pipe end at").fill("36 1/4")
        field(theirs, "End, pipe end at").fill("35")
        saved(theirs)
        mine.context.set_offline(False)
        expect(mine.get_by_text("Marek Olin changed this run")).to_be_visible()
        expect(field(mine, "End, pipe end at")).to_have_value("36 1/4")
        self.assertEqual(Run.objects.get(document__name="Kiln 2 feed").document["end"]["at"], "35")
        mine.reload()
        expect(field(mine, "End, pipe end at")).to_have_value("36 1/4")
        mine.get_by_role("button", name="Use Marek Olin’s").click()
        expect(field(mine, "End, pipe end at")).to_have_value("35")
        mine.get_by_role("button", name="Undo").click()
        expect(field(mine, "End, pipe end at")).to_have_value("36 1/4")
        saved(mine)

    def test_what_is_typed_without_a_server_is_kept_and_saved_later(self):
        page = self.open_run()
        page.context.set_offline(True)
        field(page, "End, pipe end at").fill("34")
        expect(page.get_by_text("No server: kept here")).to_be_visible()
        page.context.set_offline(False)
        saved(page)
        self.assertEqual(Run.objects.get(document__name="Kiln 2 feed").document["end"]["at"], "34")

    def test_a_viewer_cannot_type(self):
        page = self.open_run(user="ivy")
        expect(field(page, "End, pipe end at")).to_be_disabled()
        expect(page.get_by_role("button", name="Add a bend or fitting")).to_have_count(0)
