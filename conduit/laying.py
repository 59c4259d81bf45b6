"""From a raw document to its layout on its shoe, with everything found on the way."""

from dataclasses import replace

from conduit.checks import check
from conduit.document import Head, Reading, read_document
from conduit.layout import Layout, lay_out
from conduit.problems import Fix, Problem, setting, stops
from conduit.shoe import Dial, NoSuchShoe, Shoe, must_bend, typical_shoe
from conduit.tables import DEFAULT_RULES, OUTSIDE_DIAMETER, Rules
from conduit.verdicts import found_by_bending


def laid_out(raw: object, rules: Rules = DEFAULT_RULES) -> tuple[Reading, Layout | None, Shoe | None, list[Problem]]:
    """Read and lay out a run document, with everything found on the way; no layout where there is no shoe for it.

    Raises UnreadableDocument where `raw` is not a run document at all.
    """
    reading = read_document(raw)
    problems = list(reading.problems)
    shoe = _shoe(reading.head, problems)
    if not shoe:
        return reading, None, None, problems
    layout = lay_out(reading, shoe, rules)
    problems += layout.problems
    problems += check(layout, reading, shoe, rules)
    if layout.complete and not stops(problems):
        problems += found_by_bending(reading, layout, shoe)
    return reading, layout, shoe, problems


def _shoe(head: Head, problems: list[Problem]) -> Shoe | None:
    """The shoe the run asks for, else the typical one; with a problem where there is none."""
    if any(problem.place.split(".")[0] in ("shoe", "trade_size", "material") for problem in problems):
        return None
    try:
        given = head.shoe and given_shoe(head)
    except NoSuchShoe as error:
        fix = setting("Use a typical hand shoe", "shoe", None)
        problems.append(_stop("no_such_shoe", "shoe.gain", f"The shoe: {error}.", "", fix))
        return None
    shoe = given or typical_shoe(head.material, head.trade_size)
    if not shoe:
        says = f"The shoe: there is no usual hand shoe for {head.trade_size} {head.material}."
        problems.append(_stop("no_typical_shoe", "shoe", says, "Enter the deduct and gain of your machine's shoe."))
    return shoe


def given_shoe(head: Head) -> Shoe:
    """The shoe whose figures the run brings. Raises NoSuchShoe where they cannot be, or are for other pipe."""
    figures = head.shoe
    if figures is None:
        raise NoSuchShoe("no figures are given")
    must_bend(figures.bends, head.material, head.trade_size)
    if figures.deduct is None or figures.gain is None:
        typical = typical_shoe(head.material, head.trade_size)
        if not typical or figures.deduct is not figures.gain:
            raise NoSuchShoe("deduct and gain are both needed; bend a 90 in scrap and measure both legs")
        return replace(typical, name=figures.name or typical.name)
    return Shoe(
        figures.name,
        OUTSIDE_DIAMETER[head.material][head.trade_size],
        figures.deduct,
        figures.gain,
        figures.front,
        tuple(figures.references.items()),
        None if figures.machine else figures.handle_up,
        Dial(figures.dial_factor, figures.dial_constant),
    )


def _stop(code: str, place: str, says: str, remedy: str, *fixes: Fix) -> Problem:
    return Problem(code=code, severity="stop", place=place, says=says, remedy=remedy, fixes=fixes)
