"""What writes other programs' formats is installed last, beside what runs already: nobody's first look waits for it."""

import subprocess

from ops import install
from ops.children import start, stop
from ops.paths import LOGS, ROOT
from ops.say import say

LOG = LOGS / "formats.log"


class Later:
    """That installation, as a process of its own that ends with us."""

    def __init__(self) -> None:
        self.child: subprocess.Popen[bytes] | None = None

    def begin(self) -> None:
        """Start it where something is missing."""
        if not install.has_formats():
            say("installing beside this what writes PDF, DXF, IFC and other formats …")
            self.child = start([ROOT / "crelda", "install", "--formats"], LOG)

    def look(self) -> None:
        """Say how it ended, once."""
        code = self.child.poll() if self.child else None
        if code is None:
            return
        self.child = None
        if code:
            say(f"it could not be installed ({LOG} says why): files of other formats are not made. All else goes on.")
        else:
            say("files of other formats can be made now.")

    def stop(self) -> None:
        """End it; it goes on with the next start."""
        if self.child:
            stop(self.child)
