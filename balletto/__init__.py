"""Balletto's core: scenes, letters, motion, pictures and clips; no interface, no database."""

__version__ = "0.5.0"
