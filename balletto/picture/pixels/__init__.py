"""Pixels from files: pictures, videos, and what is kept of them."""
