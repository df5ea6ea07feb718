"""`bin/balletto start`, as it is called: everything comes up, data stays, everything goes down."""

import os
import re
import socket
import subprocess
import tempfile
from pathlib import Path
from unittest import TestCase

from web.services.processes import answers, free_port
from web.services.start import ROOT

from . import application


class StartTest(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory(prefix="balletto-start-")
        self.addCleanup(folder.cleanup)
        self.var = Path(folder.name)

    def start(self, *words):
        process, said = application.start(self.var, *words)
        self.addCleanup(process.stdout.close)
        self.addCleanup(process.kill)
        return process, said

    def test_a_first_and_a_second_start(self):
        taken = free_port(8500)
        with socket.socket() as other:
            # The port may be one that an earlier run has just left.
            other.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            other.bind(("127.0.0.1", taken))
            other.listen()
            process, said = self.start("--port", str(taken))
        self.assertIn(f"Port {taken} is taken; using {taken + 1}.", said)
        address = re.search(r"http://\S+", said)[0]
        password = re.search(r"password (\S+)", said)[1]
        with application.visit(address) as client:
            self.assertIn(f'value="{password}"', client.get("/accounts/sign-in/").text)
            page = application.sign_in(client, password)
            self.assertIn("Orrery House winter season", page.text)
            poster = re.search(r"/scenes/\d+/poster/[0-9a-f-]+/", page.text)[0]
            self.assertEqual(client.get(poster).headers["Content-Type"], "image/png")
            application.post(client, "/projects/new/", {"name": "Kept over night"})
        self.refuses_a_second_one()
        application.stop(process)
        self.assertFalse(answers(taken + 1), "the web server still runs")
        process, said = self.start("--port", str(taken), "--no-demo")
        self.assertNotIn("Demo account", said)
        with application.visit(f"http://127.0.0.1:{taken}") as client:
            self.assertNotIn(password, client.get("/accounts/sign-in/").text)
            self.assertIn("Kept over night", application.sign_in(client, password).text)
        application.stop(process)
        self.assertEqual((self.var / "secrets.json").stat().st_mode & 0o777, 0o600)

    def refuses_a_second_one(self):
        own = {name: value for name, value in os.environ.items() if "BALLETTO" not in name}
        done = subprocess.run(
            [ROOT / "bin" / "balletto", "start"],
            env={**own, "BALLETTO_VAR": str(self.var)},
            capture_output=True,
            text=True,
            check=False,
        )
        self.assertEqual(done.returncode, 1)
        self.assertIn("running from this folder already", done.stderr)
