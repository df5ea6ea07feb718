"""Figures of what takes time: `bin/balletto bench`."""

import balletto  # noqa: F401  # before NumPy: it says how many threads that may have
