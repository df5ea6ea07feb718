"""What can go wrong with a clip."""


class ClipError(ValueError):
    """The clip that was asked for cannot be made; the message says why and what to do."""
