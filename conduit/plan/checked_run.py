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
    own = measured.head.held_to(limits)
    read = [*measured.findings, *doubts(raw, measured.head)] if isinstance(raw, Mapping) else []
    shoe, of_shoe = shoe_for(measured.head, read)
    if not shoe:
        return CheckedRun(measured, None, None, own, [*read, *of_shoe])
    shoe, held = _handled(shoe, measured.head, own)
    layout = lay_out(measured, shoe, held)
    gap = measured.head.gap_by(held)
    fixed = fixed_couplings(layout, gap)
    couplings, no_place = _couplings(layout, measured.head, fixed) if layout.complete else ((), ())
    # Pull points have boxes of their own.
    joints = [place for place in couplings if place not in fixed]
    strapped = strapping(layout, measured, joints)
    limited = limit_findings(layout, measured, shoe, strapped)
    found_so_far = [*read, *of_shoe, *layout.findings, *limited, *no_place]
    pieces = pieces_of(layout, couplings, gap, fixed)
    if not layout.complete or stops(found_so_far):
        return CheckedRun(measured, layout, shoe, held, found_so_far, couplings, fixed, pieces)
    prover = Prover(measured, layout, shoe)
    findings = [*found_so_far, *sequence_findings(measured, layout, shoe, pieces), *bent_findings(prover)]
    return CheckedRun(measured, layout, shoe, held, findings, couplings, fixed, pieces, prover, strapped.straps)


def _handled(shoe: Shoe, head: Head, limits: Limits) -> tuple[Shoe, Limits]:
    """The shoe as a crew handles its pipe, and the limits, whose couplings leave it a hold beside each bend."""
    handling = Handling.by(limits, head.material, head.trade_size)
    # The typical shoes are kept, with what was worked out of them.
    shoe = shoe if shoe.handling == handling else replace(shoe, handling=handling)
    return shoe, limits.model_copy(update={"clear_of_bend": max(limits.clear_of_bend, shoe.straight_ahead)})


def _couplings(
    layout: Layout, head: Head, fixed: Mapping[float, float]
) -> tuple[tuple[float, ...], tuple[Finding, ...]]:
    """Where the couplings are, or a finding that says that they find no place."""
    spans, limits = blocked(layout), layout.limits
    gap = head.gap_by(limits)
    places = split(layout.path.length, spans, limits, {**dict.fromkeys(head.couplings, gap), **fixed}, gap)
    if places is not None:
        return tuple(places), ()
    stick = head.tape.shows(limits.stick)
    freed = split(layout.path.length, spans, limits, fixed, gap) is not None
    fixes = (setting(message("fix.own_places"), "couplings", []),) if freed else ()
    place = "couplings" if head.couplings else "steps"
    return (), (found(Code.NO_COUPLING_PLACE, place, *fixes, stick=stick),)


def shoe_for(head: Head, read: Sequence[Finding]) -> tuple[Shoe | None, tuple[Finding, ...]]:
    """The shoe the run asks for, else the typical one, and what is said of it; None where there is none.

    `read`: what was found in reading the run; nothing more is said where its shoe or pipe is among that.
    """
    if any(finding.place.split(".")[0] in ("shoe", "trade_size", "material") for finding in read):
        return None, ()
    try:
        given = head.shoe and given_shoe(head)
    except NoSuchShoe as error:
        fix = setting(message("fix.typical_shoe"), "shoe", None)
        return None, (found(Code.NO_SUCH_SHOE, "shoe.gain", fix, why=said_by(error)),)
    if given:
        return given, tuple(_doubtful(head, given))
    typical = typical_shoe(head.material, head.trade_size)
    if not typical:
        return None, (found(Code.NO_TYPICAL_SHOE, "shoe", pipe=f"{head.trade_size} {head.material}"),)
    return typical, ()


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
