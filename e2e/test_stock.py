import re
import subprocess
import sys

from django.conf import settings
from django.test import override_settings
from playwright.sync_api import expect

from conduit.units import format_length
from e2e.support import PATIENCE, Journey, choose, field, saved
from server.cutting.models import Cut
from server.stock.models import Reservation, Scrap
from server.tests.support import environment


class Stock(Journey):
    def open_stock(self):
        page = self.window()
        page.get_by_role("link", name="Stock and cut list").click()
        expect(page.get_by_role("button", name="Reserve and cut this")).to_be_visible()
        return page

    def taken(self):
        page = self.open_stock()
        page.get_by_role("button", name="Reserve and cut this").click()
        expect(page.get_by_role("region", name="Cutting")).to_contain_text("0 of")
        return page

    def test_a_scrap_added_is_used_and_one_taken_is_not(self):
        page = self.open_stock()
        plan = page.get_by_role("region", name="1/2 EMT plan")
        expect(plan).to_contain_text("1 stick")
        page.get_by_label("Length").fill("107")
        page.get_by_role("combobox", name="Size of the scrap").click()
        page.get_by_role("option", name="1/2", exact=True).click()
        page.get_by_label("Place").fill("bay 9")
        page.get_by_label("Place").press("Enter")
        expect(plan).to_contain_text("No new stick")
        page.get_by_role("button", name=re.compile("^S10")).click()
        page.get_by_role("button", name="Take S10 off the rack").click()
        expect(plan).to_contain_text("1 stick")
        page.get_by_role("button", name="Put back").click()
        expect(plan).to_contain_text("No new stick")

    def test_a_scrap_with_no_square_end_is_squared_first(self):
        page = self.open_stock()
        page.get_by_label("Length").fill("107 1/2")
        choose(page, "Size of the scrap", "1/2")
        for end in "AB":
            choose(page, f"End {end} of the scrap", "not square")
        page.get_by_role("button", name="Add", exact=True).click()
        bar = page.get_by_role("region", name="S10, 107 1/2, 1/2 EMT")
        expect(bar).to_contain_text("squared first: 1/2 off")
        page.get_by_role("button", name="Reserve and cut this").click()
        expect(page.get_by_role("region", name="Cutting").get_by_role("region", name="S10")).to_contain_text(
            "squared first"
        )

    def test_a_series_is_cut_with_the_stop_set_once(self):
        page = self.window()
        page.get_by_role("button", name="Wedging table outlet: more").click()
        page.get_by_role("menuitem", name="Several like it").click()
        page.get_by_label("How many in all").fill("4")
        page.get_by_role("button", name="Make them").click()
        expect(page.get_by_role("link", name="Wedging table outlet 4")).to_be_visible()
        page.get_by_role("link", name="Stock and cut list").click()
        plan = page.get_by_role("region", name="1/2 EMT plan")
        expect(plan).to_contain_text("The stop set once for several:", timeout=PATIENCE)
        expect(page.get_by_text("Table box 3: Wedging table outlet 3")).to_be_visible()

    def test_lengths_that_cannot_be_read_are_told_and_kept(self):
        page = self.open_stock()
        page.get_by_label("Length").fill("7 1/0")
        page.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_role("alert")).to_contain_text("nothing can be divided by 0")
        expect(page.get_by_label("Length")).to_have_value("7 1/0")
        page.get_by_text("Add many").click()
        page.get_by_label("One line for each piece").fill('2x ¾" EMT 30 bay 9\n3/4 EMT -3')
        page.get_by_role("button", name="Read the list").click()
        expect(page.get_by_text("Line 2: length “-3”")).to_be_visible()
        expect(page.get_by_role("button", name="Put 2 pieces on the rack")).to_be_disabled()
        page.get_by_label("One line for each piece").fill('2x ¾" EMT 30 bay 9')
        page.get_by_role("button", name="Read the list").click()
        expect(page.get_by_role("region", name="The list as it was read")).to_contain_text("3/4 EMT302bay 9")
        page.get_by_role("button", name="Put 2 pieces on the rack").click()
        expect(page.get_by_role("button", name=re.compile("^S11"))).to_be_visible()

    def test_what_if(self):
        page = self.open_stock()
        page.get_by_role("button", name="What if").click()
        page.get_by_role("button", name="Use no scrap").click()
        expect(page.get_by_text("sticks more")).to_be_visible()
        page.get_by_label("Keep offcuts from").fill("x")
        page.get_by_role("button", name="Try it").click()
        expect(page.get_by_text("is not a length")).to_be_visible()
        expect(page.get_by_label("Keep offcuts from")).to_have_value("x")
        page.get_by_role("button", name="Back to usual").click()
        expect(page.get_by_text("Same as before.")).to_be_visible()
        page.get_by_role("region", name="S5, 71 1/4").get_by_role("button", name="Keep / exclude").click()
        page.get_by_role("menuitem", name="Exclude S5").click()
        expect(page.get_by_role("button", name="Use S5 again")).to_be_visible()
        expect(page.get_by_text("Compared with before:")).to_be_visible()

    def test_a_coupling_held_where_it_is_stays_until_let_go(self):
        page = self.open_stock()
        page.get_by_role("button", name="What if").click()
        plan = page.get_by_role("region", name="3/4 EMT plan")
        plan.get_by_role("button", name="Keep / exclude").last.click()
        item = page.get_by_role("menuitem", name="Keep Glaze store feed’s coupling at")
        at = item.inner_text().split(" at ")[1]
        item.click()
        let_go = page.get_by_role("button", name=f"Release Glaze store feed’s coupling at {at}")
        expect(let_go).to_be_visible()
        page.get_by_role("button", name="Use no scrap").click()
        expect(page.get_by_text("Compared with before:")).to_be_visible()
        expect(plan.get_by_role("img", name=f"{at} for Glaze store feed")).to_be_visible()
        let_go.click()
        expect(let_go).to_be_hidden()

    def test_reserve_cut_undo_and_cut_wrong(self):
        page = self.taken()
        self.assertGreater(Reservation.objects.count(), 0)
        name = "Wedging table outlet, piece 1"
        page.get_by_role("button", name=f"Cut {name}").click()
        expect(page.get_by_text("✓ cut by Dana Wexcombe")).to_be_visible()
        self.assertEqual(Cut.objects.exclude(done_at=None).count(), 1)
        page.get_by_role("button", name=f"Undo the cut of {name}").click()
        expect(page.get_by_role("button", name=f"Cut {name}")).to_be_visible()
        row = page.get_by_role("listitem").filter(has=page.get_by_role("button", name=f"Cut {name}"))
        row.get_by_role("button", name="Came out another length").click()
        row.get_by_label("It is now").fill("64 x")
        row.get_by_role("button", name="Save").click()
        expect(row.get_by_role("alert")).to_contain_text("is not a length")
        row.get_by_label("It is now").fill("64")
        row.get_by_role("button", name="Save").click()
        # The piece is planned again; the short one is on the rack.
        expect(page.get_by_role("region", name="1/2 EMT plan")).to_contain_text("1 stick")
        self.assertTrue(Scrap.objects.filter(length=64, taken_at=None).exists())

    def test_a_plan_of_a_run_that_somebody_changed_is_told_and_made_anew(self):
        mine, theirs = self.open_stock(), self.open_run(user="marek")
        field(theirs, "Step 2, measure").fill("73")
        saved(theirs)
        mine.get_by_role("button", name="Reserve and cut this").click()
        expect(mine.get_by_role("alert")).to_contain_text("Changed since this plan was made: Kiln 2 feed.")
        expect(mine.get_by_role("region", name="Cutting")).to_be_hidden()
        self.assertEqual(Reservation.objects.count(), 0)
        mine.get_by_role("button", name="Reserve and cut this").click()
        expect(mine.get_by_role("region", name="Cutting")).to_contain_text("0 of")

    def test_two_people_cut_a_piece_once(self):
        mine = self.taken()
        theirs = self.window()
        theirs.get_by_role("link", name="Stock and cut list").click()
        cut = "Cut Wedging table outlet, piece 1"
        expect(theirs.get_by_role("button", name=cut)).to_be_visible()
        mine.get_by_role("button", name=cut).click()
        expect(mine.get_by_text("✓ cut by Dana Wexcombe")).to_be_visible()
        theirs.get_by_role("button", name=cut).click()
        expect(theirs.get_by_role("alert")).to_contain_text("was cut already by Dana Wexcombe")
        mine.get_by_role("link", name="Kiln 3 feed, piece 1").click()
        scrap = Cut.objects.get(run__document__name="Kiln 3 feed", piece=1, live=True).bar.scrap
        source = f"From {scrap.tag} ({format_length(scrap.length)} long, {scrap.place}):"
        expect(mine.get_by_role("region", name="Cut and mark")).to_contain_text(source)

    def test_cut_at_the_bench_from_a_scrap_that_is_named(self):
        page = self.open_bench("Wedging table outlet")
        choose(page, "Cut from", "S5, 71 1/4 long")
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_text("All sent")).to_be_visible()
        page.get_by_role("link", name="Stock").click()
        expect(page.get_by_text("✓ cut by Dana Wexcombe")).to_be_visible()
        self.assertIsNotNone(Scrap.objects.get(tag="S5").taken_at)

    def test_labels_and_lists(self):
        page = self.taken()
        page.get_by_role("button", name="labels").click()
        expect(page.get_by_role("img", name="Label: S10")).to_be_visible()
        order = page.get_by_role("region", name="What to bring")
        expect(order).to_contain_text("Panel KP: Kiln 2 feed, Kiln 3 feed, Glaze store feed")
        with page.expect_download() as download:
            order.get_by_role("link", name="CSV").click()
        self.assertIn('stick,"3/4""",EMT,"120"""', download.value.path().read_text())


class WithAPlanner(Journey):
    """As people have it: plans are made by a process of its own, and the page goes on meanwhile."""

    def setUp(self):
        super().setUp()
        later = override_settings(
            TASKS={"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "QUEUES": ["cuts", "mail"]}}
        )
        later.enable()
        self.addCleanup(later.disable)
        command = [sys.executable, str(settings.ROOT / "manage.py"), "planner"]
        planner = subprocess.Popen(command, env={**environment(), "CRELDA_TASKS": ""})
        self.addCleanup(planner.wait)
        self.addCleanup(planner.terminate)

    def test_what_is_tried_stays_in_sight_while_it_is_looked_for_and_the_search_can_be_stopped(self):
        page = self.window()
        page.get_by_role("link", name="Stock and cut list").first.click()
        plan = page.get_by_role("region", name="Plan")
        # The planner starts meanwhile.
        expect(plan.get_by_text("Each cut takes 1/16")).to_be_visible(timeout=3 * PATIENCE)
        looking = page.get_by_role("status").filter(has_text="Looking for the best way to cut")
        expect(looking).to_have_count(0)
        page.get_by_role("button", name="What if …").click()
        page.get_by_label("Blade takes").fill("1/4")
        page.get_by_role("button", name="Try it").click()
        expect(looking).to_be_visible()
        expect(page.get_by_label("Blade takes")).to_have_value("1/4")
        expect(plan.get_by_text("Each cut takes 1/4")).to_be_visible()
        expect(page.get_by_label("Blade takes")).to_have_value("1/4")
        expect(looking).to_have_count(0)
        page.get_by_role("button", name="Search longer").click()
        expect(looking).to_contain_text("10 s at most")
        page.get_by_role("button", name="Stop, keep this plan").click()
        expect(looking).to_have_count(0)
        expect(page.get_by_role("button", name="Reserve and cut this")).to_be_enabled()
