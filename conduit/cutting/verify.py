"""Is a cut plan right? Knows nothing of how it was made; every plan passes through here."""

import itertools
from collections import Counter, defaultdict
from collections.abc import Sequence

from conduit.cutting.model import IN_AN_INCH, Cut, CutPlan, Held, Needed, ScrapBar, Source, Terms

# Without prices a stick of 120 in counts one, others by their length.
A_USUAL_STICK = 120 * IN_AN_INCH


def faults(needed: Sequence[Needed], lying: Sequence[ScrapBar], terms: Terms, plan: CutPlan) -> list[str]:
    """Every way in which `plan` fails to give the runs of one kind from what lies there and is sold; empty if right.

    Worked out from the plan alone, without the optimizer's code: bars hold what is cut from them with its kerfs, each
    run is made from end to end with couplings in its windows, held pieces stay, and sticks, couplings, waste and cost
    are counted anew. Lengths in sixteenths.
    """
    found: list[str] = []
    cuts: dict[str, list[Cut]] = defaultdict(list)
    for source in plan.sources:
        found += _of_source(source, terms)
        for cut in source.cuts:
            cuts[cut.run].append(cut)
    found += _of_bars(plan.sources, lying, terms)
    found += _of_held(needed, lying, plan)
    if set(cuts) - {run.key for run in needed}:
        found.append("a piece is cut for no run")
    for run in needed:
        found += [f"run {run.key}: {fault}" for fault in _of_run(run, cuts[run.key], terms, plan)]
    return found + _of_count(lying, terms, plan)


def _of_count(lying: Sequence[ScrapBar], terms: Terms, plan: CutPlan) -> list[str]:
    """Sticks, couplings, waste and cost, counted anew."""
    new = [source.length for source in plan.sources if source.tag is None]
    bought = [bar.length for bar in lying if bar.bought]
    joints = sum(len(places) for places in plan.couplings.values())
    priced = [sold.price / sold.length for sold in terms.sold if sold.price is not None]
    rate = min(priced, default=1 / A_USUAL_STICK)
    price = {sold.length: sold.length * rate if sold.price is None else sold.price for sold in terms.sold}
    of_a_sixteenth = min(each / length for length, each in price.items())
    waste = kept = 0
    for source in plan.sources:
        over = source.length - sum(cut.length for cut in source.cuts)
        offcut = over - terms.kerf * len(source.cuts)
        offcut = offcut if offcut >= terms.keep else 0
        waste, kept = waste + over - offcut, kept + offcut
    money = sum(price.get(length, length * rate) for length in new + bought)
    there = {bar.tag for bar in lying if not bar.bought}
    money += terms.fetch * sum(source.tag in there for source in plan.sources)
    counts = {
        "sticks": (plan.sticks, len(new) + len(bought)),
        "couplings": (plan.joints, joints),
        "waste": (plan.waste, waste),
        "cost": (plan.cost, money + terms.coupling * joints + of_a_sixteenth * (waste + (1 - terms.offcut) * kept)),
        "offcuts": (plan.kept, kept),
    }
    return [
        f"the {what} are counted wrong: {told}, not {true}"
        for what, (told, true) in counts.items()
        if abs(told - true) > 1e-6 * max(1.0, abs(true))
    ]


def _of_held(needed: Sequence[Needed], lying: Sequence[ScrapBar], plan: CutPlan) -> list[str]:
    """Pieces that are held to a bar, or to a new stick (a bought one is as good), must be cut from it."""
    bought = {None, *(bar.tag for bar in lying if bar.bought)}
    tags = {(cut.run, cut.start, cut.end): source.tag for source in plan.sources for cut in source.cuts}
    return [
        f"run {run.key}: the piece held from {held.start}/16 is cut from {tag or 'a new stick'}"
        for run in needed
        for held in run.held
        if not held.done
        and (tag := tags.get((run.key, held.start, held.end))) not in ({held.source} if held.source else bought)
    ]


def _of_bars(sources: Sequence[Source], lying: Sequence[ScrapBar], terms: Terms) -> list[str]:
    there = {bar.tag: bar for bar in lying}
    found = []
    tags = Counter(source.tag for source in sources if source.tag is not None)
    for source in sources:
        if source.tag is None:
            if source.length not in {sold.length for sold in terms.sold}:
                found.append("a new stick has a length that is not sold")
        elif source.tag not in there or tags[source.tag] > 1:
            found.append(f"{source.tag} is not there, or used twice")
        elif (there[source.tag].length, there[source.tag].kind) != (source.length, source.kind):
            found.append(f"{source.tag} is not as it lies there")
    return found


def _of_source(source: Source, terms: Terms) -> list[str]:
    sawn, found = -terms.kerf, []
    for cut in source.cuts:
        if cut.at < sawn + terms.kerf:
            found.append(f"piece {cut.number} of {cut.run} overlaps the cut before it")
        sawn = cut.at + cut.length
    if sawn > source.length:
        found.append("a source is cut beyond its end")
    return found


def _of_run(run: Needed, cuts: Sequence[Cut], terms: Terms, plan: CutPlan) -> list[str]:
    """Pieces and those cut before must follow each other from end to end, each long enough and rightly cut."""
    found = []
    done = [Cut("", 0, held.start, held.end, 0, held.cut, True) for held in run.held if held.done]
    pieces = sorted([*cuts, *done], key=lambda cut: cut.start)
    places = [0, *plan.couplings.get(run.key, ()), run.length]
    if [(cut.start, cut.end) for cut in pieces] != list(itertools.pairwise(places)):
        return ["its pieces do not follow each other from end to end"]
    settled = {place for held in run.held for place in (held.start, held.end)} | set(run.couplings)
    if not settled - {0, run.length} <= set(places):
        found.append("a coupling that is fixed is not there")
    for place in set(places[1:-1]) - settled:
        if not any(low <= place <= high for low, high in run.windows):
            found.append(f"a coupling at {place}/16 lies where none may")
    held_at = {(held.start, held.end): held for held in run.held}
    for number, cut in enumerate(pieces, start=1):
        found += _of_piece(run, cut, number, held_at.get((cut.start, cut.end)), settled, terms)
    return found


def _of_piece(run: Needed, cut: Cut, number: int, held: Held | None, settled: set[int], terms: Terms) -> list[str]:
    if cut.done:
        return []
    found = [] if cut.number == number else [f"piece {number} is called {cut.number}"]
    if held:
        return found if cut.length == held.cut else [*found, f"piece {number} is not cut as it is held"]
    begin = run.begins(cut.start)
    # Some of a bend is enough.
    bent = any(low < cut.end and high > begin for low, high in run.bends)
    if cut.length != cut.end - begin + (terms.spare if bent else 0):
        found.append(f"piece {number} is cut wrong")
    fixed = settled | {0, run.length}
    if cut.end - begin < terms.least and not {cut.start, cut.end} <= fixed:
        found.append(f"piece {number} is too short")
    return found
