"""Whole jobs by the product's own means: each is done, and in no more actions than it may take."""

from benchmarks import jobs  # noqa: F401 - they register themselves
from benchmarks.hands import JOBS, new_scene
from web.projects.models import Project

from .base import BrowserTest


class JobsTest(BrowserTest):
    """A new scene for each job."""

    def done(self, letter):
        person = self.sign_in()
        Project.objects.create(owner=person, name="Winter")
        hand = new_scene(self.page, self.live_server_url)
        job = JOBS[letter]
        job.do(hand)
        self.assertLessEqual(hand.actions, job.at_most, hand.told)


def _test_of(letter):
    return lambda self: self.done(letter)


for _letter, _job in JOBS.items():
    _name = f"test_{_letter.lower()}_{_job.name.replace(' ', '_')}"
    setattr(JobsTest, _name, _test_of(_letter))
