"""The whole job: boxes placed, a clash found, mended by what would do, and gone in both runs."""

import re

from playwright.sync_api import expect

from conduit.tests.support import between, ninety
from e2e.support import PHONE, Journey, until
from server.accounts.models import User
from server.jobs.actions import add_job, add_run
from server.jobs.models import Job, JobBox, Run


class WholeJob(Journey):
    def setUp(self):
        super().setUp()
        dana = User.objects.get(username="dana")
        self.job = add_job(dana, "Yard wall", "")
        # Up from one box and over; and across from another: both come to one box.
        add_run(dana, self.job.pk, between("Panel Y", "Gate box", [ninety("90", "right")], "60", "Gate feed"))
        add_run(dana, self.job.pk, between("Lamp box", "Gate box", [ninety("130", "up")], "30", "Lamp feed", "right"))

    def open_whole(self, **more):
        page = self.window(**more)
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/space")
        expect(page.get_by_role("heading", name="Whole job")).to_be_visible()
        return page

    def place(self, page, name, along, up, **asides):
        row = page.get_by_role("listitem").filter(has=page.get_by_text(name, exact=True))
        row.get_by_role("button", name=re.compile("Place it|Change")).click()
        row.get_by_label("Along").fill(along)
        row.get_by_label("Up", exact=True).fill(up)
        for run, aside in asides.items():
            row.get_by_label(run.replace("_", " ")).fill(aside)
        row.get_by_role("button", name="Place the box").click()
        expect(row.get_by_role("button", name="Place the box")).to_be_hidden()

    def test_boxes_are_placed_and_a_clash_is_found_mended_and_gone_in_both_runs(self):
        page = self.open_whole()
        expect(page.get_by_text("0 of 2 runs stand.")).to_be_visible()
        self.place(page, "Panel Y", "0", "0")
        self.place(page, "Lamp box", "-60", "48")
        expect(page.get_by_text("2 of 2 runs stand. One place is too near.")).to_be_visible()
        expect(page.get_by_test_id("clash")).to_have_count(1)
        said = page.get_by_text("Gate feed and Lamp feed run into each other")
        expect(said).to_be_visible()
        # It is told in Layout, at the step of the run.
        page.get_by_role("listitem").filter(has=said).get_by_role("link", name="Lamp feed").click()
        expect(page.get_by_text("Runs into another run")).to_be_visible()
        expect(page.locator("[data-step='0']").get_by_text("run into each other")).to_be_visible()
        page.go_back()
        page.get_by_role("button", name="What would do?").click()
        fix = page.get_by_role("listitem").filter(has_text=re.compile("a saddle at .* over"))
        fix.last.get_by_role("button", name="Take it").first.click()
        expect(page.get_by_test_id("clash")).to_have_count(0)
        expect(page.get_by_text("run into each other")).to_have_count(0)
        mended = Run.objects.get(job=self.job, version=2)
        for run in Run.objects.filter(job=self.job):
            page.goto(f"{self.live_server_url}/runs/{run.pk}/layout")
            expect(page.get_by_role("region", name="Picture")).to_be_visible()
            expect(page.get_by_text("Can be bent")).to_be_visible()
            expect(page.get_by_text("Runs into another run")).to_have_count(0)
        self.assertEqual(mended.document["steps"][0]["kind"], "saddle3")

    def test_a_box_at_which_a_run_does_not_end_is_told_by_name(self):
        page = self.open_whole()
        self.place(page, "Panel Y", "0", "0")
        self.place(page, "Gate box", "70", "88 1/2")
        expect(page.get_by_text("from where “Gate box” was placed")).to_be_visible()
        expect(page.get_by_text(re.compile("Measure .*Gate box again"))).to_be_visible()

    def test_what_two_people_place_is_not_written_over_unseen(self):
        page = self.open_whole()
        self.place(page, "Panel Y", "0", "0")
        other = self.open_whole(user="marek")
        row = page.get_by_role("listitem").filter(has=page.get_by_text("Panel Y", exact=True))
        row.get_by_role("button", name="Change").click()
        row.get_by_label("Along").fill("2")
        self.place(other, "Panel Y", "3", "0")
        row.get_by_role("button", name="Place the box").click()
        expect(row.get_by_text("3 along, 0 up, 0 out").first).to_be_visible()
        expect(row.get_by_label("Along")).to_have_value("2")
        row.get_by_role("button", name="Keep what I typed").click()
        row.get_by_role("button", name="Place the box").click()
        until(page, lambda: JobBox.objects.get(job=self.job).place["along"] == "2")

    def test_what_cannot_be_read_stays_and_is_told_at_its_field(self):
        page = self.open_whole(size=PHONE, touched=True)
        row = page.get_by_role("listitem").filter(has=page.get_by_text("Panel Y", exact=True))
        row.get_by_role("button", name="Place it").click()
        row.get_by_label("Along").fill("1/0")
        row.get_by_label("Up", exact=True).fill("48")
        row.get_by_role("button", name="Place the box").click()
        expect(row.get_by_label("Along")).to_have_attribute("aria-invalid", "true")
        expect(row.get_by_label("Along")).to_have_value("1/0")
        self.assertFalse(JobBox.objects.filter(job=self.job).exists())

    def test_the_datum_is_said_and_who_only_looks_changes_nothing(self):
        page = self.open_whole()
        page.get_by_role("button", name="Change").click()
        page.get_by_label("Placed from").fill("Gate post, at the ground")
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_text("Gate post, at the ground")).to_be_visible()
        self.assertEqual(Job.objects.get(pk=self.job.pk).datum, "Gate post, at the ground")
        page = self.open_whole(user="ivy")
        expect(page.get_by_text("Gate post, at the ground")).to_be_visible()
        expect(page.get_by_role("button", name=re.compile("Change|Place it"))).to_have_count(0)
