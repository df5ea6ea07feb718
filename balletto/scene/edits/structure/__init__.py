"""Edits of which layers there are, how they hang together, and what leads from one to another."""
