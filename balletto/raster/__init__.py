"""Pixels in memory, and what is done to them: blurred, smeared, coloured."""
