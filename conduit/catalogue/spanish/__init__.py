"""Spanish: all that the bench says. What is not here is told in English.

Knows: the sentences. Gives: `TEMPLATES` and the clause table's `CLAUSES`, by key. Imports nothing.
"""

from collections.abc import Mapping

from conduit.catalogue.spanish.bench import BENCH
from conduit.catalogue.spanish.clauses import CLAUSES, STEPS
from conduit.catalogue.spanish.findings import FINDINGS
from conduit.catalogue.spanish.order import ORDER
from conduit.catalogue.spanish.parts import PARTS
from conduit.catalogue.spanish.working import WORKING

_SAID = {f"finding.{key}": says for key, (says, _) in FINDINGS.items()}
_REMEDIES = {f"remedy.{key}": remedy for key, (_, remedy) in FINDINGS.items() if remedy}
TEMPLATES: Mapping[str, str | tuple[str, str]] = {**_SAID, **_REMEDIES, **PARTS, **STEPS, **ORDER, **BENCH, **WORKING}

__all__ = ["CLAUSES", "TEMPLATES"]
