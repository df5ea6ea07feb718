"""Moving: moves and what goes with them, presets, eases in words, the blur of motion. The data
only."""
