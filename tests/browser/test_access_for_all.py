"""Every page for everybody: axe finds no serious fault in either theme, and all that can be done
in the workbench can be reached by keyboard."""

from axe_playwright_python.sync_playwright import Axe

from web.projects import history
from web.projects.models import Project

from .base import BrowserTest
from .crowded import crowded_scene, empty_scene

SERIOUS = {"serious", "critical"}


class AxeTest(BrowserTest):
    def no_serious_fault(self, name):
        """Checks the page as it stands, in both themes."""
        for theme in ("paper", "evening"):
            self.page.evaluate("theme => document.documentElement.dataset.theme = theme", theme)
            self.page.wait_for_timeout(60)  # colours ease from one theme to the other
            found = Axe().run(self.page).response["violations"]
            told = [
                f"{fault['id']}: {node['html'][:160]}"
                for fault in found
                if fault["impact"] in SERIOUS
                for node in fault["nodes"]
            ]
            self.assertEqual(told, [], f"{name}, {theme}")

    def go(self, path):
        self.page.goto(f"{self.live_server_url}{path}")
        self.page.wait_for_load_state("networkidle")

    def test_pages_before_signing_in(self):
        for path in ("/accounts/sign-in/", "/accounts/sign-up/"):
            self.go(path)
            self.no_serious_fault(path)

    def test_pages_around_the_workbench(self):
        scene = self.open_scene(self.sign_in())
        self.go("/")
        self.no_serious_fault("projects")
        self.go(f"/projects/{scene.project.pk}/new-scene/")
        self.no_serious_fault("new scene")
        self.go("/renders/")
        self.no_serious_fault("renders")
        self.go(f"/renders/of/{scene.pk}/")
        self.no_serious_fault("asking for clips")
        self.go("/files/")
        self.no_serious_fault("files")
        self.go("/fonts/")
        self.no_serious_fault("fonts")

    def test_the_workbench_in_its_three_views(self):
        self.open_scene(self.sign_in(), **crowded_scene(layers=4, letters=60))
        for name in ("Cascade", "Keyframes", "Curves"):
            self.page.get_by_role("tab", name=name).click()
            self.page.wait_for_load_state("networkidle")
            self.no_serious_fault(name)
        self.page.evaluate("document.querySelectorAll('details.more').forEach(d => d.open = true)")
        self.no_serious_fault("all that is said under more")

    def test_what_opens_over_the_workbench(self):
        self.open_scene(self.sign_in())
        for name, opener in (
            ("gallery", "#open-gallery"),
            ("history", "[data-open-history]"),
            ("palette", "[data-open-palette]"),
            ("list of fonts", "[data-font-now]"),
            ("takes", "#takes-menu summary"),
            ("menu of the scene", "#scene-menu summary"),
        ):
            self.page.locator(opener).click()
            self.page.wait_for_load_state("networkidle")
            self.no_serious_fault(name)
            self.page.keyboard.press("Escape")
            self.page.evaluate(
                "document.querySelectorAll('details[open]').forEach(each => each.open = false)"
            )

    def test_an_empty_scene(self):
        person = self.sign_in()
        project = Project.objects.create(owner=person, name="Winter")
        scene = history.make_scene(project, empty_scene(), person)
        self.go(f"/scenes/{scene.pk}/")
        self.no_serious_fault("empty scene")


# The controls that Tab should reach; those it has not reached yet are told.
MISSED = """() => {
  const seen = (each) => each.checkVisibility({ checkVisibilityCSS: true });
  return [...document.querySelectorAll('button, a[href], input, textarea, summary, .val')]
    .filter((each) => seen(each) && each.tabIndex >= 0 && !each.disabled && !each.dataset.reached)
    .map((each) => each.outerHTML.slice(0, 120));
}"""
# Marks where the focus is, and tells what that is and whether it can be seen.
HERE = """() => {
  const here = document.activeElement;
  if (here === document.body) return null;
  here.dataset.reached = '1';
  const { outlineStyle, boxShadow } = getComputedStyle(here);
  return [here.outerHTML.slice(0, 120), outlineStyle !== 'none' || boxShadow !== 'none'];
}"""


class KeyboardTest(BrowserTest):
    def test_every_control_can_be_reached_with_tab(self):
        """Whatever can be clicked takes the focus, in the order of the page, and shows it."""
        self.open_scene(self.sign_in())
        wanted = len(self.page.evaluate(MISSED))
        self.assertGreater(wanted, 60)
        for _ in range(wanted + 40):
            self.page.keyboard.press("Tab")
            found = self.page.evaluate(HERE)
            if found is None:
                break
            self.assertTrue(found[1], f"the focus cannot be seen: {found[0]}")
        self.assertEqual(self.page.evaluate(MISSED), [])
