"""Balletto's core: scenes, letters, motion, pictures and clips; no interface, no database."""

import os

__version__ = "0.5.0"

# Frames are drawn side by side, each by one core. What NumPy multiplies with would have threads
# that wait for work on the others; it must be told before it is imported.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
