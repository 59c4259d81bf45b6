"""English, which every message has.

Knows: the sentences. Gives: `TEMPLATES` and the clause table's `CLAUSES`, by key. Imports nothing.
"""

from collections.abc import Mapping

from conduit.catalogue.english.bench import BENCH
from conduit.catalogue.english.card import CARD
from conduit.catalogue.english.changes import CHANGES
from conduit.catalogue.english.clauses import CLAUSES, STEPS
from conduit.catalogue.english.findings import FINDINGS
from conduit.catalogue.english.marks import MARKS
from conduit.catalogue.english.order import ORDER
from conduit.catalogue.english.parts import PARTS
from conduit.catalogue.english.shoes import SHOES
from conduit.catalogue.english.stock import STOCK
from conduit.catalogue.english.typed import TYPED
from conduit.catalogue.english.working import WORKING

_SAID = {f"finding.{key}": says for key, (says, _) in FINDINGS.items()}
_REMEDIES = {f"remedy.{key}": remedy for key, (_, remedy) in FINDINGS.items() if remedy}
TEMPLATES: Mapping[str, str | tuple[str, str]] = {
    **_SAID,
    **_REMEDIES,
    **PARTS,
    **STEPS,
    **CHANGES,
    **ORDER,
    **BENCH,
    **WORKING,
    **CARD,
    **MARKS,
    **SHOES,
    **STOCK,
    **TYPED,
}

__all__ = ["CLAUSES", "TEMPLATES"]
