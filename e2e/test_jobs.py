"""Jobs: found by name, called otherwise, runs copied and mirrored."""

from playwright.sync_api import expect

from e2e.support import Journey
from server.jobs.models import Job, Run


class Jobs(Journey):
    def test_a_run_is_found_mirrored_and_copied_into_another_job(self):
        page = self.window()
        page.get_by_label("New job", exact=True).fill("Twin room")
        page.get_by_role("button", name="Open the job").click()
        expect(page.get_by_role("heading", name="Twin room")).to_be_visible()
        page.get_by_role("searchbox", name="Find a job or a run").fill("kiln 2")
        expect(page.get_by_role("link", name="Kiln 2 feed")).to_be_visible()
        expect(page.get_by_role("link", name="Wedging table outlet")).to_be_hidden()
        page.get_by_role("button", name="Kiln 2 feed: more").click()
        page.get_by_role("menuitem", name="Its mirror image").click()
        expect(page).to_have_title("Kiln 2 feed mirrored: Walk · Crelda")
        expect(page.get_by_text("Can be bent", exact=True)).to_be_visible()
        turned = Run.objects.get(document__name="Kiln 2 feed mirrored").document["steps"][1]["turn"]
        self.assertEqual(turned, "left")
        page.get_by_role("link", name="all jobs").click()
        page.get_by_role("button", name="Kiln 2 feed: more").click()
        page.get_by_role("menuitem", name="The same in another job").click()
        page.get_by_role("button", name="Into Twin room").click()
        expect(page).to_have_title("Kiln 2 feed copy: Walk · Crelda")
        self.assertEqual(Run.objects.get(document__name="Kiln 2 feed copy").job.name, "Twin room")

    def test_a_job_is_called_otherwise(self):
        page = self.window()
        name = page.get_by_role("heading", level=2).first.inner_text()
        page.get_by_role("button", name=f"Rename the job {name}").click()
        page.get_by_label("Job’s name").fill("Kilns and store")
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("heading", name="Kilns and store")).to_be_visible()
        self.assertTrue(Job.objects.filter(name="Kilns and store").exists())
