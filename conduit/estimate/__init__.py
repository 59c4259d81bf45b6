"""What a job takes: its materials at a crew's prices, its labour by a crew's own figures. An estimate, with its spread.

Knows a crew's price list and figures, what is to be brought, and the work that a plan asks for.
Gives: materials_of, labour_of and work_in, read_prices, and figures proposed from times of a log.
Never imports whoever keeps logs and lists.
"""

from conduit.estimate.labour import (
    WORK,
    Labour,
    LabourFigures,
    LabourLine,
    ProposedFigure,
    Work,
    labour_of,
    proposed_figure,
    work_in,
)
from conduit.estimate.materials import Materials, PricedLine, materials_of
from conduit.estimate.price_list import LONGEST_LIST, PRICE_COLUMNS, Price, PriceFault, price_of, read_prices

__all__ = [
    "LONGEST_LIST",
    "PRICE_COLUMNS",
    "WORK",
    "Labour",
    "LabourFigures",
    "LabourLine",
    "Materials",
    "Price",
    "PriceFault",
    "PricedLine",
    "ProposedFigure",
    "Work",
    "labour_of",
    "materials_of",
    "price_of",
    "proposed_figure",
    "read_prices",
    "work_in",
]
