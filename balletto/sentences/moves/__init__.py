"""Moves in words: `wording` says them, `reader` reads them by `clauses` into a `draft`."""
