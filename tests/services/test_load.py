"""The short forms of what the application bears; the long ones are `bin/balletto load`."""

from unittest import TestCase

from tests.core.amounts import some
from tests.load.editing import editing
from tests.load.faults import PROGRAMS, faults


class LoadTest(TestCase):
    def test_many_edit_at_once(self):
        took, wrong = editing(people=6, seconds=some(5, 60))
        self.assertEqual(wrong, [])
        self.assertEqual(set(took), {"edit", "picture", "numbers"})

    def test_services_are_killed_while_people_work(self):
        times = some(1, 20)
        suffered = faults(times, people=some(3, 10), directors=some(1, 2))
        self.assertEqual(suffered.wrong, [])
        self.assertEqual(suffered.kills, times * len(PROGRAMS))
        self.assertGreater(min(suffered.changes, suffered.nudges, suffered.clips), 0)
