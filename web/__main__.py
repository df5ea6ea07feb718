"""`python -m web`, which `bin/balletto` calls.

A module of its own, since the processes that work apart import the main module of those that they
come from again, unless it is a package's `__main__`: all of the application for every file.
"""

import sys

from .command import main

sys.exit(main())
