"""The cutting app: listens to the bench."""

from django.apps import AppConfig


class CuttingConfig(AppConfig):
    """What is cut or scrapped at the bench is so in the cut plan too."""

    name = "server.cutting"

    def ready(self) -> None:
        """Listen."""
        from server.cutting import receivers  # noqa: F401, PLC0415
