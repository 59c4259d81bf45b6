"""Where pieces lie on their run, and what is between them: in sixteenths along its straight pipe."""

from collections.abc import Iterator

from conduit.catalogue import Message
from conduit.cutting.model import Span
from conduit.cutting.terms import nearest_sixteenth
from conduit.plan import Plan, PlannedCoupling, PlannedPiece


def lies(plan: Plan, piece: PlannedPiece) -> Span:
    """From which coupling to which a piece lies on its run, in sixteenths."""
    before = next((one for one in plan.couplings if abs(one.at.inches + one.gap - piece.start) < 1e-6), None)
    end = nearest_sixteenth(piece.start + piece.length.inches)
    return nearest_sixteenth(before.at.inches) if before and piece.number > 1 else 0, end


def gap_at(plan: Plan, place: int) -> int:
    """What lies between two pipe ends at a coupling or box, in sixteenths."""
    boxes = {nearest_sixteenth(one.at.inches): nearest_sixteenth(one.gap) for one in boxes_of(plan)}
    return boxes.get(place, nearest_sixteenth(plan.coupling_gap.inches))


def boxes_of(plan: Plan) -> list[PlannedCoupling]:
    """The breaks that are boxes: what lies between the pipe ends there is not a coupling's take-up."""
    return [one for one in plan.couplings if one.box]


def named_boxes(plan: Plan) -> Iterator[tuple[PlannedCoupling, Message]]:
    """Boxes with their names, as the pieces' ends have them."""
    for number, one in enumerate(plan.couplings):
        if one.box:
            yield one, plan.pieces[number].end_b


def number_of(plan: Plan, span: Span) -> int | None:
    """The number of the piece that lies from this coupling to that; None where none does."""
    return next((piece.number for piece in plan.pieces if lies(plan, piece) == span), None)
