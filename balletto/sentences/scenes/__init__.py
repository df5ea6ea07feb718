"""Scenes in words, as a whole and each layer after another."""
