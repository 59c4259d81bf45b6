import re
from itertools import permutations

from playwright.sync_api import expect

from conduit.bending import Arranged, Bencher
from conduit.tests.support import document, ninety
from conduit.units import parse_length
from e2e.support import PHONE, Journey, choose, enter, field, kept_bench, move_by_keys, saved, screen, sheet_of, until
from server.accounts.models import User
from server.bench.models import BendMade
from server.demo.scene import JOB
from server.jobs.actions import add_run, save_run
from server.jobs.models import Job, Run


class OneStick(Journey):
    def test_cut_and_mark_then_one_bend_a_screen_on_a_phone(self):
        page = self.open_bench(size=PHONE)
        sheet = sheet_of()
        expect(page.get_by_test_id("cut")).to_have_text(sheet.cut.reads)
        for bend in sheet.bends:
            expect(page.get_by_role("cell", name=bend.use.at.reads, exact=True)).to_be_visible()
        page.get_by_role("button", name="Cut and marked").click()
        for bend in sheet.bends:
            card = screen(page, bend.number)
            expect(card.get_by_test_id("mark")).to_have_text(bend.use.at.reads)
            for words in (bend.turn_says, *bend.cautions, *(check.says for check in bend.checks)):
                expect(card.get_by_text(words, exact=True).first).to_be_visible()
            for button in page.get_by_role("navigation").get_by_role("button").all():
                self.assertGreaterEqual(button.bounding_box()["height"], 48)
            page.get_by_role("navigation", name="Screens").get_by_role("button").last.click()
        expect(page.get_by_role("region", name="Fit")).to_be_visible()
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), PHONE["width"])

    def test_a_stick_in_spanish(self):
        """What the core says, and what the view itself says; the readings are entered as in English."""
        page = self.open_bench()
        page.get_by_role("button", name="Dana Wexcombe").click()
        page.get_by_role("menuitemradio", name="Español").click()
        expect(page.get_by_role("region", name="Cortar y marcar")).to_be_visible()
        expect(page.get_by_test_id("cut")).to_have_text(sheet_of().cut.reads)
        page.get_by_role("button", name="Cortado y marcado").click()
        first, second, _ = sheet_of().bends
        card = page.get_by_role("region", name=f"Curva {first.number}")
        for words in (first.turn_says, *first.cautions, *(check.says for check in first.checks)):
            expect(card.get_by_text(words.told_in("es"), exact=True).first).to_be_visible()
        page.get_by_role("button", name="Siguiente curva").click()
        expect(page.get_by_role("region", name=f"Curva {second.number}")).to_be_visible()
        page.get_by_label("El medidor de ángulos marca, grados").fill("27")
        page.get_by_role("button", name="Anotar", exact=True).click()
        correction = page.get_by_role("region", name="Corrección")
        expect(correction).to_contain_text(f"Cierre la curva {second.number} 3.0°, a 30°")
        expect(correction).to_contain_text("De vuelta en la zapata, con la marca en la misma referencia")

    def test_a_stick_is_taken_to_another_shoe_of_its_size(self):
        page = self.open_bench()
        choose(page, "Shoe for this stick", "Yard spare")
        expect(page.get_by_text("On Yard spare piece 1 would be 120 1/4, and a stick is 120")).to_be_visible()
        page.get_by_role("button", name="Discard it").click()
        page.get_by_role("link", name="Stick 2").click()
        choose(page, "Shoe for this stick", "Yard spare")
        expect(page.get_by_test_id("cut")).to_have_text("68 13/16")
        expect(page.get_by_role("region", name="Cut and mark").get_by_text("For Yard spare, not for")).to_be_visible()
        choose(page, "Shoe for this stick", "Old faithful, the run’s")
        expect(page.get_by_test_id("cut")).to_have_text("68 9/16")

    def test_a_whole_stick_with_one_bad_bend_and_its_correction(self):
        page = self.open_bench()
        page.get_by_role("button", name="Cut and marked").click()
        first, second, third = sheet_of().bends
        enter(page, 90.2, first.tape.wanted.reads)
        expect(screen(page, first.number).get_by_text("Within tolerance")).to_be_visible()
        page.get_by_role("button", name="Next bend").click()
        enter(page, 27)
        expect(screen(page, second.number).get_by_text("Out of tolerance", exact=True)).to_be_visible()
        correction = page.get_by_role("region", name="Correction")
        expect(correction).to_contain_text(f"Close bend {second.number} by 3.0°, to 30°")
        # It is left as it is: the rest is marked anew, and the next screen shows the new mark and the old one.
        page.get_by_role("button", name=re.compile("Leave bend")).click()
        wanted = {"bend": first.number, "angle": 90.2, "tape": parse_length(first.tape.wanted.reads)}
        left = sheet_of(0, wanted, {"bend": second.number, "angle": 27, "left": True})
        expect(correction).to_contain_text("Re-mark the rest")
        again = next(bend for bend in left.bends if bend.number == third.number)
        page.get_by_role("button", name="Next bend").click()
        card = screen(page, third.number)
        expect(card.get_by_test_id("mark")).to_have_text(again.use.at.reads)
        self.assertNotEqual(again.use.at.reads, third.use.at.reads)
        expect(card).to_contain_text(f"was {third.use.at.reads}")
        page.get_by_role("button", name="Read the angle finder").click()
        expect(page.get_by_label("finder reads")).not_to_have_value("")
        enter(page, f"{again.angle:.2f}")
        expect(card.get_by_text("Within tolerance")).to_be_visible()
        expect(correction).to_be_hidden()
        page.get_by_role("button", name="On to fitting").click()
        page.get_by_role("button", name="It is fitted").click()
        expect(page.get_by_text("Fitted by Dana Wexcombe")).to_be_visible()
        self.assertEqual(BendMade.objects.filter(live=True).count(), 3)
        page.get_by_role("link", name="Crelda, all jobs").click()
        expect(page.get_by_role("link", name="Kiln 2 feed")).to_contain_text("1 of 2 cut, 3 of 4 bends")

    def test_status_in_the_jobs_list_moves_with_the_work(self):
        page = self.open_bench("Wedging table outlet")
        for button, status in (("Cut and marked", "cut"), ("Enter it", "bent"), ("It is fitted", "fitted")):
            if status == "bent":
                page.get_by_label("finder reads").fill("90")
            page.get_by_role("button", name=button).click()
            expect(page.get_by_text("All sent")).to_be_visible()
            page.get_by_role("link", name="Crelda, all jobs").click()
            row = page.get_by_role("link", name="Wedging table outlet")
            expect(row.get_by_text(status, exact=True)).to_be_visible()
            row.click()
            page.get_by_role("link", name="Bench").click()

    def test_a_slip_is_taken_back_and_what_cannot_be_read_is_told_and_kept(self):
        page = self.open_bench("Wedging table outlet")
        page.get_by_role("button", name="Cut and marked").click()
        enter(page, "ninety", "38 1/0")
        expect(page.get_by_text("Enter the degrees")).to_be_visible()
        expect(page.get_by_label("Tape reads")).to_have_value("38 1/0")
        page.get_by_label("finder reads").fill("90")
        page.get_by_role("button", name="Enter it").click()
        expect(page.get_by_role("alert")).to_contain_text("nothing can be divided by 0")
        # What was typed is still there, to be mended.
        expect(page.get_by_label("Tape reads")).to_have_value("38 1/0")
        expect(page.get_by_label("finder reads")).to_have_value("90")
        enter(page, "9", "")
        expect(page.get_by_text("Out of tolerance", exact=True)).to_be_visible()
        page.get_by_role("button", name="Delete this reading").click()
        page.get_by_role("button", name="Delete it").click()
        expect(page.get_by_label("finder reads")).to_have_value("")
        expect(page.get_by_text("All sent")).to_be_visible()
        self.assertFalse(BendMade.objects.filter(live=True).exists())

    def test_that_the_run_was_changed_is_told_wherever_the_stick_is_worked_on(self):
        page = self.open_bench("Wedging table outlet")
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_text("All sent")).to_be_visible()
        run = next(one for one in Run.objects.all() if one.document["name"] == "Wedging table outlet")
        longer = {**run.document, "steps": [{**run.document["steps"][0], "at": "40"}]}
        save_run(User.objects.get(username="marek"), run.pk, run.version, longer)
        page.reload()
        told = page.get_by_role("main").get_by_text("changed after this stick was started")
        for screen_at in ("cut", "1", "fit"):
            page.goto(f"{page.url.split('?')[0]}?at={screen_at}")
            expect(told.first).to_be_visible()
        self.assertIn("changed after this stick was started", page.locator("[data-theme='light']").first.text_content())
        page.get_by_role("link", name="The run as it is now").click()
        worked_on = page.get_by_role("region", name="Pieces already worked on")
        # While it is typed it is told how the cut piece stands to it.
        expect(worked_on).to_contain_text("Piece 1 is cut at")
        field(page, "Step 1, measure").fill("50")
        expect(worked_on).to_contain_text(re.compile("with this it is .* short"))
        expect(worked_on.get_by_role("link", name="Use the cut piece elsewhere")).to_be_visible()
        page.get_by_role("link", name="Crelda, all jobs").click()
        row = page.get_by_role("link", name="Wedging table outlet")
        expect(row).to_contain_text("changed since stick 1 was started")

    def test_two_people_at_one_stick(self):
        mine, theirs = self.open_bench(), self.open_bench(user="marek")
        for page in (mine, theirs):
            page.get_by_role("button", name=re.compile("Cut and marked|On to the bends")).click()
            expect(page.get_by_label("finder reads")).to_be_visible()
        # Mine does not look what others did before I enter what I read.
        mine.route(
            re.compile(r"/api/runs/\d+/bench$"),
            lambda route: route.abort() if route.request.method == "GET" else route.continue_(),
        )
        # It is told on theirs before the server has it: mine may come only after that.
        enter(theirs, 90.3)
        until(theirs, BendMade.objects.exists)
        enter(mine, 89)
        expect(mine.get_by_role("alert")).to_contain_text("is already entered: 90.3° by Marek Olin")
        expect(screen(mine, 3)).to_contain_text("Marek Olin")
        self.assertEqual(BendMade.objects.get().angle, 90.3)

    def test_a_viewer_may_only_look(self):
        page = self.open_bench(user="ivy")
        expect(page.get_by_role("button", name="Cut and marked")).to_be_hidden()
        page.get_by_role("link", name="Stick 2").click()
        page.get_by_role("button", name="Next bend").click()
        expect(screen(page, 4)).to_be_visible()
        expect(page.get_by_label("finder reads")).to_be_hidden()

    def test_an_impossible_run_is_not_bent(self):
        page = self.open_run()
        field(page, "Step 1, angle").fill("60")
        field(page, "Step 1, rise").fill("2")
        saved(page)
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_role("heading", name="Nothing to bend yet")).to_be_visible()
        expect(page.get_by_role("alert")).to_contain_text("run into each other")

    def test_what_was_typed_right_before_is_what_is_bent(self):
        page = self.open_run("Wedging table outlet")
        field(page, "Step 1, measure").fill("40 1/2")
        page.get_by_role("link", name="Bench").click()
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_role("region", name="Then it must read")).to_contain_text("40 1/2")


class Arranging(Journey):
    def listed(self, page):
        rows = page.get_by_role("list", name="Work on stick 1").get_by_role("button", name=re.compile("^Move bend"))
        return [int(re.search(r"\d+", name)[0]) for name in rows.evaluate_all("all => all.map(one => one.ariaLabel)")]

    def test_the_proposed_order_says_why_and_another_says_what_it_is_against(self):
        page = self.open_bench("Glaze store feed")
        sheet = sheet_of(4)
        expect(page.get_by_role("button", name="Move bend 1 in the order")).to_be_visible()
        self.assertEqual(self.listed(page), [bend.number for bend in sheet.bends])
        self.assertEqual(sheet.bends[0].number, 2, "a saddle's centre comes first")
        grip = page.get_by_role("button", name="Move bend 2 in the order")
        below = page.get_by_role("button", name="Move bend 1 in the order").bounding_box()
        grip.hover()
        page.mouse.down()
        page.mouse.move(below["x"] + 8, below["y"] + 20, steps=4)
        page.mouse.move(below["x"] + 8, below["y"] + 38, steps=4)
        page.mouse.up()
        expect(page.get_by_text("Your order")).to_be_visible()
        expect(page.get_by_text("Not the usual order: Saddle: the centre first").first).to_be_visible()
        self.assertEqual(self.listed(page)[:2], [1, 2])
        page.get_by_role("button", name="Back to the proposed order").click()
        expect(page.get_by_text("Proposed order")).to_be_visible()

    def test_a_dog_leg_is_entered_and_the_rest_rolled_to_make_up_for_it(self):
        page = self.open_bench()
        page.get_by_role("button", name="Cut and marked").click()
        first, second, _ = sheet_of().bends
        enter(page, first.angle)
        page.get_by_role("button", name="Next bend").click()
        page.get_by_text("It has a dog-leg").click()
        page.get_by_label("Dog-leg, degrees").fill("4")
        enter(page, second.angle)
        card = screen(page, second.number)
        expect(card.get_by_text("dog-leg 4.0° clockwise")).to_be_visible()
        expect(card.get_by_text("Out of tolerance", exact=True)).to_be_visible()
        expect(page.get_by_role("region", name="Correction")).to_contain_text("leans")

    def test_an_order_that_cannot_be_is_told_at_its_bend(self):
        dana = User.objects.get(username="dana")
        tight = document([ninety(20, "up"), ninety(14, "right"), ninety(30, "up")], 30, name="Tight corner")
        add_run(dana, Job.objects.get(name=JOB[0]).pk, tight)
        page = self.open_bench("Tight corner")
        expect(page.get_by_text("Proposed order")).to_be_visible()
        proposed = self.listed(page)
        broken = next(order for order in permutations(proposed) if self.why_not(tight, order))
        for place, bend in enumerate(broken):
            for _ in range(self.listed(page).index(bend) - place):
                self.move_up(page, bend)
        self.assertEqual(self.listed(page), list(broken))
        expect(page.get_by_text(self.why_not(tight, broken))).to_be_visible()
        expect(page.get_by_role("alert").filter(has_text="Cannot be bent at this point").first).to_be_visible()

    def why_not(self, raw, order):
        hooks = {bend.number: bend.use.hook for bend in Bencher(raw).sheet(1).bends}
        chosen = [{"bend": bend, "hook": hooks[bend]} for bend in order]
        return Bencher(raw).sheet(1, Arranged(order=chosen)).why_not

    def move_up(self, page, bend):
        move_by_keys(page, f"Move bend {bend} in the order", "ArrowUp")
        expect(page.get_by_text("All sent")).to_be_visible()

    def test_reference_hook_card_and_burnt_inch(self):
        page = self.open_bench("Wedging table outlet")
        bend = sheet_of(3).bends[0]
        page.get_by_role("radio", name="First inch burnt").click()
        expect(page.get_by_role("cell", name=bend.burnt.reads, exact=True)).to_be_visible()
        page.get_by_role("radio", name="Tape on the end").click()
        page.get_by_role("button", name="Cut and marked").click()
        page.get_by_role("combobox", name="Reference").click()
        page.get_by_role("option", name="star").click()
        star = next(m for m in bend.marks if (m.reference, m.hook) == ("star", "A"))
        expect(page.get_by_test_id("mark")).to_have_text(star.at.reads)
        page.get_by_role("radio", name="Hook faces B").click()
        turned = sheet_of(3, order=[{"bend": 1, "hook": "B"}]).bends[0]
        on_star = next(m for m in turned.marks if (m.reference, m.hook) == ("star", "B"))
        expect(page.get_by_test_id("mark")).to_have_text(on_star.at.reads)

    def test_card_marks_and_what_is_spared(self):
        page = self.open_bench()
        card = sheet_of(marks="card")
        page.get_by_role("radio", name="By the card").click()
        for bend in card.bends:
            expect(page.get_by_role("cell", name=bend.use.at.reads, exact=True)).to_be_visible()
        field(page, "Extra length on end B").fill("2 1/2")
        page.get_by_role("button", name="Set the extra length on end B").click()
        expect(page.get_by_test_id("cut")).to_have_text("122 1/2")
        field(page, "Extra length on end A").fill("3")
        page.get_by_role("button", name="Set the extra length on end A").click()
        expect(page.get_by_test_id("cut")).to_have_text("125 1/2")
        for bend in sheet_of(marks="card", spare="2 1/2", spare_a="3").bends:
            expect(page.get_by_role("cell", name=bend.use.at.reads, exact=True)).to_be_visible()

    def test_a_sheet_a_stick_is_printed_with_a_code_that_opens_it(self):
        page = self.open_bench()
        page.emulate_media(media="print")
        for piece in (1, 2):
            card = page.get_by_role("region", name=f"Card of stick {piece}")
            for bend in sheet_of(piece=piece).bends:
                expect(card.get_by_role("cell", name=bend.use.at.reads, exact=True)).to_be_visible()
            code = card.get_by_role("img", name=f"Opens stick {piece}")
            expect(code).to_be_visible()
            address = re.search(r"http\S+", code.locator("title").text_content())[0]
            page.emulate_media(media="screen")
            page.goto(address)
            expect(page.get_by_test_id("cut")).to_have_text(sheet_of(piece=piece).cut.reads)
            page.emulate_media(media="print")


class InABasement(Journey):
    def test_offline_and_back(self):
        page = self.window(installed=True, size=PHONE)
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.reload()
        page.get_by_role("link", name="Wedging table outlet").click()
        page.get_by_role("link", name="Bench").click()
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_text("All sent")).to_be_visible()
        kept_bench(page)
        page.context.set_offline(True)
        # The phone was in the pocket and the page is loaded anew, without a network.
        page.reload()
        expect(page.get_by_test_id("mark")).to_have_text(sheet_of(3).bends[0].use.at.reads)
        enter(page, 88)
        expect(page.get_by_text("Out of tolerance", exact=True)).to_be_visible()
        expect(page.get_by_text("Finish this bend to 90°")).to_be_visible()
        page.get_by_role("button", name="Read again").click()
        enter(page, 90.1)
        expect(page.get_by_text("Within tolerance")).to_be_visible()
        expect(page.get_by_text("No network, 2 kept here")).to_be_visible()
        page.reload()
        expect(page.get_by_text("No network, 2 kept here")).to_be_visible()
        self.assertFalse(BendMade.objects.exists())
        page.context.set_offline(False)
        expect(page.get_by_text("All sent")).to_be_visible()
        self.assertEqual([one.angle for one in BendMade.objects.order_by("id")], [88, 90.1])
        self.assertEqual(BendMade.objects.get(live=True).angle, 90.1)
        expect(page.get_by_text("Within tolerance")).to_be_visible()

    def test_what_was_read_is_sent_from_wherever_one_is_when_the_network_is_back(self):
        page = self.open_bench("Wedging table outlet")
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_text("All sent")).to_be_visible()
        page.context.set_offline(True)
        enter(page, 90.2)
        expect(page.get_by_text("No network, 1 kept here")).to_be_visible()
        page.get_by_role("link", name="Crelda, all jobs").click()
        expect(page.get_by_role("heading", name="Jobs")).to_be_visible()
        expect(page.get_by_text("No network here. What is shown is from ")).to_be_visible()
        page.context.set_offline(False)
        expect(page.get_by_text("No network here.")).to_have_count(0)
        row = page.get_by_role("link", name="Wedging table outlet")
        expect(row.get_by_text("bent", exact=True)).to_be_visible()
        self.assertEqual(BendMade.objects.get().angle, 90.2)

    def test_it_can_be_installed(self):
        page = self.window(installed=True)
        manifest = page.evaluate("fetch(document.querySelector('link[rel=manifest]').href).then((got) => got.json())")
        self.assertEqual((manifest["name"], manifest["display"]), ("Crelda", "standalone"))
        for icon in manifest["icons"]:
            self.assertEqual(page.request.get(self.live_server_url + icon["src"]).status, 200)
