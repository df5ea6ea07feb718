"""Spaces: where things are, from maps and the camera to layers, copies, paths and flurries."""
