"""What is asked to be done with layers, effects, keys and sounds, and the edits for it."""
