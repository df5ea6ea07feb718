"""The settings of an installation behind HTTPS."""

import os
import subprocess
import sys
from unittest import mock

from django.test import SimpleTestCase
from django.utils.crypto import get_random_string

from web.services.start import ROOT, _hosts


class HostsTest(SimpleTestCase):
    """The names by which a started application may be asked."""

    def test_they_are_named_and_never_all(self):
        with mock.patch.dict(os.environ):
            os.environ.pop("BALLETTO_HOSTS", None)
            for host in ("127.0.0.1", "0.0.0.0", "::", "10.0.0.5"):
                names = _hosts(host, 8300)["BALLETTO_HOSTS"].split(",")
                self.assertIn("localhost", names)
                self.assertNotIn("*", names)
                self.assertNotIn("", names)
            os.environ["BALLETTO_HOSTS"] = "titles.example.org"
            said = _hosts("0.0.0.0", 8300)["BALLETTO_HOSTS"]
            self.assertTrue(said.endswith(",titles.example.org"))


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
