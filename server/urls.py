"""Every address: the API below /api/, and the front end's one page for all the rest."""

from django.urls import path, re_path

from server.accounts import provider_views
from server.api import api
from server.observing.metrics import metrics
from server.pages import front_end, no_such_api

urlpatterns = [
    path("api/session/provider", provider_views.begin),
    path(provider_views.BACK.lstrip("/"), provider_views.back),
    path("api/", api.urls),
    path("metrics", metrics),
    re_path(r"^api/", no_such_api),
    re_path(r"^(?!api/|assets/).*$", front_end),
]
