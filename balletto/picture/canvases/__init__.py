"""Canvases: what a frame is drawn on (`canvas`): Skia, SVG, and how each
draws what it is given."""
