"""Clips: frames drawn, converted and encoded, piece by piece; their sound; a format is a module of
`formats`."""
