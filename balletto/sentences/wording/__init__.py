"""Wording: the pieces that sentences are made of, and what many of them share."""
