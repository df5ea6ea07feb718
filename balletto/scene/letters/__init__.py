"""Letters: how the text of a title is set, cut into characters, windowed, and laid along a path.
The data only."""
