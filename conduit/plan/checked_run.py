"""From a raw document to its layout on its shoe, with everything found on the way."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace

from conduit.bender import (
    Dial,
    Handling,
    NoSuchShoe,
    Shoe,
    doubt_of,
    must_be_possible,
    must_bend,
    typical_machine,
    typical_shoe,
)
from conduit.catalogue import message, said_by
from conduit.document import Head, MeasuredRun, doubts, read_document
from conduit.findings import Code, Edit, Finding, Fix, found, setting, stops
from conduit.layout import Layout, blocked, fixed_couplings, lay_out, limit_findings, split, strapping
from conduit.plan.bent_findings import bent_findings
from conduit.plan.proof import Prover
from conduit.sequence import pieces_of, sequence_findings
from conduit.tables import DEFAULT_LIMITS, OUTSIDE_DIAMETER, Limits


@dataclass(frozen=True)
class CheckedRun:
    """A run laid out on its shoe, with its couplings and everything found.

    No layout where there is no shoe for it; no couplings where it is not complete or they find no place.
    `fixed`: the breaks in the pipe that steps make, along it, and how far from each the next piece begins; `pieces`:
    where each piece begins and ends on the run's straight pipe.
    `prover`: bends it in simulation, where it could be bent; `straps`: along it then.
    """

    measured: MeasuredRun
    layout: Layout | None
    shoe: Shoe | None
    limits: Limits
    findings: list[Finding]
    couplings: tuple[float, ...] = ()
    fixed: Mapping[float, float] = field(default_factory=dict)
    pieces: Sequence[tuple[float, float]] = ()
    prover: Prover | None = None
    straps: Sequence[float] = ()


def check_run(raw: object, limits: Limits = DEFAULT_LIMITS) -> CheckedRun:
    """Read a raw run document, lay it out on its shoe, bend it in simulation, and find all that speaks against it.

    The one verdict that plan, ways, fixes, bench and stock share: a run is makeable where nothing found is a stop. It
    is bent, and its pieces put into an order, once nothing else stops it. `limits` are the crew's; the run's own come
    before them. Raises UnreadableDocument where `raw` is not a run document at all.
    """
    measured = read_document(raw)
    limits = measured.head.held_to(limits)
    findings = [*measured.findings, *doubts(raw, measured.head)] if isinstance(raw, Mapping) else []
    shoe = shoe_for(measured.head, findings)
    if not shoe:
        return CheckedRun(measured, None, None, limits, findings)
    handling = Handling.by(limits, measured.head.material, measured.head.trade_size)
    # The typical shoes are kept, with what was worked out of them.
    shoe = shoe if shoe.handling == handling else replace(shoe, handling=handling)
    limits = limits.model_copy(update={"clear_of_bend": max(limits.clear_of_bend, shoe.straight_ahead)})
    layout = lay_out(measured, shoe, limits)
    findings += layout.findings
    gap = measured.head.gap_by(limits)
    fixed = fixed_couplings(layout, gap)
    no_place = list[Finding]()
    couplings = _couplings(layout, measured.head, limits, fixed, no_place) if layout.complete else ()
    # Pull points have boxes of their own.
    joints = [place for place in couplings if place not in fixed]
    strapped = strapping(layout, measured, limits, joints)
    findings += [*limit_findings(layout, measured, shoe, limits, strapped), *no_place]
    pieces = pieces_of(layout, couplings, gap, fixed)
    prover = None
    if layout.complete and not stops(findings):
        findings += sequence_findings(measured, layout, shoe, pieces)
        prover = Prover(measured, layout, shoe)
        findings += bent_findings(prover)
    straps = strapped.straps if prover else ()
    return CheckedRun(measured, layout, shoe, limits, findings, couplings, fixed, pieces, prover, straps)


def _couplings(
    layout: Layout, head: Head, limits: Limits, fixed: Mapping[float, float], findings: list[Finding]
) -> tuple[float, ...]:
    spans, gap = blocked(layout), head.gap_by(limits)
    places = split(layout.path.length, spans, limits, {**dict.fromkeys(head.couplings, gap), **fixed}, gap)
    if places is None:
        stick = head.tape.shows(limits.stick)
        freed = split(layout.path.length, spans, limits, fixed, gap) is not None
        fixes = (setting(message("fix.own_places"), "couplings", []),) if freed else ()
        place = "couplings" if head.couplings else "steps"
        findings.append(found(Code.NO_COUPLING_PLACE, place, *fixes, stick=stick))
    return tuple(places or ())


def shoe_for(head: Head, findings: list[Finding]) -> Shoe | None:
    """The shoe the run asks for, else the typical one; None, with a finding put to `findings`, where there is none."""
    if any(finding.place.split(".")[0] in ("shoe", "trade_size", "material") for finding in findings):
        return None
    try:
        given = head.shoe and given_shoe(head)
    except NoSuchShoe as error:
        fix = setting(message("fix.typical_shoe"), "shoe", None)
        findings.append(found(Code.NO_SUCH_SHOE, "shoe.gain", fix, why=said_by(error)))
        return None
    if given:
        findings += _doubtful(head, given)
    shoe = given or typical_shoe(head.material, head.trade_size)
    if not shoe:
        findings.append(found(Code.NO_TYPICAL_SHOE, "shoe", pipe=f"{head.trade_size} {head.material}"))
    return shoe


def _doubtful(head: Head, shoe: Shoe) -> Iterator[Finding]:
    """A caution where the run's own figures are unusual for a shoe of its size; with the exchange that mends it."""
    doubt = doubt_of(shoe, head.trade_size)
    if not doubt or not head.shoe:
        return
    fixes: tuple[Fix, ...] = ()
    if doubt.exchanged:
        deduct, gain = head.tape.written(shoe.gain), head.tape.written(shoe.deduct)
        says = message("fix.exchange", deduct=head.tape.shows(shoe.gain), gain=head.tape.shows(shoe.deduct))
        edits = (Edit(op="set", place="shoe.deduct", value=deduct), Edit(op="set", place="shoe.gain", value=gain))
        fixes = (Fix(says=says, edits=edits),)
    yield found(Code.DOUBTFUL_SHOE, "shoe.gain", *fixes, why=doubt.says)


def given_shoe(head: Head) -> Shoe:
    """The shoe whose figures the run brings; typical ones where it names no deduct and gain.

    Raises NoSuchShoe where there are none, where only one of deduct and gain is given, or where they are for other
    pipe.
    """
    figures = head.shoe
    if figures is None:
        raise NoSuchShoe(message("shoe.no_figures"))
    must_bend(figures.bends, head.material, head.trade_size)
    if figures.deduct is None or figures.gain is None:
        typical = (typical_machine if figures.machine else typical_shoe)(head.material, head.trade_size)
        if not typical or figures.deduct is not figures.gain:
            raise NoSuchShoe(message("shoe.both_needed"))
        return replace(typical, name=figures.name or typical.name)
    shoe = Shoe(
        figures.name,
        OUTSIDE_DIAMETER[head.material][head.trade_size],
        figures.deduct,
        figures.gain,
        figures.front,
        tuple(figures.references.items()),
        None if figures.machine else figures.handle_up,
        Dial(figures.dial_factor, figures.dial_constant),
        figures.heel,
    )
    must_be_possible(shoe, head.trade_size)
    return shoe
