"""Sentences of the core as the page shows them: values are chips, keys stand in folds, and beside
them is what can be added."""
