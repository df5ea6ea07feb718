"""Answers that come late, and hands that do not wait for them."""

from collections.abc import Iterator
from typing import Any

from playwright.sync_api import Page, expect

from .base import BrowserTest

DELAYS = (0, 600, 1500)  # ms before an answer comes

# Answers come late, or edits fail, as the tests say.
LATE = """
const own = window.fetch;
window.fetch = async (address, options = {}) => {
  const isEdit = String(address).endsWith("/edit/") && !String(options.body).includes("preview=1");
  const fault = isEdit ? window.faultOfEdits : "";
  if (fault === "away") throw new TypeError("away");
  if (fault && fault !== "lost") return new Response("", { status: Number(fault) });
  const answer = await own(address, options);
  if (fault === "lost") throw new TypeError("lost");
  const late = ["/parts/", "/read/", ...(window.lateNumbers ?? [])];
  const isRead = late.some((part) => String(address).includes(part));
  const isSlow = options.method === "POST" || isRead;
  if (window.lateMs && isSlow) await new Promise((done) => setTimeout(done, window.lateMs));
  return answer;
};
"""


# From now on no answer comes from some addresses until they are back: "never" or "away". Pages are
# patient for two seconds, not for twenty.
NOT_AT_ALL = """([part, fault]) => {
  const [own, patience] = [window.fetch, AbortSignal.timeout];
  AbortSignal.timeout = (ms) => patience.call(AbortSignal, Math.min(ms, 2000));
  window.isBack = false;
  window.fetch = (address, options = {}) => {
    if (window.isBack || !String(address).includes(part)) return own(address, options);
    if (fault === "away") return Promise.reject(new TypeError("away"));
    const { signal } = options;
    return new Promise((_, fail) => signal.addEventListener("abort", () => fail(signal.reason)));
  };
}"""


class LateTest(BrowserTest):
    """A scene whose answers can be late."""

    def setUp(self) -> None:
        super().setUp()
        self.person = self.sign_in()
        self.begin_with(LATE)
        self.scene = self.open_scene(self.person, name="Opening")

    def late(self, milliseconds: int) -> None:
        """Lets answers come so late: the server works at once."""
        self.page.evaluate("(ms) => { window.lateMs = ms; }", milliseconds)

    def slowly(self, delays: tuple[int, ...] = DELAYS, **scene: Any) -> Iterator[int]:
        """Each delay in turn, on a page that has the scene anew."""
        for delay in delays:
            self.scene = self.open_scene(self.person, name=f"Opening {delay}", **scene)
            self.late(delay)
            try:
                yield delay
            except GeneratorExit:  # what was done with it has failed
                print(f"{self.id()} with answers after {delay} ms")
                raise

    def kept(self, page: Page | None = None) -> list[dict[str, Any]]:
        """The layers, once all that hands did is kept."""
        expect((page or self.page).locator("#kept")).to_have_text(
            "All changes kept", timeout=60_000
        )
        return self.document(self.scene)["layers"]

    def type_on(self, key: str, text: str) -> None:
        self.chip(key).click()
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")
