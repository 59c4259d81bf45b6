"""The WSGI entry for a production server. Raises ImproperlyConfigured where it would not be safe to serve."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
application = get_wsgi_application()

from django.db import connections  # noqa: E402
from django.urls import get_resolver  # noqa: E402

from server import body_size  # noqa: E402
from server.upkeep.safety import refuse_unsafe  # noqa: E402 (the models need the settings)

refuse_unsafe()
# The processes that are made of this one share no connection.
connections.close_all()
# Now, and not with the first request of each process.
get_resolver().url_patterns  # noqa: B018
body_size.work_out()
