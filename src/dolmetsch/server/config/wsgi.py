"""The WSGI entry point that the production server loads."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "dolmetsch.server.config.settings")
application = get_wsgi_application()
