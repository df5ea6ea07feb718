"""The settings of an installation behind HTTPS."""

import os
import subprocess
import sys

from django.test import SimpleTestCase
from django.utils.crypto import get_random_string

from web.services.start import ROOT


class DeployTest(SimpleTestCase):
    def test_nothing_is_to_be_said_of_them(self):
        own = {
            name: value for name, value in os.environ.items() if name != "DJANGO_ALLOW_ASYNC_UNSAFE"
        }
        environment = {
            **own,
            "DJANGO_SETTINGS_MODULE": "web.config.settings",
            "BALLETTO_HTTPS": "yes",
            "BALLETTO_SECRET_KEY": get_random_string(60),
        }
        command = [sys.executable, "-m", "django", "check", "--deploy", "--fail-level", "WARNING"]
        done = subprocess.run(command, cwd=ROOT, env=environment, capture_output=True, text=True)
        self.assertEqual((done.returncode, done.stderr), (0, ""))
