"""Layers in words: what they are, where they stand, what they wear, said and read."""
