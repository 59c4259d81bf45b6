from random import Random

from playwright.sync_api import expect

from e2e.support import PHONE, Journey, choose, enter, field, saved
from server.accounts.models import User
from server.bench.models import BendMade
from server.jobs.actions import save_run
from server.jobs.models import Run

SWEPT = """run Vent hood switch
pipe 1/2 EMT, straps tight
start box P, right
sweep up, back at 50, around 2 of radius 10, gap 1 1/2, 3 shots
end box Q, seat at 40
"""


class Racks(Journey):
    """Eight pipes side by side, made as a person would."""

    def rack_of(self, count, name="Kiln 2 feed", **more):
        """A run with its rack panel open, and so many pipes in all."""
        page = self.open_run(name, **more)
        page.get_by_role("button", name="Parallel runs", exact=True).click()
        field(page, "Pipes side by side").fill(str(count))
        page.get_by_role("button", name="Make them").click()
        expect(page.get_by_role("list", name="Pipes of the rack").get_by_role("listitem")).to_have_count(count + 1)
        return page

    def pipes(self, name="Kiln 2 feed"):
        lead = next(run for run in Run.objects.present() if run.document["name"] == name)
        return list(Run.objects.present().filter(rack_lead=lead).order_by("rack_number"))

    def test_from_whatever_view_one_comes_the_newest_figure_is_shown(self):
        """A walk at random between views, with saves here and in another window, reloads and steps back."""
        page, chance = self.rack_of(3), Random(11)
        saved(page)
        lead = self.pipes()[0].rack_lead
        dana, rise = User.objects.get(username="dana"), field(page, "Step 1, rise")

        def typed(figure):
            rise.fill(figure)
            saved(page)

        def elsewhere(figure):
            lead.refresh_from_db()
            first, *others = lead.document["steps"]
            save_run(dana, lead.pk, lead.version, {**lead.document, "steps": [{**first, "rise": figure}, *others]})

        def on_the_floor(back):
            if not page.get_by_role("link", name="Lay them out on the floor").is_visible():
                page.get_by_role("button", name="Parallel runs", exact=True).click()
            page.get_by_role("link", name="Lay them out on the floor").click()
            expect(page.get_by_role("heading", name="On the floor")).to_be_visible()
            back()

        def to_the_walk():
            page.get_by_role("link", name="To Layout").click()

        def by_tab(view):
            page.get_by_role("navigation", name="Views").get_by_role("link", name=view, exact=True).click()
            expect(page.get_by_role("heading", name=view, exact=True).first).to_be_attached()
            page.go_back()

        moves = [
            *(lambda: on_the_floor(to_the_walk), lambda: on_the_floor(page.go_back), page.reload),
            *(lambda: by_tab("Bench"), lambda: by_tab("Log")),
        ]
        for number in range(12):
            change, newest = chance.choice([typed, elsewhere]), str(chance.randint(3, 6) + number / 16)
            change(newest)
            chance.choice(moves)()
            expect(rise).to_have_value(newest)
            expect(page.get_by_text("after you opened it")).to_be_hidden()
            lead.refresh_from_db()
            self.assertEqual(str(lead.document["steps"][0]["rise"]), newest)

    def test_eight_pipes_turn_with_growing_kicks_and_lie_on_the_floor(self):
        page = self.rack_of(8, "Kiln 3 feed")
        expect(page.get_by_test_id("beside")).to_have_count(7)
        choose(page, "Side on which they lie", "right")
        choose(page, "Step 1, beside: way", "with growing kicks")
        choose(page, "Step 1, beside: side after it", "out")
        field(page, "Step 1, beside: setback").fill("14")
        saved(page)
        expect(page.get_by_text("All 8 pipes, gaps kept")).to_be_visible()
        expect(page.get_by_role("region", name="Gaps").get_by_role("row")).to_have_count(8)
        steps = [run.document["steps"][0] for run in self.pipes("Kiln 3 feed")]
        self.assertEqual(
            [(round(step["rise"], 9), round(step["kick_back"], 9)) for step in steps],
            [(3 * k, 14 + 3 * k) for k in range(1, 8)],
        )
        page.get_by_role("link", name="Lay them out on the floor").click()
        first = page.get_by_role("region", name="Stick 1")
        expect(first.get_by_role("img", name="8 sticks side by side")).to_be_visible()
        expect(first.get_by_text("kicks, smallest first").first).to_be_visible()
        expect(first.get_by_text("kick 21")).to_be_visible()
        first.get_by_label("the card’s marks beside it").check()
        expect(first.get_by_text("by the card", exact=False).first).to_be_visible()
        expect(first.get_by_text("their ends would be out by", exact=False)).to_be_visible()
        page.emulate_media(media="print")
        expect(page.get_by_role("button", name="Print")).to_be_hidden()
        expect(first.get_by_role("list", name="Order of bending")).to_be_visible()
        page.emulate_media(media="screen")
        first.get_by_role("link", name="3 Kiln 3 feed 3").click()
        expect(page.get_by_text("Kiln 3 feed 3").first).to_be_visible()

    def test_a_pipe_leaves_and_goes_on_by_itself(self):
        page = self.rack_of(3)
        page.get_by_role("button", name="Pipe 3: more").click()
        page.get_by_role("menuitem", name="On its own from the last step").click()
        expect(page.get_by_text("2 of 3 pipes can be bent")).to_be_visible()
        page.get_by_role("button", name="Pipe 3: add a bend or fitting").click()
        page.get_by_role("menuitem", name="90° bend at a wall or corner").click()
        choose(page, "Pipe 3, step 1, new heading", "out")
        field(page, "Pipe 3, step 1, measure").fill("40")
        field(page, "Pipe 3, end box").fill("Spare")
        field(page, "Pipe 3, end, pipe end at").fill("30")
        expect(page.get_by_text("All 3 pipes", exact=False)).to_be_visible()
        saved(page)
        page.get_by_role("button", name="Field note").click()
        note = page.get_by_role("textbox", name="The run as a field note")
        for line in ("rack pipe 3, leaves after step 3", "90 out, back at 40", "end box Spare, seat at 30"):
            expect(note).to_contain_text(line)
        page.get_by_role("button", name="Parallel runs", exact=True).click()
        choose(page, "Pipe 3, leaves", "after step 2")
        page.get_by_role("button", name="Pipe 3, step 1: more").click()
        page.get_by_role("menuitem", name="Remove this 90").click()
        expect(field(page, "Pipe 3, step 1, measure")).to_be_hidden()
        page.get_by_role("button", name="Undo").click()
        saved(page)
        self.assertEqual(self.pipes()[1].document["end"]["name"], "Spare")

    def test_a_sweep_beside_a_sweep_keeps_one_centre(self):
        page = self.rack_of(4)
        choose(page, "Side on which they lie", "left")
        choose(page, "Step 2, beside: way", "round about one centre")
        choose(page, "Step 3, beside: way", "round about one centre")
        expect(page.get_by_text("All 4 pipes, gaps kept")).to_be_visible()
        expect(page.get_by_role("region", name="Gaps").get_by_text("all along")).to_have_count(3)
        choose(page, "Side on which they lie", "right")
        expect(page.get_by_text("inside the lead's 90").first).to_be_visible()
        choose(page, "Step 3, beside: way", "round with equal radii")
        page.get_by_role("button", name="Step 2: Other ways, arithmetic").click()
        ways = page.get_by_role("region", name="Ways to run them in parallel")
        expect(ways.get_by_role("listitem")).to_have_count(6)
        ways.get_by_role("button", name="Use it: round with equal radii").click()
        expect(page.get_by_role("combobox", name="Step 2, beside: way")).to_have_text("round with equal radii")

    def test_two_pipes_are_bent_and_a_correction_is_carried_on(self):
        self.rack_of(3, name="Wedging table outlet")
        for pipe, reads in ((2, 92), (3, 90)):
            page = self.window()
            page.get_by_role("link", name=f"Wedging table outlet {pipe}").click()
            page.get_by_role("link", name="Bench").click()
            page.get_by_role("button", name="Cut and marked").click()
            if pipe == 3:
                expect(
                    page.get_by_text("Pipe 2 of these parallel runs, bent this way on this shoe, came out +2.0°.")
                ).to_be_visible()
                page.get_by_role("button", name="Set the dial to 88°").click()
                expect(page.get_by_role("button", name="Dial as the sheet says, 90°")).to_be_visible()
            enter(page, reads)
            expect(
                page.get_by_text("Within tolerance" if pipe == 3 else "Out of tolerance", exact=True)
            ).to_be_visible()
            expect(page.get_by_text("All sent")).to_be_visible()
        self.assertEqual(BendMade.objects.order_by("pk").last().dial, 88)

    def test_a_sweep_is_bent_shot_by_shot_on_one_screen(self):
        page = self.open_run("Vent hood switch")
        page.get_by_role("button", name="Field note").click()
        note = page.get_by_role("textbox", name="The run as a field note")
        expect(note).to_contain_text("90 right")
        note.click()
        page.keyboard.press("Control+A")
        page.keyboard.insert_text(SWEPT)
        expect(page.get_by_text("around a pipe of")).to_be_visible()
        saved(page)
        page.get_by_role("link", name="Bench").click()
        page.get_by_role("button", name="Cut and marked").click()
        sweep = page.get_by_role("region", name="Sweep", exact=True)
        for shot, reads in enumerate((30.8, 60.4, 90), 1):
            expect(sweep.get_by_text(f"Shot {shot} of 3")).to_be_visible()
            page.get_by_label("finder reads").fill(str(reads))
            page.get_by_role("button", name="Enter it").click()
            # What it says of the shot moves what stands below it.
            expect(page.get_by_text("All sent")).to_be_visible()
        expect(sweep.get_by_role("button", name="Shot 3, made")).to_be_visible()
        expect(page.get_by_text("All sent")).to_be_visible()
        made = [round(one.angle, 1) for one in BendMade.objects.order_by("bend")]
        self.assertEqual(made, [30.8, 29.6, 29.6])

    def test_a_pipe_is_looked_at_alone_and_changed_in_its_lead(self):
        page = self.rack_of(2, name="Vent hood switch")
        saved(page)
        page.get_by_role("link", name="Crelda, all jobs").click()
        page.get_by_role("link", name="Vent hood switch 2").click()
        expect(page.get_by_text("This is pipe 2 of a rack")).to_be_visible()
        expect(field(page, "Step 1, measure")).to_be_disabled()
        page.get_by_role("link", name="Vent hood switch", exact=True).click()
        page.get_by_role("button", name="Parallel runs", exact=True).click()
        page.get_by_role("button", name="Run this pipe alone again").click()
        page.get_by_role("button", name="Remove them").click()
        saved(page)
        self.assertEqual(self.pipes("Vent hood switch"), [])
        page.get_by_role("button", name="Undo").click()
        saved(page)
        self.assertEqual(len(self.pipes("Vent hood switch")), 1)


class OfTheDemo(Journey):
    whole = True

    def test_on_a_phone_the_floor_is_read_by_moving_it(self):
        page = self.window(size=PHONE)
        page.get_by_role("link", name="Kiln 4 feed").click()
        # The picture comes above the list, and moves it.
        expect(page.get_by_text("Can be bent", exact=True)).to_be_visible()
        page.get_by_role("button", name="Parallel runs", exact=True).click()
        page.get_by_role("link", name="Lay them out on the floor").click()
        expect(page.get_by_role("img", name="5 sticks side by side").first).to_be_visible()
        self.assertEqual(page.evaluate("document.documentElement.scrollWidth"), PHONE["width"])
