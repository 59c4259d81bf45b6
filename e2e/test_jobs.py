"""Jobs: found by name, called otherwise, runs copied and mirrored."""

from playwright.sync_api import expect

from e2e.support import Journey, of_the_menu
from server.jobs.models import Job, Run


class Jobs(Journey):
    def test_a_run_is_found_mirrored_and_copied_into_another_job(self):
        page = self.window()
        page.get_by_label("New job", exact=True).fill("Twin room")
        page.get_by_role("button", name="Start the job").click()
        expect(page.get_by_role("heading", name="Twin room")).to_be_visible()
        page.get_by_role("searchbox", name="Find a job or a run").fill("kiln 2")
        expect(page.get_by_role("link", name="Kiln 2 feed")).to_be_visible()
        expect(page.get_by_role("link", name="Wedging table outlet")).to_be_hidden()
        page.get_by_role("button", name="Kiln 2 feed: more").click()
        page.get_by_role("menuitem", name="Mirror image").click()
        expect(page).to_have_title("Kiln 2 feed mirrored: Layout · Crelda")
        expect(page.get_by_text("Can be bent", exact=True)).to_be_visible()
        turned = Run.objects.get(document__name="Kiln 2 feed mirrored").document["steps"][1]["turn"]
        self.assertEqual(turned, "left")
        page.get_by_role("link", name="all jobs").click()
        page.get_by_role("button", name="Kiln 2 feed: more").click()
        page.get_by_role("menuitem", name="Copy to another job").click()
        page.get_by_role("button", name="Into Twin room").click()
        expect(page).to_have_title("Kiln 2 feed copy: Layout · Crelda")
        self.assertEqual(Run.objects.get(document__name="Kiln 2 feed copy").job.name, "Twin room")

    def test_what_a_menu_offers_stays_where_it_is_once_it_is_open(self):
        page = self.window()

        def late(route):
            page.wait_for_timeout(1000)
            route.continue_()

        page.route("**/api/people", late)
        page.reload()
        page.get_by_role("button", name="Kiln 2 feed: more").click()
        delete = page.get_by_role("menuitem", name="Delete")
        with page.expect_response("**/api/people"):
            before = delete.bounding_box()
        page.wait_for_timeout(300)
        self.assertEqual(delete.bounding_box(), before)
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Kiln 2 feed: more").click()
        expect(page.get_by_role("menuitem", name="Assign to me")).to_be_visible()

    def test_a_job_is_called_otherwise(self):
        page = self.window()
        name = page.get_by_role("heading", level=2).first.inner_text()
        page.get_by_role("button", name=f"Rename the job {name}").click()
        page.get_by_label("Job’s name").fill("Kilns and store")
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("heading", name="Kilns and store")).to_be_visible()
        self.assertTrue(Job.objects.filter(name="Kilns and store").exists())

    def test_a_job_is_put_aside_and_taken_up_again(self):
        page = self.window()
        of_the_menu(page, "Kiln room fit-out", "Archive")
        expect(page.get_by_role("link", name="Kiln 2 feed")).to_be_hidden()
        page.get_by_text("1 job archived").click()
        page.get_by_role("button", name="Reopen: Kiln room fit-out").click()
        expect(page.get_by_role("link", name="Kiln 2 feed")).to_be_visible()

    def test_what_is_mine_and_in_which_order_stands_in_the_address(self):
        page = self.window()
        page.get_by_role("radio", name="Mine, to do").click()
        expect(page.get_by_text("Nothing is assigned to you")).to_be_visible()
        page.get_by_role("radio", name="The crew’s").click()
        page.get_by_role("button", name="Kiln 2 feed: more").click()
        page.get_by_role("menuitem", name="Assign to me").click()
        expect(page.get_by_text("for Dana Wexcombe")).to_be_visible()
        page.get_by_role("radio", name="Mine, to do").click()
        expect(page.get_by_role("link", name="Wedging table outlet")).to_be_hidden()
        page.get_by_role("combobox", name="Order of the runs").click()
        page.get_by_role("option", name="by name").click()
        page.reload()
        expect(page.get_by_role("link", name="Kiln 2 feed")).to_be_visible()
        expect(page.get_by_role("link", name="Wedging table outlet")).to_be_hidden()
        self.assertIn("order=name", page.url)

    def test_a_long_job_is_folded_until_it_is_looked_through(self):
        job = Job.objects.get(name="Kiln room fit-out")
        document = Run.objects.filter(job=job).first().document
        for number in range(1, 61):
            Run.objects.create(crew=job.crew, job=job, document={**document, "name": f"Light {number}"})
        page = self.window()
        expect(page.get_by_role("link", name="Light 60")).to_be_hidden()
        page.get_by_role("searchbox", name="Find a job or a run").fill("light 60")
        expect(page.get_by_role("link", name="Light 60")).to_be_visible()
        page.get_by_role("searchbox", name="Find a job or a run").fill("")
        page.get_by_role("button", name="Show all").click()
        expect(page.get_by_role("link", name="Light 60")).to_be_visible()


class AboutARun(Journey):
    def test_a_note_a_photo_and_for_whom_it_is(self):
        page = self.open_run()
        page.get_by_role("button", name="About").click()
        page.get_by_role("textbox", name="Note").fill("Core drill first")
        page.get_by_role("button", name="Keep the note").click()
        expect(page.get_by_role("button", name="Keep the note")).to_have_count(0)
        page.get_by_role("combobox", name="Assigned to").click()
        page.get_by_role("option", name="(me)").click()
        page.get_by_label("What the next photo shows").fill("Where it leaves the panel")
        drawn = page.screenshot()
        photo = {"name": "panel.png", "mimeType": "image/png", "buffer": drawn}
        page.get_by_label("Add a photo").set_input_files(photo)
        expect(page.get_by_role("img", name="Where it leaves the panel")).to_be_visible()
        page.get_by_label("Add a photo").set_input_files({**photo, "buffer": b"no picture"})
        expect(page.get_by_text("cannot read that file as a photo")).to_be_visible()
        other = self.open_run(user="marek")
        other.get_by_role("button", name="About").click()
        expect(other.get_by_role("textbox", name="Note")).to_have_value("Core drill first")
        other.get_by_role("textbox", name="Note").fill("Drill is broken")
        other.get_by_role("button", name="Keep the note").click()
        expect(other.get_by_role("button", name="Keep the note")).to_have_count(0)
        page.get_by_role("textbox", name="Note").fill("Core drill first, 35 mm")
        page.get_by_role("button", name="Keep the note").click()
        expect(page.get_by_text("Drill is broken")).to_be_visible()
        page.get_by_role("button", name="Keep mine").click()
        expect(page.get_by_text("Drill is broken")).to_have_count(0)
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_text("Core drill first, 35 mm")).to_be_visible()
        page.get_by_role("link", name="all jobs").click()
        expect(page.get_by_text("for Dana Wexcombe · 1 photo · Core drill first, 35 mm")).to_be_visible()
