"""Room on the disk: before there is none, nothing is written any more, so that all can still be read.

A database whose disk is full may fail in the middle of anything; with some room left it never comes to that.
"""

import os
from threading import Lock
from time import monotonic

from django.conf import settings
from prometheus_client import Gauge

MB = 1024 * 1024
# Seconds for which what was found stands.
A_LOOK = 1.0
HEADER = "X-Crelda-Disk"
LEFT = Gauge("crelda_disk_free_bytes", "Room on the fullest disk that data lie on.", multiprocess_mode="mostrecent")


class Disks:
    """The disks that the database's data and photos lie on, where they are of this machine."""

    def __init__(self) -> None:
        self.looked, self.full = 0.0, False
        self.looking = Lock()

    def are_full(self) -> bool:
        """Whether less room is left than is kept free."""
        with self.looking:
            if monotonic() - self.looked > A_LOOK:
                left = min(map(_left_on, filter(os.path.isdir, settings.DATA_FOLDERS)), default=None)
                self.looked, self.full = monotonic(), left is not None and left < settings.KEEP_FREE_MB * MB
                if left is not None:
                    LEFT.set(left)
            return self.full


disks = Disks()


def _left_on(folder: str) -> int:
    """Bytes that may still be written there by whoever is not the system's own."""
    disk = os.statvfs(folder)
    return disk.f_bavail * disk.f_frsize
