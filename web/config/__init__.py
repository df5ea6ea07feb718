"""Settings, addresses and the render queue of the application."""

from .celery import app as celery_app

__all__ = ["celery_app"]
