"""The entry for the web server."""

import gc
import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "web.config.settings")
application = get_wsgi_application()
# What is there by now stays: looking through all of it for what can go would hold up a request
# for a tenth of a second. Processes that are forked from this one share its memory longer, too.
gc.freeze()
