"""What the browser journeys share: a live server on MariaDB, Debian's headless Chromium, the demo crew."""

import atexit
import re
import time
from functools import cache

from django.conf import settings
from django.test import Client, LiveServerTestCase
from playwright.sync_api import expect, sync_playwright

from conduit.bending import Arranged, Bencher, BendAsMade
from conduit.plan import make_plan
from e2e.demo_rows import put_demo, take_all_away
from e2e.under_way import wait_until_none
from server.accounts.models import User
from server.demo.scene import PASSWORD, RUNS

# Without a window, and without what only a window needs: half the work of the whole browser.
CHROMIUM = "/usr/bin/chromium-headless-shell"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--disable-background-networking"]
DESK = {"width": 1280, "height": 800}
TABLET = {"width": 820, "height": 1180}
PHONE = {"width": 390, "height": 844}

# A loud machine may take its time over a page; what is wrong stays wrong.
PATIENCE = 20_000
expect.set_options(timeout=PATIENCE)


@cache
def the_browser():
    """One browser for all journeys: each has windows of its own, with their own cookies and storage."""
    playwright = sync_playwright().start()
    browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
    atexit.register(playwright.stop)
    atexit.register(browser.close)
    return browser


class Journey(LiveServerTestCase):
    """A person's way through the built front end. Any error in the page fails the test."""

    # Whether the demo crew has bent something before, and has a rack; most journeys need none of it.
    whole = False
    # Whether help comes by itself, as for somebody who was never here.
    first_visit = False

    def setUp(self):
        # After the windows are closed, which are cleaned up before it.
        self.addCleanup(wait_until_none)
        put_demo(self.whole)
        self.faults = []

    def tearDown(self):
        self.assertEqual(self.faults, [])

    def _fixture_teardown(self):
        # Django truncates every table and says that all were migrated anew: half a journey's time.
        take_all_away()

    def window(self, user="dana", size=DESK, installed=False, touched=False):
        """A signed-in window of its own (its own cookies and storage); `installed`: it keeps the program too."""
        page = self.outside(size=size, installed=installed, touched=touched)
        # Signing in by hand is a journey of its own; the others begin behind it.
        session = Client()
        session.force_login(User.objects.get(username=user))
        cookie = {"name": settings.SESSION_COOKIE_NAME, "value": session.cookies[settings.SESSION_COOKIE_NAME].value}
        page.context.add_cookies([{**cookie, "url": self.live_server_url}])
        page.goto(self.live_server_url)
        expect(page.get_by_role("heading", name="Jobs")).to_be_visible()
        return page

    def outside(self, address="", size=DESK, installed=False, touched=False):
        """A window of somebody who is not signed in, at an address if there is one; `touched`: a phone's screen."""
        touch = {"has_touch": touched, "is_mobile": touched}
        workers = "allow" if installed else "block"
        context = the_browser().new_context(viewport=size, service_workers=workers, **touch)
        if not self.first_visit:
            context.add_init_script("localStorage.setItem('crelda.help', '[\"all\"]')")
        self.addCleanup(context.close)
        page = context.new_page()
        page.on("pageerror", lambda error: self.faults.append(str(error)))
        if address:
            page.goto(address)
        return page

    def sign_in(self, page, name):
        page.get_by_label("Name").fill(name)
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_label("Password")).to_be_hidden()

    def open_run(self, name="Kiln 2 feed", **more):
        page = self.window(**more)
        page.get_by_role("link", name=name).click()
        expect(page.get_by_role("heading", name="Layout")).to_be_visible()
        return page

    def open_bench(self, name="Kiln 2 feed", **more):
        page = self.open_run(name, **more)
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_role("region", name="Cut and mark")).to_be_visible()
        return page


def field(page, label):
    """A number in the list of steps."""
    return page.get_by_role("textbox", name=label, exact=True)


def marks(page, piece=1):
    """The marks on a piece's strip, as its description says them."""
    return page.get_by_role("img", name=f"Piece {piece},")


def until(page, comes_true):
    """Wait until what is asked of the page comes true; as long as `expect` would."""
    give_up = time.monotonic() + PATIENCE / 1000
    while not (came := comes_true()) and time.monotonic() < give_up:
        page.wait_for_timeout(100)
    assert came


def still(page):
    """Wait until nothing moves or changes its colour any more."""
    until(page, lambda: page.evaluate("document.getAnimations().every((one) => one.playState !== 'running')"))


def drawn(page):
    """Wait until what was done has been drawn."""
    page.evaluate("new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn)))")


def move_by_keys(page, handle, arrow):
    """Take a row by its handle, move it a place, and let it go; each as it is told to those who hear the screen."""
    told = page.locator("[id^=DndLiveRegion]")
    page.get_by_role("button", name=handle).focus()
    page.keyboard.press("Space")
    expect(told).to_have_text(re.compile("would go to place"))
    before = told.text_content()
    page.keyboard.press(arrow)
    until(page, lambda: told.text_content() != before)
    page.keyboard.press("Space")
    expect(told).to_have_text(re.compile("put at place"))


# What the page keeps for when there is no network stands under one key.
KEPT = """new Promise((told) => {
  const asked = indexedDB.open("keyval-store");
  asked.onsuccess = () => {
    const read = asked.result.transaction("keyval").objectStore("keyval").get("crelda.kept");
    read.onsuccess = () => told(read.result ?? "");
  };
})"""


def kept(page, part):
    """Wait until the page keeps a part of what it was told, so that it is there without a network."""
    until(page, lambda: part in page.evaluate(KEPT))


# What it keeps one by one: runs, and their benches.
KEPT_ONES = """new Promise((told) => {
  const asked = indexedDB.open("crelda-runs");
  // Where it is not there yet it is not made here.
  asked.onupgradeneeded = () => asked.transaction.abort();
  asked.onerror = () => told([]);
  asked.onsuccess = () => {
    const read = asked.result.transaction("runs").objectStore("runs").getAllKeys();
    read.onsuccess = () => { asked.result.close(); told(read.result); };
  };
})"""


def kept_ones(page, kind=""):
    """Under which keys the page keeps runs, or what else of a run there is."""
    return [key for key in page.evaluate(KEPT_ONES) if re.search(rf" {kind}-?\d+$", key)]


def kept_bench(page):
    """Wait until the page keeps a bench, so that it is there without a network."""
    until(page, lambda: kept_ones(page, "bench "))


def saved(page):
    """Wait until the page says that everything is saved."""
    for _ in range(2):
        # Once more a little later: on a loud machine what was typed last may not be drawn yet.
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        page.wait_for_timeout(200)


def add(page, met):
    """Add what was met at the end of the run."""
    page.get_by_role("button", name="Add a bend or fitting").click()
    page.get_by_role("menuitem", name=met).click()


def choose(page, what, option):
    """Choose an option of a list, as the eye finds it."""
    page.get_by_role("combobox", name=what, exact=True).click()
    page.get_by_role("option").filter(has=page.get_by_text(option, exact=True)).click()


def more(page, step, what):
    """One of the things that can be done with a step."""
    page.get_by_role("button", name=f"Step {step}: more").click()
    page.get_by_role("menuitem", name=what).click()


def of_the_menu(page, whose, what):
    """One of the things that a run's or a job's menu offers."""
    page.get_by_role("button", name=f"{whose}: more").click()
    page.get_by_role("menuitem", name=what).click()


def marks_of(plan):
    """How the strips describe a plan's pieces."""
    for piece in plan.pieces:
        reads = [bend.use.at for bend in piece.bends]
        shown = ", ".join(at.reads for at in sorted(reads, key=lambda at: at.inches))
        yield piece.number, f"Piece {piece.number}, {piece.length.reads} long, marks at {shown}"


def expect_plan_of(page, document):
    """The strips show what the core plans for a document."""
    for number, name in marks_of(make_plan(document)):
        expect(marks(page, number)).to_have_accessible_name(name)


def sheet_of(run=0, *made, piece=1, **arranged):
    """What the core makes of a demo run's stick."""
    return Bencher(RUNS[run]).sheet(piece, Arranged(**arranged), [BendAsMade(**one) for one in made])


def screen(page, bend):
    return page.get_by_role("region", name=f"Bend {bend}", exact=True)


def enter(page, angle, tape=None):
    """Enter what finder and tape read."""
    page.get_by_label("finder reads").fill(str(angle))
    if tape is not None:
        page.get_by_label("Tape reads").fill(tape)
    page.get_by_role("button", name="Enter it").click()
