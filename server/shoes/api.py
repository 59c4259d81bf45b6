"""A crew's shoes over HTTP."""

from django.http import HttpRequest
from ninja import Router, Schema

from conduit.tables import Material, TradeSize
from conduit.units import format_length
from server.shoes.models import Shoe

router = Router(tags=["shoes"])


class ShoeOut(Schema):
    """A shoe, its figures as a tape reads them."""

    id: int
    name: str
    material: Material
    trade_size: TradeSize
    deduct: str
    gain: str

    @staticmethod
    def resolve_deduct(shoe: Shoe) -> str:
        """The deduct as written into a run."""
        return format_length(shoe.deduct, "1/32")

    @staticmethod
    def resolve_gain(shoe: Shoe) -> str:
        """The gain as written into a run."""
        return format_length(shoe.gain, "1/32")


@router.get("/shoes", response=list[ShoeOut], operation_id="listShoes")
def list_shoes(request: HttpRequest) -> list[Shoe]:
    """The crew's shoes."""
    return list(Shoe.objects.for_user(request.auth))
