"""The page of fonts: those that ship and a person's own, seen, sent, removed."""
