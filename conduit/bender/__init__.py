"""The bender's shoe: what one test 90 says of it, what logged bends teach, and a stand-in angle finder.

Knows deduct, gain, radius, references, the dial and the straight pipe that the shoe needs.
Gives: Shoe, typical figures, how a crew bends on it, calibration, drift.
Never imports runs, layouts or the simulation.
"""

from conduit.bender.calibration import DialFit, Test90, calibrate, fit_dial
from conduit.bender.degree_lines import found_by, lines_on
from conduit.bender.drift import Learned, LoggedBend, learn
from conduit.bender.handling import Handling, Way
from conduit.bender.plausible import CalibrationDoubt, ShoeDoubt, doubt_of, doubts_of_tests, must_be_possible
from conduit.bender.shoe import (
    CENTRE,
    Dial,
    Hook,
    NoSuchShoe,
    Reference,
    Shoe,
    must_bend,
    typical_machine,
    typical_shoe,
)

__all__ = [
    "CENTRE",
    "CalibrationDoubt",
    "Dial",
    "DialFit",
    "Handling",
    "Hook",
    "Learned",
    "LoggedBend",
    "NoSuchShoe",
    "Reference",
    "Shoe",
    "ShoeDoubt",
    "Test90",
    "Way",
    "calibrate",
    "doubt_of",
    "doubts_of_tests",
    "fit_dial",
    "found_by",
    "learn",
    "lines_on",
    "must_be_possible",
    "must_bend",
    "typical_machine",
    "typical_shoe",
]
