"""A whole run by keyboard alone, and the keys that are good on every page."""

from playwright.sync_api import expect

from e2e.support import Journey, field, saved
from server.demo.scene import PASSWORD

# As a person begins: the start's name has the focus. Words are typed, what stands in brackets is pressed.
ENTERED = (
    "KP{Enter}"
    "{Enter}{ArrowDown}{Enter}3 1/2{Enter}{Enter}38{Enter}"
    "{Enter}{Enter}71 1/2{Enter}"
    "{Enter}{ArrowDown}{ArrowDown}{Enter}1 3/4{Enter}{Enter}{Enter}43{Enter}"
    "{Enter}{Enter}88 3/4{Enter}"
    "{Enter}{ArrowUp}{Enter}33 1/2"
)
MOST_PRESSES = 75


def pressed(keys):
    """Each key press in turn."""
    while keys:
        key, keys = (keys[1:].split("}", 1)) if keys[0] == "{" else (keys[0], keys[1:])
        yield key


class Keys(Journey):
    def test_a_run_is_entered_by_keyboard_alone(self):
        page = self.outside(self.live_server_url)
        expect(page.get_by_role("textbox", name="Name")).to_be_focused()
        page.keyboard.type("dana")
        page.keyboard.press("Tab")
        page.keyboard.type(PASSWORD)
        page.keyboard.press("Enter")
        expect(page.get_by_role("main")).to_be_focused()
        page.keyboard.press("Control+k")
        page.keyboard.type("new")
        expect(page.get_by_role("option", name="Measure a new run in Kiln room fit-out")).to_be_visible()
        page.keyboard.press("Enter")
        expect(page.get_by_role("textbox", name="Start box")).to_be_focused()
        expect(page.get_by_text("Still to measure: where the pipe ends")).to_be_visible()
        expect(page.get_by_role("alert")).to_have_count(0)
        count = len(("Control+k", *"new", "Enter"))
        for key in pressed(ENTERED):
            page.keyboard.press(key)
            # As long as a quick hand takes; menus come and go meanwhile.
            page.wait_for_timeout(20 if len(key) == 1 else 200)
            count += 1
        self.assertLessEqual(count, MOST_PRESSES)
        expect(field(page, "Step 1, rise")).to_have_value("3 1/2")
        expect(field(page, "Step 3, height")).to_have_value("1 3/4")
        expect(field(page, "Step 4, measure")).to_have_value("88 3/4")
        expect(field(page, "End, pipe end at")).to_have_value("33 1/2")
        expect(page.get_by_text("Can be bent")).to_be_visible()
        page.keyboard.press("Enter")
        expect(page.get_by_role("link", name="Bench")).to_be_focused()
        saved(page)

    def test_undo_redo_and_save_by_the_usual_keys(self):
        page = self.open_run()
        field(page, "Step 2, measure").fill("72")
        page.keyboard.press("Control+z")
        expect(field(page, "Step 2, measure")).to_have_value("71 1/2")
        page.keyboard.press("Control+y")
        expect(field(page, "Step 2, measure")).to_have_value("72")
        saved(page)
        page.keyboard.press("Control+s")
        expect(page.get_by_text("Saved: everything, as you type")).to_be_visible()

    def test_one_goes_to_anything_by_name_and_back(self):
        page = self.open_run()
        page.keyboard.press("Control+k")
        page.get_by_placeholder("Go to a run").fill("step 3")
        page.keyboard.press("Enter")
        expect(page.get_by_role("listitem").filter(has=field(page, "Step 3, measure"))).to_have_attribute(
            "aria-current", "step"
        )
        page.keyboard.press("Control+k")
        page.get_by_placeholder("Go to a run").fill("field note")
        page.keyboard.press("Enter")
        expect(page.get_by_role("textbox", name="The run as a field note")).to_be_visible()
        page.go_back()
        expect(page.get_by_role("textbox", name="The run as a field note")).to_be_hidden()
        page.keyboard.press("Control+k")
        page.get_by_placeholder("Go to a run").fill("wedging")
        page.keyboard.press("Enter")
        expect(page).to_have_title("Wedging table outlet: Layout · Crelda")
        page.get_by_role("link", name="Bench").focus()
        page.keyboard.press("?")
        expect(page.get_by_role("dialog", name="Keys")).to_be_visible()

    def test_an_address_that_is_none_says_so(self):
        page = self.window()
        page.goto(f"{self.live_server_url}/runs/of/nothing")
        expect(page.get_by_role("heading", name="There is no page at this address")).to_be_visible()
        answer = page.request.get(f"{self.live_server_url}/api/nothing")
        self.assertEqual((answer.status, answer.json()["status"]), (404, 404))
