"""Settings of the application. What differs from one installation to the next comes from the
environment, with names that begin with BALLETTO_; `bin/balletto start` sets them all."""

import os
import socket
from datetime import timedelta
from pathlib import Path

from csp.constants import NONE, SELF
from django.core.exceptions import ImproperlyConfigured

ROOT = Path(__file__).resolve().parents[2]
VAR = Path(os.environ.get("BALLETTO_VAR", ROOT / "var"))


def _setting(name: str, default: str) -> str:
    return os.environ.get(f"BALLETTO_{name}", default)


DEBUG = False
# The start command makes a key of its own for each installation; there is no usable default.
SECRET_KEY = _setting("SECRET_KEY", "")
ALLOWED_HOSTS = _setting("HOSTS", "localhost,127.0.0.1,[::1]").split(",")
CSRF_TRUSTED_ORIGINS = [origin for origin in _setting("ORIGINS", "").split(",") if origin]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "whitenoise.runserver_nostatic",
    "django.contrib.staticfiles",
    "django_htmx",
    "csp",
    "axes",
    "web.accounts",
    "web.projects",
    "web.library",
    "web.workbench",
    "web.renders",
    "web.guide",
]

MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.auth.middleware.LoginRequiredMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "django_htmx.middleware.HtmxMiddleware",
    "axes.middleware.AxesMiddleware",  # last: it sees what signing in has answered
]

ROOT_URLCONF = "web.config.urls"
WSGI_APPLICATION = "web.config.wsgi.application"

TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "web" / "templates"],
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
                "web.renders.context.unfinished_renders",
            ],
            "builtins": ["web.workbench.templatetags.workbench_tags"],
        },
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.mysql",
        "NAME": _setting("DATABASE_NAME", "balletto"),
        "USER": "balletto",
        "PASSWORD": _setting("DATABASE_PASSWORD", ""),
        "HOST": _setting("DATABASE_HOST", "127.0.0.1"),
        "PORT": _setting("DATABASE_PORT", "3307"),
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {"charset": "utf8mb4"},
        "TEST": {"CHARSET": "utf8mb4", "COLLATION": "utf8mb4_unicode_ci"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

REDIS_URL = _setting("REDIS_URL", "redis://127.0.0.1:6380/0")
CACHES = {
    "default": {
        "BACKEND": "django.core.cache.backends.redis.RedisCache",
        "LOCATION": REDIS_URL,
        "KEY_PREFIX": "balletto",
    }
}
SESSION_ENGINE = "django.contrib.sessions.backends.cached_db"

CELERY_BROKER_URL = REDIS_URL
CELERY_TASK_ACKS_LATE = True
CELERY_TASK_REJECT_ON_WORKER_LOST = True
CELERY_WORKER_PREFETCH_MULTIPLIER = 1
CELERY_BROKER_CONNECTION_RETRY_ON_STARTUP = True
CELERY_TASK_IGNORE_RESULT = True
CELERY_TASK_DEFAULT_QUEUE = "renders"
CELERY_WORKER_HIJACK_ROOT_LOGGER = False
# A worker says that it is alive twice a second; after this long without a word it is lost.
RENDER_LOST_AFTER_S = float(_setting("RENDER_LOST_AFTER_S", "15"))
# A slow render is drawn by so many workers side by side.
RENDER_WORKERS = int(_setting("RENDER_WORKERS", str(max(2, len(os.sched_getaffinity(0))))))
# Where a worker keeps what it draws until it is whole: on its own machine. MEDIA_ROOT is shared.
RENDER_WORK = _setting("RENDER_WORK", str(VAR / "work"))
RENDER_WORKER_NAME = _setting("WORKER_NAME", socket.gethostname())
RENDER_SPARE_BYTES = int(_setting("RENDER_SPARE_BYTES", str(200 * 1024 * 1024)))
CELERY_BEAT_SCHEDULE = {
    "empty-bin": {"task": "web.projects.tasks.empty_bin", "schedule": 60 * 60.0},
    "remove-old-renders": {"task": "web.renders.tasks.remove_old", "schedule": 10 * 60.0},
    "take-up-lost-renders": {
        "task": "web.renders.tasks.take_up_lost",
        "schedule": RENDER_LOST_AFTER_S / 2,
    },
}

LOGIN_URL = "sign-in"
LOGIN_REDIRECT_URL = "projects"
LOGOUT_REDIRECT_URL = "sign-in"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in (
        "UserAttributeSimilarityValidator",
        "MinimumLengthValidator",
        "CommonPasswordValidator",
        "NumericPasswordValidator",
    )
]
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
# After so many failures with a name from an address, signing in waits.
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = timedelta(minutes=10)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_HANDLER = "axes.handlers.cache.AxesCacheHandler"
AXES_LOCKOUT_CALLABLE = "web.accounts.views.locked_out"
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False
# Whether people make accounts for themselves: open or closed.
SIGN_UP = _setting("SIGN_UP", "open")
if SIGN_UP not in ("open", "invited", "closed"):
    raise ImproperlyConfigured("BALLETTO_SIGN_UP is one of open, invited and closed.")
# On a local start the demo account is filled in on the sign-in page.
DEMO_NAME = _setting("DEMO_NAME", "")
DEMO_PASSWORD = _setting("DEMO_PASSWORD", "")

LANGUAGE_CODE = "en-gb"
TIME_ZONE = "UTC"
USE_TZ = True

STATIC_URL = "static/"
STATIC_ROOT = VAR / "static"
STATICFILES_DIRS = [
    ROOT / "web" / "static",
    ("fonts", ROOT / "balletto" / "lettering" / "fonts"),
]
# All static files are our own; those that packages bring along are not used.
STATICFILES_FINDERS = ["django.contrib.staticfiles.finders.FileSystemFinder"]
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "web.config.static_files.StaticFiles"},
}
MEDIA_ROOT = Path(_setting("MEDIA", str(VAR / "media")))

# Pictures, frames of videos and nested scenes that each process keeps.
PICTURES_KEPT_BYTES = int(_setting("PICTURES_KEPT_BYTES", str(512 * 1024**2)))
MEDIA_FILE_MAX_BYTES = int(_setting("MEDIA_FILE_MAX_BYTES", str(1024**3)))
FONT_FILE_MAX_BYTES = 40 * 1024**2
# What all files of a person may have together, and how many clips may wait for one.
MEDIA_PERSON_MAX_BYTES = int(_setting("MEDIA_PERSON_MAX_BYTES", str(20 * 1024**3)))
RENDERS_PERSON_MOST = int(_setting("RENDERS_PERSON_MOST", "200"))
# A scene file of a thousand layers is about a megabyte.
SCENE_FILE_MAX_BYTES = 4 * 1024 * 1024
DATA_UPLOAD_MAX_MEMORY_SIZE = SCENE_FILE_MAX_BYTES + 64 * 1024
FILE_UPLOAD_MAX_MEMORY_SIZE = SCENE_FILE_MAX_BYTES

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF],
        "style-src": [SELF],
        # Places on the time axis are given as custom properties in style attributes.
        "style-src-attr": ["'unsafe-inline'"],
        "img-src": [SELF, "blob:", "data:"],
        "media-src": [SELF, "blob:"],
        "object-src": [NONE],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}
# Behind a server that speaks HTTPS; a local start does not.
HTTPS = _setting("HTTPS", "no") == "yes"
SECURE_SSL_REDIRECT = SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if HTTPS else None
SECURE_HSTS_SECONDS = 365 * 24 * 60 * 60 if HTTPS else 0
# What other hosts of the domain do is not ours to say (W005), nor whether browsers list it (W021).
SILENCED_SYSTEM_CHECKS = ["security.W005", "security.W021"]
X_FRAME_OPTIONS = "DENY"
SECURE_CONTENT_TYPE_NOSNIFF = True
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_FAILURE_VIEW = "web.config.fault_pages.too_old"

TEST_RUNNER = "web.services.test_runner.Runner"

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"line": {"format": "{asctime} {levelname} {name} {message}", "style": "{"}},
    "handlers": {
        "console": {
            "class": "logging.StreamHandler",
            "formatter": "line",
            "level": _setting("LOG_LEVEL", "INFO"),
        }
    },
    "root": {"handlers": ["console"], "level": "INFO"},
}
