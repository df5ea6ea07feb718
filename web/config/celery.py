"""The entry for the render queue: `celery --app web.config.celery worker`."""

import os

from celery import Celery

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "web.config.settings")
app = Celery("balletto")
app.config_from_object("django.conf:settings", namespace="CELERY")
app.autodiscover_tasks(["web.renders"])
