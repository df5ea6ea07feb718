"""A page of the workbench in a browser: it has to come through faults by itself."""

from threading import Event

from playwright.sync_api import expect, sync_playwright

from benchmarks.chromium import CHROMIUM, FLAGS

from .people import Person

_IS_SHOWN = """() => {
  const { digest } = document.getElementById('workbench-state').dataset;
  return document.getElementById('canvas').dataset.shown?.includes(digest);
}"""


def nudged(person: Person, is_open: Event, until: Event, pause_s: float) -> int:
    """Moves a title to the right in a page, pixel by pixel, until told to stop; gives how often.

    Sets `is_open` once the page is. Everything has to be kept and shown in the end, without the
    page being opened again.
    """
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        base = str(person.client.base_url).rstrip("/")
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.context.add_cookies(
            [{"name": c.name, "value": c.value, "url": base} for c in person.client.cookies.jar]
        )
        page.goto(f"{base}/scenes/{person.scene}/?layer=t1")
        page.wait_for_function(_IS_SHOWN, timeout=60_000)
        page.locator("#picture").focus()
        is_open.set()
        nudges = 0
        while not until.is_set():
            page.keyboard.press("ArrowRight")
            nudges += 1
            page.wait_for_timeout(pause_s * 1000)
        patience = person.patience_s * 1000
        expect(page.locator("#kept")).to_have_text("All changes kept", timeout=patience)
        page.wait_for_function(_IS_SHOWN, timeout=patience)
        browser.close()
    return nudges
