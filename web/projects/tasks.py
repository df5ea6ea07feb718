"""What is done now and then."""

from celery import shared_task

from . import bin


@shared_task(ignore_result=True)
def empty_bin() -> None:
    """Removes for good what has lain in the bin for long enough."""
    bin.empty()
