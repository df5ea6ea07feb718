"""Edits of when things are: keys, markers, delays, the rate of frames."""
