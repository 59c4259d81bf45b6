"""The WSGI entry for a production server. Raises ImproperlyConfigured where it would not be safe to serve."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
application = get_wsgi_application()

from server.upkeep.safety import refuse_unsafe  # noqa: E402 (the models need the settings)

refuse_unsafe()
