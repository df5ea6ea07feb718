"""Takes the pictures in this folder from a running application with the demo project.

PYTHONPATH=. var/venv/bin/python docs/screenshots/take.py ADDRESS PASSWORD
"""

import sys
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from benchmarks.chromium import CHROMIUM, FLAGS

FOLDER = Path(__file__).parent


def take(page: Page, name: str) -> None:
    """One picture, after all has settled."""
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(600)
    page.screenshot(path=FOLDER / f"{name}.png")


def open_scene(page: Page, address: str, name: str, layer: str, at: int) -> None:
    """A scene in the workbench, with a layer selected, at a frame."""
    page.goto(address)
    page.get_by_role("link", name=name).first.click()
    page.wait_for_load_state("networkidle")
    page.locator(f"#slab-{layer} .slab__body").click(position={"x": 120, "y": 14})
    page.keyboard.press("Escape")
    page.get_by_label("Time", exact=True).fill(str(at))
    page.keyboard.press("Enter")
    shown = f"() => document.getElementById('canvas').dataset.shown?.includes('/{at}/')"
    page.wait_for_function(shown)
    page.wait_for_timeout(1500)


def workbench(page: Page, address: str) -> None:
    """The workbench in its views."""
    open_scene(page, address, "Opening title", "t1", 40)
    take(page, "workbench")
    line = page.locator(".say__field textarea").first
    line.fill("make it gold, with a hard shadow, then letters drop in one by one with a bounce")
    page.locator(".say__ours:visible").first.wait_for()
    page.wait_for_timeout(3000)  # until the picture shows it
    take(page, "saying")
    line.fill("")
    page.keyboard.press("Escape")
    page.locator("#scene-menu summary").click()
    page.get_by_role("button", name="The scene as text").click()
    page.locator("#scene-text-field:focus").wait_for()
    take(page, "scene-text")
    page.keyboard.press("Escape")
    open_scene(page, address, "Opening title", "p2", 26)
    page.get_by_role("tab", name="Keyframes").click()
    take(page, "keyframes")
    page.get_by_role("tab", name="Curves").click()
    take(page, "curves")
    page.get_by_role("tab", name="Cascade").click()
    open_scene(page, address, "Speaker caption", "t2", 30)
    page.locator(".appearance").scroll_into_view_if_needed()
    take(page, "effects")
    open_scene(page, address, "Letters on an orbit", "t1", 120)
    take(page, "path")
    open_scene(page, address, "Looping idle", "t1", 60)
    page.locator("details.more > summary").last.click()
    take(page, "move")
    page.locator("#open-gallery").click()
    page.wait_for_timeout(3500)  # films take 3.2 s: in their first third letters are on their way
    take(page, "gallery")
    page.keyboard.press("Escape")


def clips(page: Page, address: str) -> None:
    """The guide, files, asking for clips, and the clips."""
    page.goto(f"{address}guide/?find=how do I make it loop")
    take(page, "guide")
    page.goto(f"{address}files/")
    take(page, "files")
    open_scene(page, address, "Opening title", "t1", 100)
    page.get_by_role("button", name="Render clip").click()
    page.locator('[value="1920x1080"]').uncheck()
    for choice in ("960x540", "1080x1920", "1080x1080"):
        page.locator(f'[value="{choice}"]').check()
    take(page, "ask")
    page.get_by_role("button", name="Render 3 clips").click()
    page.locator("#download").wait_for(timeout=120_000)
    take(page, "renders")


def main(address: str, password: str) -> None:
    """All pictures, in the order of a person's way through the application."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.get_by_label("Password").fill(password)
        take(page, "sign-in")
        page.get_by_role("button", name="Sign in").click()
        take(page, "projects")
        page.get_by_label("New scene of another size").first.click()
        page.get_by_role("link", name="Size, rate and length typed").first.click()
        take(page, "new-scene")
        workbench(page, address)
        clips(page, address)
        browser.close()


if __name__ == "__main__":
    main(*sys.argv[1:])
