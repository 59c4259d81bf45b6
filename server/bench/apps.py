"""The bench app: listens to the runs."""

from django.apps import AppConfig


class BenchConfig(AppConfig):
    """Begun sticks keep to their pieces when a run is saved with other couplings."""

    name = "server.bench"

    def ready(self) -> None:
        """Listen."""
        from server.bench import receivers  # noqa: F401, PLC0415
