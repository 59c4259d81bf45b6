"""Files read in: chosen, dropped or pasted; looked at, asked about, and taken into a job."""

import io
import json
import re

import ezdxf
from playwright.sync_api import expect

from e2e.support import Journey, marks

POINTS = "run,x,y,z\nKiln 9 feed,0,0,0\nKiln 9 feed,0,52,0\nKiln 9 feed,30,52,0\nBad,0,0,0\nBad,q,0,0\n"
DROP = """([name, text]) => {
  const data = new DataTransfer();
  data.items.add(new File([text], name));
  const held = { dataTransfer: data, bubbles: true, cancelable: true };
  for (const kind of ['dragover', 'drop'])
    document.querySelector('main').dispatchEvent(new DragEvent(kind, held));
}"""


class Import(Journey):
    def test_points_are_pasted_looked_at_and_become_a_run(self):
        page = self.window()
        page.get_by_role("button", name="Kiln room fit-out: more").click()
        page.get_by_role("menuitem", name="Import runs from a file").click()
        page.get_by_label("Or paste text").fill(POINTS)
        page.get_by_role("button", name="Read it").click()
        run = page.get_by_role("article", name="Kiln 9 feed")
        expect(run).to_contain_text("90 right, centre at 52")
        expect(run.get_by_role("img")).to_be_visible()
        expect(page.get_by_role("region", name="Not understood")).to_contain_text("line 6")
        # What was read outlasts the page.
        page.reload()
        page.get_by_role("button", name="Take 1 run").click()
        expect(page.get_by_role("status").filter(has_text="1 run is in Kiln room fit-out now.")).to_be_visible()
        run.get_by_role("link", name="Kiln 9 feed").click()
        expect(marks(page)).to_be_visible()
        expect(page.get_by_label("Run name")).to_have_value("Kiln 9 feed")

    def test_a_drawing_that_is_dropped_is_asked_for_its_unit_and_goes_into_a_new_job(self):
        drawing, written = ezdxf.new(units=0), io.StringIO()
        drawing.modelspace().add_polyline3d([(0, 0, 0), (0, 0, 1000), (700, 0, 1000)])
        drawing.write(written)
        page = self.window()
        expect(page.get_by_role("link", name="Import a file")).to_be_visible()
        page.evaluate(DROP, ["Barn.dxf", written.getvalue()])
        expect(page.get_by_role("alert")).to_contain_text("does not say its unit")
        page.get_by_role("combobox", name="Drawing’s unit").click()
        page.get_by_role("option", name="millimetres").click()
        page.get_by_role("button", name="Read it anew").click()
        expect(page.get_by_role("article")).to_contain_text("1 bend")
        page.get_by_role("combobox", name="Into the job").click()
        page.get_by_role("option", name="A new job").click()
        expect(page.get_by_label("Its name")).to_have_value("Barn")
        page.get_by_role("button", name="Take 1 run").click()
        page.get_by_role("link", name="To the jobs").click()
        expect(page.get_by_role("region", name=re.compile("^Barn"))).to_be_visible()

    def test_a_file_that_cannot_be_read_says_so_and_what_was_typed_stays_where_none_is_sent(self):
        page = self.window()
        page.get_by_role("link", name="Import a file").click()
        page.route("**/api/imports", lambda route: route.abort())
        page.get_by_label("Or paste text").fill(POINTS)
        page.get_by_role("button", name="Read it").click()
        expect(page.get_by_role("alert")).to_be_visible()
        expect(page.get_by_label("Or paste text")).to_have_value(POINTS)
        page.unroute("**/api/imports")
        page.locator("input[type=file]").set_input_files(
            {"name": "b.json", "mimeType": "application/json", "buffer": b'{"steps": '}
        )
        expect(page.get_by_role("alert")).to_contain_text("cannot be read at line 1")
        page.get_by_role("button", name="Another file").click()
        expect(page.get_by_role("button", name="Choose a file")).to_be_visible()

    def test_a_job_that_was_saved_whole_is_read_in_beside_itself(self):
        page = self.window()
        page.get_by_role("button", name="Kiln room fit-out: more").click()
        page.get_by_role("menuitem", name="Save as PDF").click()
        with page.expect_download() as download:
            page.get_by_role("button", name="The whole job, zip").click()
        page.goto(f"{self.live_server_url}/import")
        page.locator("input[type=file]").set_input_files(download.value.path())
        read = page.get_by_role("region", name="Kiln room fit-out")
        expect(read).to_contain_text("Every part is as it was packed.")
        page.get_by_label("What the job is called here").fill("Kiln room, again")
        page.get_by_role("button", name="Take the job").click()
        expect(page.get_by_role("status").filter(has_text="“Kiln room, again” is here now.")).to_be_visible()
        page.get_by_role("link", name="To the jobs").click()
        expect(page.get_by_role("region", name=re.compile("^Kiln room, again"))).to_contain_text("Kiln 2 feed")

    def test_a_box_that_stands_elsewhere_in_the_job_is_told_once_it_is_taken(self):
        page = self.window()
        page.get_by_role("link", name="Import a file").click()
        run = {"name": "Barn feed", "trade_size": "3/4", "start": {"heading": "up"}, "steps": [], "end": {"at": "40"}}
        job = {"name": "Barn", "boxes": [{"name": "Switch box", "along": "1", "up": "1"}], "runs": [{"document": run}]}
        page.get_by_label("Or paste text").fill(json.dumps(job))
        page.get_by_role("button", name="Read it").click()
        page.get_by_role("combobox", name="Into the job").click()
        page.get_by_role("option", name="Kiln room fit-out").click()
        page.get_by_role("button", name="Take 1 run").click()
        expect(page.get_by_text("stayed as they are: Switch box.")).to_be_visible()
