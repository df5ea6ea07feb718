"""Balletto's core: scenes, letters, motion, pictures and clips; no interface, no database."""
