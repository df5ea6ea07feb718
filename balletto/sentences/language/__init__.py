"""The language: what a text that is typed is cut into (`tokens`, by a `lexicon` and a small
grammar), and the `rules` made of `terms` that are found in it."""
