"""What the browser journeys share: a live server on MariaDB, Debian's Chromium, the demo crew."""

from django.test import LiveServerTestCase
from playwright.sync_api import expect, sync_playwright

from server.demo.load import load
from server.demo.scene import PASSWORD

FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--disable-background-networking"]
DESK = {"width": 1280, "height": 800}
PHONE = {"width": 390, "height": 844}

expect.set_options(timeout=8_000)


class Journey(LiveServerTestCase):
    """A person's way through the built front end. Any error in the page fails the test."""

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.playwright = sync_playwright().start()
        cls.browser = cls.playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)

    @classmethod
    def tearDownClass(cls):
        cls.browser.close()
        cls.playwright.stop()
        super().tearDownClass()

    def setUp(self):
        load(fresh=True)
        self.faults = []

    def tearDown(self):
        self.assertEqual(self.faults, [])

    def window(self, user="dana", size=DESK):
        """A signed-in window of its own (its own cookies and storage)."""
        context = self.browser.new_context(viewport=size)
        self.addCleanup(context.close)
        page = context.new_page()
        page.on("pageerror", lambda error: self.faults.append(str(error)))
        page.goto(self.live_server_url)
        page.get_by_label("Name").fill(user)
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", name="Jobs")).to_be_visible()
        return page

    def open_run(self, name="Kiln 2 feed", **more):
        page = self.window(**more)
        page.get_by_role("link", name=name).click()
        expect(page.get_by_role("heading", name="Walk")).to_be_visible()
        return page


def field(page, label):
    """A number in the walk list."""
    return page.get_by_role("textbox", name=label, exact=True)


def marks(page, piece=1):
    """The marks on a piece's strip, as its description says them."""
    return page.get_by_role("img", name=f"Piece {piece},")


def saved(page):
    """Wait until the page says that everything is saved."""
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
