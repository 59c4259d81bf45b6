"""What is said of cut plans: what is proved, what stays, what tells choices apart, what a length costs."""

from collections import Counter
from collections.abc import Sequence

from conduit.catalogue import NOTHING, Message, joined, message
from conduit.cutting.model import CutPlan, KindPlan, Terms
from conduit.cutting.schema import reading


def plan_says(plan: CutPlan, found: KindPlan) -> Message:
    """How many new sticks and couplings a plan takes, and what is proved of that; nothing where nothing is."""
    few = plan.sticks <= found.at_least
    least = max(found.joints_at_least, found.joints_with_sticks) if few else found.joints_at_least
    told = {
        "sticks": _counted("sticks", plan.sticks),
        "couplings": _counted("couplings", plan.joints),
        "least": _or_none(least),
        "least_sticks": _or_none(found.at_least),
    }
    if not plan.sticks and not plan.joints:
        return message("plan.nothing_needed")
    if not plan.sticks:
        return message("plan.none_new_fewest" if plan.joints <= least else "plan.none_new", **told)
    if not found.at_least and not least:
        return message("plan.counted", **told)
    if few and plan.joints <= least:
        return message("plan.fewest_of_both" if plan.joints <= found.joints_at_least else "plan.fewest_so", **told)
    if few:
        return message("plan.fewest_sticks", **told)
    return message("plan.fewest_couplings" if plan.joints <= least else "plan.at_least", **told)


def stayed_says(found: KindPlan) -> Message:
    """How much is as it was in the plan before."""
    pieces = sum(len(source.cuts) for source in found.plans[found.chosen].sources)
    if not pieces:
        return NOTHING
    if found.stayed >= pieces:
        return message("stayed.all")
    counted = _counted("pieces", pieces)
    if not found.stayed:
        return message("stayed.none", pieces=counted)
    return message("stayed.some", count=found.stayed, pieces=counted)


def labels_of(plans: Sequence[CutPlan]) -> list[Message]:
    """What tells the choices apart: sticks and couplings, then the lengths bought, then what each costs."""
    alike = Counter((plan.sticks, plan.joints) for plan in plans)
    return [_label(plan, alike[plan.sticks, plan.joints] > 1) for plan in plans]


def _label(plan: CutPlan, with_lengths: bool) -> Message:
    counted = {"sticks": _counted("sticks", plan.sticks), "couplings": _counted("couplings", plan.joints)}
    cost = f"{plan.cost:.2f}"
    if with_lengths:
        return message("choice.lengths", lengths=_lengths_bought(plan), cost=cost, **counted)
    return message("choice", cost=cost, **counted)


def _lengths_bought(plan: CutPlan) -> Message:
    lengths = Counter(source.length for source in plan.sources if source.tag is None)
    return joined(
        (
            message("choice.length", count=count, length=reading(length).reads)
            for length, count in sorted(lengths.items())
        ),
        ", ",
    )


def _counted(what: str, count: int) -> Message:
    return message(f"count.{what}", count=count) if count else message(f"count.{what}.none")


def _or_none(count: int) -> Message:
    return Message(count) if count else message("count.none")


def price_says(terms: Terms) -> Message:
    """What is taken for a length without a price where others have one."""
    if not terms.is_priced:
        return NOTHING
    return joined(
        message("price.by_length", length=reading(one.length).reads, price=f"{terms.price(one.length):.2f}")
        for one in terms.sold
        if one.price is None
    )
