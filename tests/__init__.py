"""The tests. No test here looks at the clock: machines are shared."""

from hypothesis import settings

settings.register_profile("unhurried", deadline=None)
settings.load_profile("unhurried")
