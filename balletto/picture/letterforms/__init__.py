"""Letterforms: the outlines of letters as they are drawn, filled, hatched, displaced, becoming
others."""
