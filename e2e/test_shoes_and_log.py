from playwright.sync_api import expect

from e2e.support import Journey, choose, enter, field, screen, sheet_of
from server.shoes.models import Shoe


class Shoes(Journey):
    def test_a_test_bend_changes_the_marks_of_later_sticks(self):
        page = self.window()
        page.get_by_role("link", name="Shoes").click()
        shoe = page.get_by_role("region", name="Van half-inch", exact=True)
        shoe.get_by_role("button", name="Calibrate").click()
        for label, value in (("length", "30"), ("leg", "12 1/8"), ("other leg", "20 1/2")):
            field(page, f"Test 1, {label}").fill(value)
        expect(shoe).to_contain_text("Deduct 5 1/8 (now 5), gain 2 5/8")
        page.get_by_role("button", name="Use these figures from now on").click()
        expect(shoe.get_by_text("In use since").first).to_contain_text("deduct 5 1/8")
        # A run that was laid out before says so, and takes the new figures with one touch.
        page.goto(self.live_server_url)
        page.get_by_role("link", name="Wedging table outlet").click()
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_text("Made with other figures than Van half-inch has now").first).to_be_visible()
        page.get_by_role("button", name="Mark it with the shoe’s current figures").click()
        expect(page.get_by_text("Made with other figures")).to_have_count(0)
        bend = sheet_of(3).bends[0]
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_test_id("mark")).to_have_text("33 3/8")
        self.assertEqual(bend.use.at.reads, "33 1/2", "an eighth less than with the old deduct")

    def test_uncalibrated_figures_are_told_on_the_card(self):
        page = self.open_bench("Kiln 3 feed")
        caution = page.get_by_text("Borrowed 1 inch is not calibrated").first
        expect(caution).to_be_visible()
        page.get_by_role("button", name="Cut and marked").click()
        expect(screen(page, 1).get_by_text("Borrowed 1 inch is not calibrated").last).to_be_visible()
        page.emulate_media(media="print")
        expect(page.get_by_text("Borrowed 1 inch is not calibrated").last).to_be_visible()

    def test_a_shoe_is_added_changed_and_removed(self):
        page = self.window()
        page.get_by_role("link", name="Shoes").click()
        page.get_by_role("button", name="Add a shoe").click()
        page.get_by_label("Name").fill("Blue head")
        page.get_by_label("Gain").fill("1/2")
        page.get_by_label("Deduct").fill("6")
        page.get_by_role("button", name="Add the shoe").click()
        expect(page.get_by_text("leaves no bending radius")).to_be_visible()
        page.get_by_label("Gain").fill("3 1/4")
        page.get_by_label("Own reference").fill("blue line")
        page.get_by_label("… from the arrow").fill("1 1/2")
        page.get_by_role("button", name="Add the shoe").click()
        shoe = page.get_by_role("region", name="Blue head", exact=True)
        expect(shoe.get_by_role("img", name="blue line")).to_be_visible()
        expect(shoe.get_by_text("Not calibrated")).to_be_visible()
        shoe.get_by_role("button", name="Change").click()
        shoe.get_by_label("Name").fill("Bluer head")
        page.get_by_role("button", name="Save").click()
        page.get_by_role("button", name="Delete the shoe Bluer head").click()
        page.get_by_role("button", name="Delete the shoe", exact=True).click()
        expect(page.get_by_role("heading", name="Bluer head")).to_be_hidden()
        self.assertFalse(Shoe.objects.present().filter(name="Bluer head").exists())
        page.get_by_role("region", name="In the bin").get_by_role("button", name="Restore").click()
        expect(page.get_by_role("heading", name="Bluer head")).to_be_visible()
        self.assertTrue(Shoe.objects.present().filter(name="Bluer head").exists())


class WithHistory(Journey):
    whole = True

    def test_the_log_proposes_and_its_figures_are_taken(self):
        page = self.window()
        page.get_by_role("link", name="Shoes").click()
        shoe = page.get_by_role("region", name="Old faithful", exact=True)
        expect(shoe).to_contain_text("bends show a deduct of 6 1/16")
        expect(shoe.get_by_role("img", name="Deduct over time")).to_be_visible()
        page.get_by_role("button", name="Use the log’s figures").click()
        expect(shoe.get_by_text("from the log by Dana Wexcombe")).to_be_visible()
        self.assertAlmostEqual(Shoe.objects.get(name="Old faithful").deduct, 6.0625, delta=1 / 32)
        expect(page.get_by_role("button", name="Use the log’s figures")).to_be_hidden()

    def test_the_log_is_narrowed_and_given_as_csv(self):
        page = self.open_bench("Wedging table outlet")
        page.get_by_role("button", name="Cut and marked").click()
        enter(page, 90)
        expect(page.get_by_text("All sent")).to_be_visible()
        page.get_by_role("link", name="Log").click()
        rows = page.get_by_role("row")
        expect(rows).to_have_count(2)
        choose(page, "Run", "all")
        expect(rows).to_have_count(10)
        choose(page, "Person", "Marek Olin")
        expect(rows).to_have_count(9)
        with page.expect_download() as download:
            page.get_by_role("link", name="As CSV").click()
        lines = download.value.path().read_text().splitlines()
        self.assertEqual(len(lines), 9)
        self.assertTrue(all("Marek Olin" in line for line in lines[1:]))
