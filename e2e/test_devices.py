"""Readings that are not typed: a simulated distance meter, and a program beside the page that speaks the protocol."""

import os
import re
import subprocess
import sys

from django.conf import settings
from playwright.sync_api import expect

from e2e.support import PHONE, Journey, field, saved
from server.jobs.models import Run

# A length read from the device's front, and what its body adds.
SUM = re.compile(r"^\d+( \d+/\d+)? \+ 4 1/4$")


class Devices(Journey):
    def link(self, page, way, device="Distance meter"):
        page.goto(f"{self.live_server_url}/devices")
        page.get_by_role("combobox", name=f"{device}, Linked by").click()
        page.get_by_role("option", name=way).click()
        return page.get_by_role("region", name=device, exact=True)

    def open_layout(self, page):
        page.goto(self.live_server_url)
        page.get_by_role("link", name="Kiln 2 feed").click()

    def rise(self):
        return Run.objects.get(document__name="Kiln 2 feed").document["steps"][0]["rise"]

    def test_a_distance_meter_reads_into_the_figure_that_has_the_focus(self):
        page = self.window()
        expect(self.link(page, "simulated").get_by_role("status")).to_have_text("ready")
        self.open_layout(page)
        line = page.get_by_role("region", name="Distance meter")
        line.get_by_role("button", name="Measure").click()
        expect(line.get_by_role("status")).to_contain_text("Touch a figure")
        field(page, "Step 1, rise").click()
        line.get_by_role("button", name="Measure").click()
        expect(field(page, "Step 1, rise")).to_have_value(SUM)
        expect(line.get_by_role("status")).to_contain_text("Step 1, rise")
        expect(field(page, "Step 1, rise")).to_be_focused()
        saved(page)
        self.assertRegex(self.rise(), SUM)

    def test_on_a_phone_the_pad_has_it_read(self):
        page = self.window(size=PHONE, touched=True)
        self.link(page, "simulated")
        self.open_layout(page)
        field(page, "Step 1, rise").tap()
        page.get_by_role("region", name="Tape pad").get_by_role("button", name="Measure").tap()
        expect(field(page, "Step 1, rise")).to_have_value(SUM)

    def test_a_program_beside_the_page_reads_when_asked_and_at_its_own_button(self):
        page = self.window()
        meter = self.link(page, "a program on this machine")
        expect(meter.get_by_role("status")).to_contain_text("cannot be linked")
        command = [sys.executable, "-m", "cli.device"]
        env = {**os.environ, "PYTHONPATH": str(settings.ROOT)}
        pipes = {"stdin": subprocess.PIPE, "stdout": subprocess.PIPE, "text": True}
        with subprocess.Popen(command, env=env, **pipes) as program:
            self.addCleanup(program.kill)
            self.assertIn("ws://127.0.0.1:8427/", program.stdout.readline())
            meter.get_by_role("button", name="Link").click()
            expect(meter.get_by_role("status")).to_have_text("ready")
            meter.get_by_role("button", name="Read once").click()
            expect(meter).to_contain_text("Last reading")
            self.open_layout(page)
            field(page, "Step 1, rise").click()
            expect(
                page.get_by_role("region", name="Distance meter").get_by_role("button", name="Measure")
            ).to_be_visible()
            before = self.rise()
            program.stdin.write("\n")
            program.stdin.flush()
            expect(field(page, "Step 1, rise")).not_to_have_value(before)
            program.terminate()
            expect(page.get_by_role("region", name="Distance meter").get_by_role("status")).to_have_text(
                re.compile("not linked|read")
            )
