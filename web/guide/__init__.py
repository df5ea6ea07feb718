"""The guide as a page: searched, with a film of each example, tried on one's own title."""
