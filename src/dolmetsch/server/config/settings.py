"""Django settings. Everything that differs between machines comes from DOLMETSCH_… variables,
which ``./dolmetsch`` sets."""

import os
from pathlib import Path

from csp.constants import NONE, SELF
from django.core.exceptions import ImproperlyConfigured

ROOT = Path(__file__).resolve().parents[4]


def _env(name: str, default: str | None = None) -> str:
    value = os.environ.get(f"DOLMETSCH_{name}", default)
    if value is None:
        raise ImproperlyConfigured(f"DOLMETSCH_{name} is not set; start it with ./dolmetsch")
    return value


SECRET_KEY = _env("SECRET_KEY")
DEBUG = False
ALLOWED_HOSTS = _env("HOSTS", "127.0.0.1,localhost,testserver").split(",")
#: The address by which other devices open it, and labels' codes do; empty: by whichever it was asked.
ADDRESS = _env("ADDRESS", "")
#: A proxy of the kitchen's own stands before it, on this machine, and speaks HTTPS.
IS_PROXIED = ADDRESS.startswith("https://")
if IS_PROXIED:
    CSRF_TRUSTED_ORIGINS = [ADDRESS]
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
    SESSION_COOKIE_SECURE = True
    CSRF_COOKIE_SECURE = True
    SECURE_HSTS_SECONDS = 365 * 24 * 3600
DEMO = _env("DEMO", "0") == "1"
#: Whether the demo's sign-in is shown, and taken, beyond the machine itself.
DEMO_EVERYWHERE = _env("DEMO_EVERYWHERE", "0") == "1"

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "ninja",
    "dolmetsch.server.kitchens",
    "dolmetsch.server.prices",
    "dolmetsch.server.ways",
    "dolmetsch.server.batches",
    "dolmetsch.server.pieces",
    "dolmetsch.server.plans",
    "dolmetsch.server.cures",
    "dolmetsch.server.diary",
    "dolmetsch.server.fires",
    "dolmetsch.server.hooks",
    "dolmetsch.server.practice",
    "dolmetsch.server.larder",
    "dolmetsch.server.dishes",
    "dolmetsch.server.meals",
    "dolmetsch.server.books",
    "dolmetsch.server.tastings",
    "dolmetsch.server.archive",
    "dolmetsch.server.history",
    "dolmetsch.server.demo",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "dolmetsch.server.config.clock.by_own_clock",
    "dolmetsch.server.config.headers.add_headers",
    "dolmetsch.server.config.logs.remember_who",
    "dolmetsch.server.access.same_cook.keep_cooks_apart",
    "dolmetsch.server.problems.answer_wrong_method",
]
ROOT_URLCONF = "dolmetsch.server.config.urls"
WSGI_APPLICATION = "dolmetsch.server.config.wsgi.application"
TEMPLATES: list[dict[str, object]] = []

#: What is worked out once and kept for all workers (``writing.kept_answers``): files of this machine alone.
CACHES = {
    "default": {
        "BACKEND": "django.core.cache.backends.filebased.FileBasedCache",
        "LOCATION": _env("KEPT", str(ROOT / ".dolmetsch" / "kept")),
        "OPTIONS": {"MAX_ENTRIES": 1000},
    }
}
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.mysql",
        "HOST": _env("DB_HOST", "127.0.0.1"),
        "PORT": _env("DB_PORT"),
        "NAME": _env("DB_NAME", "dolmetsch"),
        "USER": _env("DB_USER", "dolmetsch"),
        "PASSWORD": _env("DB_PASSWORD"),
        "CONN_MAX_AGE": 600,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "charset": "utf8mb4",
            "isolation_level": "read committed",
            "sql_mode": "STRICT_ALL_TABLES",
            "connect_timeout": 3,
            "read_timeout": 10,
            "write_timeout": 10,
        },
        "TEST": {"CHARSET": "utf8mb4", "COLLATION": "utf8mb4_unicode_ci"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "kitchens.User"
AUTHENTICATION_BACKENDS = [
    "django.contrib.auth.backends.ModelBackend",
]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
SESSION_COOKIE_AGE = 14 * 24 * 3600
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
CSRF_FAILURE_VIEW = "dolmetsch.server.problems.answer_csrf_failure"

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF],
        "style-src": [SELF, "'unsafe-inline'"],
        "img-src": [SELF, "data:"],
        "object-src": [NONE],
        "frame-ancestors": [NONE],
        "base-uri": [SELF],
        "form-action": [SELF],
    }
}
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"

USE_TZ = True
TIME_ZONE = "UTC"
USE_I18N = False

WEB_DIST = Path(_env("WEB_DIST", str(ROOT / "web" / "dist")))
#: Where photos are kept as files, beside the record store.
PHOTOS = _env("PHOTOS", str(ROOT / ".dolmetsch" / "photos"))
#: The scales there are, as name=kind:address, several with commas; the label printer's address.
SCALES = _env("SCALES", "")
#: The cookers there are, in the same words.
COOKERS = _env("COOKERS", "")
CHAMBERS = _env("CHAMBERS", "")
PRINTER = _env("PRINTER", "")
STATIC_URL = "static/"
if WEB_DIST.is_dir():
    WHITENOISE_ROOT = WEB_DIST
    WHITENOISE_INDEX_FILE = False


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:  # noqa: N802 (WhiteNoise's name)
    """Whether a file never changes: the build names its assets by their content."""
    return url.startswith("/assets/")


LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "filters": {"who": {"()": "dolmetsch.server.config.logs.Who"}},
    "formatters": {
        "line": {"format": "{asctime} {levelname} {who} {name}: {message}", "style": "{"},
    },
    "handlers": {
        "console": {"class": "logging.StreamHandler", "formatter": "line", "filters": ["who"]},
    },
    "root": {"handlers": ["console"], "level": "WARNING"},
}
