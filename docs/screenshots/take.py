"""Takes the pictures in this folder from a running application with the demo project.

var/venv/bin/python docs/screenshots/take.py ADDRESS PASSWORD
"""

import sys
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

FOLDER = Path(__file__).parent
FLAGS = ["--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run"]


def take(page: Page, name: str) -> None:
    """One picture, after all has settled."""
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(600)
    page.screenshot(path=FOLDER / f"{name}.png")


def main(address: str, password: str) -> None:
    """All pictures, in the order of a person's way through the application."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.get_by_label("Password").fill(password)
        take(page, "sign-in")
        page.get_by_role("button", name="Sign in").click()
        take(page, "projects")
        page.get_by_role("link", name="New scene").first.click()
        take(page, "new-scene")
        page.goto(address)
        page.get_by_role("link", name="Opening title").click()
        page.wait_for_load_state("networkidle")
        page.get_by_label("Time", exact=True).fill("26")
        page.keyboard.press("Enter")
        take(page, "workbench")
        page.get_by_role("tab", name="Keyframes").click()
        take(page, "keyframes")
        page.get_by_role("tab", name="Curves").click()
        take(page, "curves")
        page.get_by_role("tab", name="Cascade").click()
        page.locator("[id^=wear-more] summary").click()
        page.get_by_role("button", name="glow", exact=True).click()
        page.get_by_role("button", name="motion blur", exact=True).click()
        page.wait_for_timeout(800)
        page.locator(".dress").scroll_into_view_if_needed()
        take(page, "effects")
        page.keyboard.press("Control+z")
        page.keyboard.press("Control+z")
        page.wait_for_timeout(800)
        page.locator("#open-gallery").click()
        page.wait_for_timeout(4000)
        take(page, "gallery")
        page.keyboard.press("Escape")
        page.goto(address)
        page.get_by_role("link", name="Looping idle").click()
        page.wait_for_load_state("networkidle")
        page.locator("details.more > summary").last.click()
        take(page, "move")
        page.goto(address)
        page.get_by_role("link", name="Opening title").click()
        page.wait_for_load_state("networkidle")
        page.get_by_role("button", name="Render clip").click()
        page.locator("#download").wait_for(timeout=60_000)
        take(page, "renders")
        browser.close()


if __name__ == "__main__":
    main(*sys.argv[1:])
