"""How soon the picture in space opens, and how it keeps up with being turned, in a browser that draws by software."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager

from playwright.sync_api import Locator, Page, sync_playwright

from cli.timing import bounded, line
from server.demo.scene import PASSWORD, PEOPLE

CHROMIUM = "/usr/bin/chromium-headless-shell"
# Solids by software, as where there is no graphics card.
SOFTWARE = ["--no-sandbox", "--disable-gpu"]
OPENING_BOUND_MS, TURNING_BOUND_MS = 1000.0, 50.0
OPENINGS, TURNS = 5, 60

# From the touch until it is drawn: first at all, then as solids.
OPENED = """async (by) => {
  const began = performance.now();
  document.querySelector(by).click();
  const until = (is) => new Promise((done) => {
    const look = () => (is() ? done(performance.now() - began) : requestAnimationFrame(look));
    look();
  });
  const first = await until(() => document.querySelector('[data-drawn]'));
  const solid = await until(() => document.querySelector('[data-drawn=solid]'));
  await new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
  return [first, solid];
}"""
# Each turn from the key until what it asks for has been drawn.
TURNED = """async (turns) => {
  const picture = document.querySelector('[data-drawn]').closest('[role=img]');
  const took = [];
  for (let i = 0; i < turns; i++) {
    const began = performance.now();
    picture.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
    await new Promise((drawn) => requestAnimationFrame(() => setTimeout(drawn)));
    took.push(performance.now() - began);
  }
  return took;
}"""


@contextmanager
def _signed_in(address: str) -> Iterator[Page]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=SOFTWARE)
        context = browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="block")
        context.add_init_script("localStorage.setItem('crelda.help', '[\"all\"]')")
        page = context.new_page()
        page.goto(address)
        page.get_by_label("Name").fill(PEOPLE[0][0])
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("heading", name="Jobs").wait_for()
        yield page
        browser.close()


def picture(address: str) -> bool:
    """Print how long the picture of a run and of a job take; whether the bounds are kept."""
    kept = []
    with _signed_in(address) as page:
        for name, way in (("a run", _to_a_run), ("a whole job", _to_a_job)):
            opened = [_opened(page, address, way) for _ in range(OPENINGS)]
            line(f"picture of {name} opened, in lines", [first for first, _ in opened])
            solid = line(f"picture of {name} opened, as solids", [last for _, last in opened])
            page.wait_for_timeout(1000)
            took = page.evaluate(TURNED, TURNS)
            line(f"picture of {name} turned by a key", took)
            late = sorted(took)[round(0.95 * len(took)) - 1]
            kept += [
                bounded(f"opening {name}", solid, OPENING_BOUND_MS),
                bounded(f"turning {name}, p95", late, TURNING_BOUND_MS),
            ]
    return all(kept)


def _opened(page: Page, address: str, way: Callable[[Page], Locator]) -> tuple[float, float]:
    """Milliseconds from a touch until the picture is there in lines, and as solids."""
    page.goto(address)
    touch = way(page)
    touch.evaluate("one => one.setAttribute('data-timed', '')")
    first, solid = page.evaluate(OPENED, "[data-timed]")
    return first, solid


def _to_a_run(page: Page) -> Locator:
    page.get_by_role("link", name="Glaze store feed").click()
    page.get_by_role("img", name="to scale").wait_for()
    page.wait_for_timeout(500)
    return page.get_by_role("radio", name="Turn")


def _to_a_job(page: Page) -> Locator:
    link = page.get_by_role("link", name="Whole job").first
    link.wait_for()
    page.wait_for_timeout(500)
    return link
