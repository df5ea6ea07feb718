"""How many actions each job takes, by a hand in a started application."""

import random

from playwright.sync_api import sync_playwright

from . import jobs
from .application import signed_in, started
from .chromium import CHROMIUM, FLAGS
from .hands import new_scene

SEED = 27  # another one draws other wordings


def hands() -> dict[str, float]:
    """The actions of each job, in a started application, in our words; and `_otherwise`, in those
    of newcomers: the same, if all is understood."""
    counts: dict[str, float] = {}
    with started() as (base, password), signed_in(base, password) as client:
        kept = client.cookies.jar
        cookies = [{"name": each.name, "value": each.value or "", "url": base} for each in kept]
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            for letter, each in jobs.JOBS.items():
                for told, chance in ("", None), ("_otherwise", random.Random(f"{SEED} {letter}")):
                    # What a page remembers of hands is no help to the next.
                    context = browser.new_context(viewport={"width": 1280, "height": 800})
                    context.add_cookies(cookies)
                    hand = new_scene(context.new_page(), base, chance)
                    each.do(hand)
                    name = f"hands_{letter}_{each.name.replace(' ', '_')}{told}"
                    counts[name] = hand.actions
                    context.close()
            browser.close()
    return counts
