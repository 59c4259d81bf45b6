"""What is said of cut plans: what is proved, what stays, what tells choices apart, what a length costs."""

from collections import Counter
from collections.abc import Sequence

from conduit.cutting.model import CutPlan, KindPlan, Terms
from conduit.cutting.schema import reading


def sticks_say(sticks: int, at_least: int) -> str:
    """How many new sticks, and what is proved of that."""
    if not sticks:
        return "No new sticks needed."
    count = _counted(sticks, "stick")
    if sticks > at_least:
        return f"{count}; at least {at_least or 'none'}."
    return f"{count}; it cannot be done with {sticks - 1 or 'none'}."


def stayed_says(found: KindPlan) -> str:
    """How much is as it was in the plan before."""
    pieces = sum(len(source.cuts) for source in found.plans[found.chosen].sources)
    if not pieces:
        return ""
    if found.stayed >= pieces:
        return "Every piece stays where it was."
    stay = "stays where it was" if found.stayed == 1 else "stay where they were"
    return f"{found.stayed or 'None'} of {_counted(pieces, 'piece')} {stay}."


def labels_of(plans: Sequence[CutPlan]) -> list[str]:
    """What tells the choices apart: sticks and couplings, then the lengths bought, then what each costs."""
    labels = [f"{_counted(plan.sticks, 'stick')}, {_counted(plan.joints, 'coupling')}" for plan in plans]
    again = {label for label in labels if labels.count(label) > 1}
    labels = [
        f"{one} ({_lengths_bought(plan)})" if one in again else one for one, plan in zip(labels, plans, strict=True)
    ]
    return [f"{label}: {plan.cost:.2f}" for label, plan in zip(labels, plans, strict=True)]


def _lengths_bought(plan: CutPlan) -> str:
    lengths = Counter(source.length for source in plan.sources if source.tag is None)
    return ", ".join(f"{count} of {reading(length).reads}" for length, count in sorted(lengths.items()))


def _counted(count: int, what: str) -> str:
    return f"{count or 'no'} {what}" if count < 2 else f"{count} {what}s"


def price_says(terms: Terms) -> str:
    """What is taken for a length without a price where others have one."""
    if not terms.is_priced:
        return ""
    told = [
        f"{reading(one.length).reads} has no price: taken as {terms.price(one.length):.2f}, by its length."
        for one in terms.sold
        if one.price is None
    ]
    return " ".join(told)
