"""The entry for the render queue: `celery --app web.config.celery worker`."""

import os
import signal
from typing import Any

from celery import Celery
from celery.signals import beat_embedded_init, worker_process_init

from web.parents import end_with_parent

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "web.config.settings")
app = Celery("balletto")
app.config_from_object("django.conf:settings", namespace="CELERY")
app.autodiscover_tasks(["web.renders"])


@beat_embedded_init.connect
@worker_process_init.connect
def _end_with_worker(**_: Any) -> None:
    """What a killed worker leaves would wait for work, or ask for it, for ever."""
    end_with_parent(signal.SIGKILL)
