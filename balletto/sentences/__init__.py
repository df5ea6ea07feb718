"""Sentences: what a scene says in words, and what words say of a scene. One wording, two
directions: `read` gives back what is said.

`moves`, `styles` and `parts` say, as pieces that the pages make chips of; `reader` reads.
"""
