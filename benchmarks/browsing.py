"""Figures of the workbench in Chromium: what a hand feels."""

import statistics
from typing import Any

import httpx
from playwright.sync_api import Page, sync_playwright

from balletto.scene import files

from .application import signed_in, spread, started, upload
from .chromium import CHROMIUM, FLAGS
from .core import title_scene

STEPS = 60  # of a scrub
STEP_MS = 33  # between two moves of the pointer
OPENINGS = 5
FORTY = "The Quiet Orbit of Nine Winter Moons over Domes"  # 40 letters, white space left out
LAYERS, KEYS_A_LAYER = 50, 10

# Notes when the pointer moves, and when the picture that it asked for, or one that overtook it, is
# on the canvas. A move of a value belongs to the next preview, by its digest; one of the
# playhead to the frame that it leads to.
_WATCH = """() => {
  const canvas = document.getElementById('canvas');
  const moves = [];
  const upTo = new Map();
  let served = 0;
  window.scrubTimes = [];
  window.addEventListener('pointermove', () => {
    moves.push(performance.now());
    upTo.set(document.getElementById('stage-frame').textContent, moves.length);
  });
  const fetched = window.fetch;
  window.fetch = async (place, options) => {
    const count = moves.length;
    const answer = await fetched(place, options);
    const digest = answer.headers.get('X-Digest');
    if (digest) upTo.set(digest, count);
    return answer;
  };
  new MutationObserver(() => {
    const [, digest, frame] = canvas.dataset.shown.match(/frames.([0-9a-f-]+).([0-9]+)/);
    const until = Math.max(upTo.get(digest) ?? 0, upTo.get(frame) ?? 0);
    const now = performance.now();
    for (; served < until; served += 1) window.scrubTimes.push(now - moves[served]);
  }).observe(canvas, { attributes: true, attributeFilter: ['data-shown'] });
}"""

# Notes when the first picture is on the screen: drawn, and shown by the browser.
_WATCH_FIRST = """new MutationObserver((_, observer) => {
  if (!document.getElementById('canvas')?.dataset.shown) return;
  observer.disconnect();
  requestAnimationFrame(() => setTimeout(() => { window.firstAt = performance.now(); }));
}).observe(document, { subtree: true, attributes: true, attributeFilter: ['data-shown'] });"""


def browsing() -> dict[str, float]:
    """Scrubbing, playing and opening in the started application, as Chromium shows it."""
    with started() as (base, password), signed_in(base, password) as client:
        moving, _ = upload(client, files.to_data(title_scene(FORTY, size=66, moves=3)))
        large, _ = upload(client, _many_layers())
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.context.add_cookies(
                [{"name": c.name, "value": c.value, "url": base} for c in client.cookies.jar]
            )
            figures = {**_playing(page, base, moving), **_scrubbing(page, client, base, moving)}
            figures |= _opening(page, base, large)
            browser.close()
    return figures


def _open(page: Page, base: str, scene: str) -> None:
    page.goto(f"{base}/scenes/{scene}/")
    page.wait_for_function("() => document.getElementById('canvas').dataset.shown")
    page.wait_for_load_state("networkidle")


def _playing(page: Page, base: str, scene: str) -> dict[str, float]:
    """The first play of 90 frames that nobody has seen, and the second."""
    _open(page, base, scene)
    page.keyboard.press("Home")
    page.get_by_role("button", name="Loop").click()
    figures = {}
    for name in ("first_play", "replay"):
        page.keyboard.press("Home")
        page.wait_for_timeout(300)
        start = page.evaluate("""async () => {
          const canvas = document.getElementById('canvas');
          const pressed = performance.now();
          const shown = new Promise((done) => new MutationObserver(() => done(performance.now()))
            .observe(canvas, { attributes: true, attributeFilter: ['data-shown'] }));
          document.getElementById('play').click();
          return (await shown) - pressed;
        }""")
        page.get_by_role("button", name="Play", exact=True).wait_for(timeout=20_000)
        dropped = page.locator("#stage-dropped").get_attribute("data-dropped")
        if name == "first_play":
            figures["first_play_start_ms"] = start
        figures[f"{name}_dropped"] = float(dropped or 0)
    return figures


def _scrubbing(page: Page, client: httpx.Client, base: str, scene: str) -> dict[str, float]:
    """A value dragged sideways, and the playhead dragged over frames that are not drawn yet."""
    _open(page, base, scene)
    page.get_by_label("Time", exact=True).fill("20")
    page.keyboard.press("Enter")
    page.wait_for_timeout(500)
    page.evaluate(_WATCH)
    box = page.locator('[data-chip="t1.moves.m1.pose.y"]').bounding_box()
    x, y = box["x"] + 10, box["y"] + 8
    _drag(page, x, y, 2)
    page.wait_for_function("() => !document.querySelector('#kept').classList.contains('is-busy')")
    values = page.evaluate("() => window.scrubTimes.splice(0)")
    head = client.get(f"/scenes/{scene}/history/").text.count("past__row")
    ruler = page.locator("#ruler").bounding_box()
    _drag(page, ruler["x"] + 20, ruler["y"] + 20, ruler["width"] / 90)
    frames = page.evaluate("() => window.scrubTimes.splice(0)")
    return {
        **spread("scrub_to_picture_ms", values),
        **spread("playhead_to_picture_ms", frames),
        "scrub_revisions": head - 1.0,
    }


def _drag(page: Page, x: float, y: float, step: float) -> None:
    page.mouse.move(x, y)
    page.mouse.down()
    for number in range(1, STEPS + 1):
        page.mouse.move(x + number * step, y)
        page.wait_for_timeout(STEP_MS)
    page.wait_for_timeout(600)
    page.mouse.up()
    page.wait_for_timeout(400)


def _opening(page: Page, base: str, scene: str) -> dict[str, float]:
    """From asking for a scene of 50 layers and 500 keys, which was open before, to its picture:
    the median of some times."""
    _open(page, base, scene)
    page.add_init_script(_WATCH_FIRST)
    times = []
    for _ in range(OPENINGS):
        page.goto("about:blank")
        page.goto(f"{base}/scenes/{scene}/", wait_until="commit")
        page.wait_for_function("() => window.firstAt")
        times.append(page.evaluate("() => window.firstAt"))
        page.wait_for_load_state("networkidle")
    return {"opening_ms": statistics.median(times)}


def _many_layers() -> dict[str, Any]:
    """A scene of titles that all move by keyframes."""
    data = files.to_data(title_scene())
    title = data["layers"][0]
    data["layers"] = [
        {
            **title,
            "id": f"t{number}",
            "text": f"Line {number} of the programme",
            "style": {**title["style"], "size": 24},
            "transform": {
                "position": {
                    "keys": [
                        {"at": 9 * key, "value": [960, 20 * number + 10 * (key % 2), 0]}
                        for key in range(KEYS_A_LAYER)
                    ]
                }
            },
        }
        for number in range(1, LAYERS + 1)
    ]
    return data
