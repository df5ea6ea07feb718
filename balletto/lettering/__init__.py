"""Lettering: fonts, and from a text and its style to characters with their places and outlines."""
