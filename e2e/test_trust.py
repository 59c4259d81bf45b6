"""What people must be able to rely on: nothing lost, nothing done twice, nothing of one seen by another."""

import json
import time
from unittest.mock import patch

from django.db import OperationalError
from playwright.sync_api import expect
from qsessions.models import Session

from e2e.support import PHONE, Journey, enter, field, kept_bench, of_the_menu, saved, until
from server.accounts.actions import add_person
from server.accounts.models import Crew, Role, User
from server.bench.models import BendMade, Stick
from server.demo.scene import PASSWORD
from server.jobs.actions import remove_run, save_run
from server.jobs.models import Run
from server.stock.models import Scrap

# Tells what this page ever shows, from its first frame on.
WATCH = """
window.everShown = "";
new MutationObserver(() => { window.everShown += document.body?.innerText ?? ""; })
    .observe(document, { subtree: true, childList: true, characterData: true });
"""


class Trust(Journey):
    def open_first_bench(self, page):
        page.get_by_role("link", name="Wedging table outlet").click()
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_role("region", name="Cut and mark")).to_be_visible()

    def sign_out_by_time(self):
        Session.objects.all().delete()


def only_reading(route):
    return route.abort() if route.request.method == "POST" else route.continue_()


class AtTheBench(Trust):
    def test_two_tabs_without_a_network_lose_nothing_of_each_other(self):
        one = self.open_bench("Wedging table outlet")
        other = one.context.new_page()
        other.goto(one.url)
        expect(other.get_by_role("region", name="Cut and mark")).to_be_visible()
        one.context.set_offline(True)
        one.get_by_role("button", name="Cut and marked").click()
        expect(one.get_by_text("No network, 1 kept here")).to_be_visible()
        expect(other.get_by_text("1 kept here")).to_be_visible()
        other.get_by_role("button", name="Next bend").or_(other.get_by_role("button", name="On to the bends")).click()
        enter(other, 90.2)
        expect(one.get_by_text("2 kept here")).to_be_visible()
        one.context.set_offline(False)
        for page in (one, other):
            expect(page.get_by_text("All sent")).to_be_visible()
        self.assertEqual(BendMade.objects.get().angle, 90.2)
        self.assertIsNotNone(Stick.objects.get().cut_at)

    def test_signed_out_by_time_all_is_kept_and_sent_by_whoever_did_it(self):
        page = self.open_bench("Wedging table outlet")
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_text("All sent")).to_be_visible()
        page.route("**/api/runs/*/bench", only_reading)
        enter(page, 90.2)
        expect(page.get_by_text("1 kept here")).to_be_visible()
        self.sign_out_by_time()
        page.unroute("**/api/runs/*/bench")
        expect(page.get_by_text("1 entry from the bench is kept on this device")).to_be_visible()
        self.sign_in(page, "marek")
        expect(page.get_by_role("button", name="Marek Olin")).to_be_visible()
        expect(page.get_by_text("All sent")).to_be_visible()
        self.assertFalse(BendMade.objects.exists())
        self.dana_s_bend_comes_after_marek(page)

    def test_a_bend_of_one_is_not_another_s_who_signed_in_behind_the_page(self):
        page = self.open_bench("Wedging table outlet")
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_text("All sent")).to_be_visible()
        token = next(one["value"] for one in page.context.cookies() if one["name"] == "csrftoken")
        page.context.request.post(
            f"{self.live_server_url}/api/session",
            data={"username": "marek", "password": PASSWORD},
            headers={"X-CSRFToken": token, "Referer": self.live_server_url},
        )
        enter(page, 90.2)
        expect(page.get_by_role("button", name="Marek Olin")).to_be_visible()
        self.assertFalse(BendMade.objects.exists())
        self.dana_s_bend_comes_after_marek(page)

    def dana_s_bend_comes_after_marek(self, page):
        expect(page.get_by_text("All sent")).to_be_visible()
        page.get_by_role("button", name="Marek Olin").click()
        page.get_by_role("menuitem", name="Sign out").click()
        self.sign_in(page, "dana")
        until(page, BendMade.objects.exists)
        self.assertEqual(BendMade.objects.get().by.username, "dana")

    def test_what_is_refused_stays_with_its_reason_until_it_is_let_go(self):
        page = self.open_bench("Wedging table outlet")
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_text("All sent")).to_be_visible()
        run = Run.objects.get(document__name="Wedging table outlet")
        remove_run(User.objects.get(username="dana"), run.pk)
        enter(page, 90.2)
        refused = page.get_by_role("region", name="Not entered")
        expect(refused).to_contain_text("stick 1, bend 1, 90.2°. This does not exist here, or was deleted.")
        page.reload()
        page.get_by_role("link", name="Crelda, all jobs").click()
        expect(page.get_by_role("link", name="1 refused at the bench")).to_be_visible()
        page.get_by_role("button", name="Restore").click()
        page.get_by_role("link", name="1 refused at the bench").click()
        refused.get_by_role("button", name="Try again").click()
        expect(refused).to_be_hidden()
        until(page, BendMade.objects.exists)

    def test_signing_out_says_what_is_not_sent(self):
        page = self.open_bench("Wedging table outlet")
        page.route("**/api/runs/*/bench", only_reading)
        page.get_by_role("button", name="Cut and marked").click()
        expect(page.get_by_text("1 kept here")).to_be_visible()
        page.get_by_role("button", name="Dana Wexcombe").click()
        page.get_by_role("menuitem", name="Sign out").click()
        expect(page.get_by_role("alertdialog")).to_contain_text("1 of what you did at the bench is not sent yet")
        page.get_by_role("button", name="Stay signed in").click()
        expect(page.get_by_text("1 kept here")).to_be_visible()

    def test_what_an_earlier_version_kept_is_sent(self):
        page = self.window()
        run = Run.objects.get(document__name="Wedging table outlet")
        act = {"kind": "cut", "piece": 1, "key": "6f1d7c55-4df5-4a52-9c3e-0a0b4e6f9a11", "at": "2026-05-04T07:30:00Z"}
        page.evaluate(
            "([name, text]) => localStorage.setItem(name, text)", [f"crelda.bench.dana.{run.pk}", json.dumps([act])]
        )
        page.reload()
        until(page, Stick.objects.exists)
        self.assertIsNotNone(Stick.objects.get().cut_at)
        self.assertEqual(
            page.evaluate("Object.keys(localStorage).filter((one) => one.startsWith('crelda.bench')).length"), 0
        )


class OnASharedPhone(Trust):
    def test_nothing_of_anothers_is_shown_not_for_a_frame(self):
        page = self.window(installed=True, size=PHONE)
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        self.open_first_bench(page)
        kept_bench(page)
        self.sign_out_by_time()
        add_person(Crew.objects.create(name="Lantern Crew"), "olga", PASSWORD, Role.LEAD)
        page.add_init_script(WATCH)
        page.goto(self.live_server_url)
        self.sign_in(page, "olga")
        expect(page.get_by_text("No jobs yet")).to_be_visible()
        page.reload()
        expect(page.get_by_text("No jobs yet")).to_be_visible()
        shown = page.evaluate("window.everShown")
        self.assertIn("No jobs yet", shown)
        for theirs in ("Kiln", "Wedging", "Dana", "Saltmarsh"):
            self.assertNotIn(theirs, shown)

    def test_another_tab_follows_who_signs_out(self):
        page = self.window()
        other = page.context.new_page()
        other.goto(self.live_server_url)
        expect(other.get_by_role("heading", name="Jobs")).to_be_visible()
        page.get_by_role("button", name="Dana Wexcombe").click()
        page.get_by_role("menuitem", name="Sign out").click()
        expect(other.get_by_label("Password")).to_be_visible()

    def test_a_page_from_the_browsers_own_store_is_guarded_as_well(self):
        page = self.window(installed=True)
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        answer = page.reload()
        self.assertTrue(answer.from_service_worker)
        self.assertIn("script-src 'self'", answer.headers["content-security-policy"])
        self.assertEqual(answer.headers["x-frame-options"], "DENY")
        injected = """() => {
            const script = document.createElement("script");
            script.textContent = "window.injected = true";
            document.body.append(script);
            return window.injected === true;
        }"""
        self.assertFalse(page.evaluate(injected))


class LostReplies(Trust):
    def test_a_write_whose_reply_is_lost_is_done_once(self):
        page = self.window()
        page.get_by_role("link", name="Stock and cut list").first.click()
        before = Scrap.objects.count()
        lost, seen = [], []

        def lose_until_seen(route):
            if route.request.method != "POST" or seen:
                return route.continue_()
            lost.append(route.fetch())
            return route.abort()

        page.route("**/api/rack", lose_until_seen)
        page.get_by_label("Length").first.fill("44")
        page.get_by_role("button", name="Add", exact=True).first.click()
        # Nothing came back, twice; so it is kept here, and sent once more with its key when the server answers.
        waits = page.get_by_role("list", name="Not sent yet")
        expect(waits).to_contain_text("44, 3/4 EMT")
        seen.append(True)
        expect(waits).to_have_count(0, timeout=60_000)
        self.assertGreaterEqual(len(lost), 2)
        self.assertEqual(Scrap.objects.count(), before + 1)
        expect(page.get_by_text(f"{before + 1} pieces")).to_be_visible()


class ServerAway(Trust):
    def test_the_page_waits_for_a_database_that_is_gone_and_saves_what_was_typed_meanwhile(self):
        page = self.open_run()
        waiting = page.get_by_text("Waiting for the server. Nothing is lost")
        gone = OperationalError(2006, "gone")
        with (
            patch("server.jobs.actions.save_run", side_effect=gone),
            patch("server.observing.health.Health._wrong", return_value="gone"),
        ):
            field(page, "Step 1, rise").fill("6")
            expect(waiting).to_be_visible()
            self.assertNotEqual(Run.objects.get(document__name="Kiln 2 feed").document["steps"][0]["rise"], "6")
        expect(waiting).to_be_hidden()
        saved(page)
        self.assertEqual(Run.objects.get(document__name="Kiln 2 feed").document["steps"][0]["rise"], "6")


class Deleted(Trust):
    def test_what_is_typed_while_a_save_is_slow_is_saved_after_it(self):
        def slowly(*given):
            time.sleep(1.5)
            return save_run(*given)

        with patch("server.jobs.actions.save_run", slowly):
            page = self.open_run()
            for name, text in (("Step 1, angle", "22 1/2"), ("Step 1, rise", "6"), ("End, pipe end at", "35")):
                field(page, name).fill(text)
                page.wait_for_timeout(900)
            saved(page)
        expect(page.get_by_role("region", name="Two versions")).to_have_count(0)
        document = Run.objects.get(document__name="Kiln 2 feed").document
        step = document["steps"][0]
        self.assertEqual((step["angle"], step["rise"], document["end"]["at"]), ("22 1/2", "6", "35"))

    def test_a_run_that_is_deleted_comes_back_with_one_touch(self):
        page = self.window()
        of_the_menu(page, "Wedging table outlet", "Delete")
        expect(page.get_by_text("“Wedging table outlet” is in the bin.")).to_be_visible()
        expect(page.get_by_role("link", name="Wedging table outlet")).to_be_hidden()
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("link", name="Wedging table outlet")).to_be_visible()
        expect(page.get_by_role("heading", name="In the bin")).to_be_hidden()

    def test_what_lies_in_the_bin_is_deleted_for_good_only_after_a_question(self):
        page = self.window()
        of_the_menu(page, "Wedging table outlet", "Delete")
        page.get_by_role("button", name="Empty the bin").click()
        page.get_by_role("button", name="Keep it").click()
        bin_lines = page.get_by_role("region", name="In the bin").get_by_role("listitem")
        expect(bin_lines).to_have_count(1)
        page.get_by_role("button", name="Empty the bin").click()
        page.get_by_role("button", name="Delete for good").click()
        expect(bin_lines).to_have_count(0)

    def test_a_bender_measures_and_deletes_nothing(self):
        page = self.window(user="marek")
        expect(page.get_by_role("button", name="Measure a new run").first).to_be_visible()
        expect(page.get_by_role("button", name="Remove the")).to_have_count(0)
