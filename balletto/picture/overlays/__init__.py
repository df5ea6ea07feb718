"""Overlays: what lies over the picture in the page to be dragged, as numbers."""
