"""Settings of the server. What differs between machines comes from NOBLE_ANVIL_* variables."""

from __future__ import annotations

import os
from datetime import timedelta
from hashlib import sha256
from pathlib import Path

from csp.constants import NONCE, NONE, SELF
from django.core.exceptions import ImproperlyConfigured

ROOT = Path(__file__).resolve().parents[2]


def _env(name: str, default: str = "") -> str:
    return os.environ.get(f"NOBLE_ANVIL_{name}", default)


SECRET_KEY = _env("SECRET_KEY")
if len(SECRET_KEY) < 32:
    raise ImproperlyConfigured("NOBLE_ANVIL_SECRET_KEY must hold a secret of 32 signs or more; ./anvil makes one.")
DEBUG = False
# Grip gauges that may be connected to: "name=host:port", parted by commas.
GAUGES = _env("GAUGES")
INSTRUMENTS = _env("INSTRUMENTS")
# Machines that count by themselves, by their name on the shelf: "name=host:port", parted by commas.
MACHINES = _env("MACHINES")
# A drawing of five million characters, as JSON writes them.
DATA_UPLOAD_MAX_MEMORY_SIZE = 12_000_000
# Loopback names, by which ./anvil asks whether it answers, and those that the shop which hosts it gives.
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "[::1]", *filter(None, _env("HOSTS").split(","))]
# Whether the proxy that is trusted (server/serve.py) serves it over HTTPS.
HTTPS = _env("HTTPS") == "1"
if HTTPS and not _env("PROXY"):
    raise ImproperlyConfigured("NOBLE_ANVIL_HTTPS=1 needs NOBLE_ANVIL_PROXY, the address of the proxy that serves it.")

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "ninja",
    "procrastinate.contrib.django",
    "server.foundation",
    "server.apps.shelf",
    "server.apps.gauge",
    "server.apps.notebook",
    "server.apps.house",
    "server.apps.runs",
    "server.apps.card",
    "server.apps.running",
    "server.apps.practice",
    "server.apps.questions",
    "server.apps.calculators",
    "server.apps.demo",
]
MIDDLEWARE = [
    "server.config.doors.Doors",
    "server.config.roomy.GiveBack",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.middleware.gzip.GZipMiddleware",  # what whitenoise serves is compressed already
    "server.config.sessions.Sessions",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "server.config.away.DatabaseAway",
]
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "server.foundation.entering.ByName"]
# How wrong passwords are counted stands in server/foundation/entering.py.
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = timedelta(minutes=15)
AXES_HANDLER = "server.foundation.entering.Counting"
AXES_LOCKOUT_PARAMETERS = "server.foundation.entering.counted_by"
AXES_USERNAME_CALLABLE = "server.foundation.entering.counted_as"
AXES_RESET_COOL_OFF_ON_FAILURE_DURING_LOCKOUT = False  # or whoever goes on guessing keeps a name out for ever
AXES_RESET_ON_SUCCESS = True
AXES_ENABLE_ACCESS_FAILURE_LOG = False
AXES_DISABLE_ACCESS_LOG = True
AXES_VERBOSE = False
# Our sign-in answers a locked-out name itself, in the API's own words.
SILENCED_SYSTEM_CHECKS = ["axes.W002"]
ROOT_URLCONF = "server.config.urls"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "server" / "templates"],
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "HOST": "127.0.0.1",
        "PORT": _env("DB_PORT", "54329"),
        "USER": _env("DB_USER", "noble_anvil_app"),
        "PASSWORD": _env("DB_PASSWORD"),
        "NAME": _env("DB_NAME", "noble_anvil"),
        "CONN_MAX_AGE": 600,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {"connect_timeout": 5},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
AUTH_USER_MODEL = "foundation.Person"
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "server.foundation.passwords.NotBlank"},
    {"NAME": "server.foundation.passwords.NotRepeated"},
]
# What takes long is answered by processes of its own, from a queue in the database.
QUESTION_KINDS = "server.config.questions.ALL_KINDS"
CHORES = {"server.config.chores.follow_some": 1.0, "server.config.chores.tidy_up": 1800.0}  # each rests so long [s]
PROCRASTINATE_AUTODISCOVER_MODULE_NAME = "tasks"
# Two applications on one machine share its cookies whatever their ports: each has names of its own.
INSTANCE = sha256(b"names of cookies" + SECRET_KEY.encode()).hexdigest()[:8]
OF_THIS_HOST = "__Host-" if HTTPS else ""
SESSION_COOKIE_NAME = f"{OF_THIS_HOST}anvil-session-{INSTANCE}"
CSRF_COOKIE_NAME = f"{OF_THIS_HOST}anvil-token-{INSTANCE}"
KNOWN_COOKIE_NAME = f"anvil-known-{INSTANCE}"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
SECURE_HSTS_SECONDS = 31_536_000 if HTTPS else 0
# A session ends after a shift, and when nobody has done anything for so long (server/config/sessions.py).
SESSION_COOKIE_AGE = int(timedelta(hours=12).total_seconds())
SESSION_IDLE_S = 60 * int(_env("IDLE_MINUTES", "120"))
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF, NONCE],
        "style-src": [SELF, NONCE],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "worker-src": [SELF],
        "manifest-src": [SELF],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}

USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"
STATIC_ROOT = ROOT / "server" / "static"
WEB_BUILD = ROOT / "web" / "dist"
STATICFILES_DIRS = [WEB_BUILD] if WEB_BUILD.exists() else []
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    # Not the Manifest storage: Vite has hashed the names already, and hashing twice loads React twice.
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:  # noqa: N802 - whitenoise's name
    """Vite's hashed files never change."""
    return url.startswith("/static/assets/")


LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    # A refused entry is an answer, not an event of the server.
    "loggers": {"django.request": {"level": "ERROR"}, "axes": {"level": "ERROR"}, "waitress": {"level": "ERROR"}},
}
