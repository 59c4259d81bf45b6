"""Every address: the API below /api/, and the front end's one page for all the rest."""

from django.urls import path, re_path

from server.api import api
from server.observing.metrics import metrics
from server.pages import front_end

urlpatterns = [
    path("api/", api.urls),
    path("metrics", metrics),
    re_path(r"^(?!api/|assets/).*$", front_end),
]
