"""Composing: what moves, effects, masks and copies make of what layers draw, put together."""
