"""Where things lie. Everything made at run time is in the ignored run folder."""

import os
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
RUN = Path(os.environ.get("CRELDA_RUN_DIR", ROOT / ".run")).resolve()
VENV = RUN / "venv"
PYTHON = VENV / "bin" / "python"
STAMPS = RUN / "stamps"
LOGS = RUN / "logs"
WEB = ROOT / "web"
REQUIREMENTS = ROOT / "requirements"
