"""How old the last backup is, where a folder for them is set: whoever watches is told when none was made."""

from collections.abc import Iterator
from pathlib import Path
from time import time

from django.conf import settings
from prometheus_client.core import GaugeMetricFamily
from prometheus_client.registry import Collector


class Backups(Collector):
    """Read from the folder when it is asked for."""

    def collect(self) -> Iterator[GaugeMetricFamily]:
        """Seconds since the last one that was finished; nothing where there is no folder, or none in it."""
        files = Path(settings.BACKUP_DIR).glob("crelda-*.sql.gz*") if settings.BACKUP_DIR else []
        made = [one.stat().st_mtime for one in files if one.suffix != ".part"]
        if made:
            yield GaugeMetricFamily("crelda_backup_age_seconds", "Since the last backup.", value=time() - max(made))
