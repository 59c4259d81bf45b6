from playwright.sync_api import expect

from e2e.support import Journey, field, of_the_menu, saved
from server.jobs.models import Run


class Company(Journey):
    def test_a_new_crew_is_led_by_whoever_was_invited_and_works_in_a_job_that_is_shared(self):
        dana = self.window()
        dana.get_by_role("button", name="Dana Wexcombe").click()
        dana.get_by_role("menuitem", name="Company").click()
        dana.get_by_label("What the company is called").fill("Saltmarsh Group")
        dana.get_by_role("button", name="Begin a company").click()
        dana.get_by_label("A new crew").fill("Harbour Crew")
        dana.get_by_role("button", name="Add the crew").click()
        osric = self.outside(dana.get_by_role("textbox", name="The link").input_value())
        for label, text in (
            ("First name", "Osric"),
            ("Name to sign in by", "osric"),
            ("Password", "two-straps-a-stick"),
        ):
            osric.get_by_label(label).fill(text)
        osric.get_by_role("button", name="Join", exact=True).click()
        expect(osric.get_by_text("No jobs")).to_be_visible()
        dana.get_by_role("link", name="Jobs", exact=True).click()
        of_the_menu(dana, "Kiln room fit-out", "Share with the company’s crews")
        expect(dana.get_by_text("shared", exact=True)).to_be_visible()
        osric.reload()
        expect(osric.get_by_text("of Saltmarsh Night Crew")).to_be_visible()
        expect(osric.get_by_role("button", name="Rename the job")).to_have_count(0)
        osric.get_by_role("link", name="Kiln 2 feed").click()
        expect(osric.get_by_text("Can be bent", exact=True)).to_be_visible()
        field(osric, "Step 1, rise").fill("6")
        saved(osric)
        run = Run.objects.get(document__name="Kiln 2 feed")
        self.assertEqual((run.saved_by.username, run.crew.name), ("osric", "Saltmarsh Night Crew"))
        dana.get_by_role("link", name="Kiln 2 feed").click()
        expect(field(dana, "Step 1, rise")).to_have_value("6")
