"""The workbench keeps its shape: at both usual sizes, crowded or empty, nothing overlaps."""

from .base import BrowserTest
from .crowded import crowded_scene, empty_scene

# What is wrong with the layout of the page as it stands, in words.
FAULTS = """() => {
  const faults = [];
  const root = document.documentElement;
  const scrolls = root.scrollWidth > innerWidth || root.scrollHeight > innerHeight;
  if (scrolls) faults.push('the page scrolls');
  const regions = ['.top', '.layers', '.centre', '.moves', '.time']
    .map((name) => [name, document.querySelector(name)?.getBoundingClientRect()])
    .filter(([, box]) => box?.width);
  regions.forEach(([name, box], index) => regions.slice(index + 1).forEach(([other, its]) => {
    const across = Math.min(box.right, its.right) - Math.max(box.left, its.left);
    const down = Math.min(box.bottom, its.bottom) - Math.max(box.top, its.top);
    if (across > 1 && down > 1) faults.push(`${name} and ${other} overlap by ${across} x ${down}`);
  }));
  for (const [name, box] of regions) {
    for (const each of document.querySelectorAll(`${name} button, ${name} input, ${name} .val`)) {
      const its = each.getBoundingClientRect();
      const isSeen = each.checkVisibility({ checkVisibilityCSS: true }) && its.width > 1;
      if (!isSeen || each.closest('dialog, .pick__list, .menu, .vh')) continue;
      const isCut = its.left < box.left - 1 || its.right > box.right + 1;
      if (isCut) faults.push(`${name}: ${each.outerHTML.slice(0, 100)}`);
    }
  }
  return faults;
}"""


class LayoutTest(BrowserTest):
    def check(self, **scene):
        self.open_scene(self.sign_in(), **scene)
        for size in ((1280, 800), (1920, 1080)):
            self.page.set_viewport_size({"width": size[0], "height": size[1]})
            for view in ("Cascade", "Keyframes", "Curves"):
                self.page.get_by_role("tab", name=view).click()
                self.page.wait_for_timeout(150)
                with self.subTest(size, view=view):
                    self.assertEqual(self.page.evaluate(FAULTS), [])

    def test_many_layers_long_names_and_a_long_title(self):
        self.check(**crowded_scene())

    def test_an_empty_scene(self):
        self.check(**empty_scene())

    def test_a_layer_that_wears_everything(self):
        effects = [{"kind": kind} for kind in ("blur", "shadow", "trail", "displace", "light")]
        masks = [{"kind": "rectangle"}, {"kind": "ellipse"}]
        scene = crowded_scene(layers=3, letters=40)
        scene["layers"][-1] |= {"effects": effects, "masks": masks, "motion_blur": {"angle": 90}}
        self.check(**scene)

    def test_three_hundred_letters_have_rows_as_they_are_seen(self):
        self.open_scene(self.sign_in(), **crowded_scene(layers=1))
        rows = self.page.locator("#cascade .crow")
        rows.first.wait_for()
        self.assertEqual(self.page.locator("#cascade").get_attribute("data-rows"), "246")
        self.assertLess(rows.count(), 60)
        self.page.locator("#time-body").evaluate(
            "(body) => { body.scrollTop = body.scrollHeight; }"
        )
        self.page.locator('#cascade .crow[data-unit="245"]').wait_for()
        self.assertLess(rows.count(), 60)
