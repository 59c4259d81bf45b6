"""The one API object. Each app brings its router."""

from typing import Any

from ninja import NinjaAPI

from server.accounts.api import router as accounts
from server.accounts.company_api import router as company
from server.accounts.people_api import router as people
from server.accounts.permissions import SignedIn
from server.accounts.provider_api import router as provider
from server.accounts.second_factor_api import router as second_factor
from server.bench.api import router as bench
from server.cutting.api import router as cutting
from server.errors import install
from server.estimate.api import router as estimate
from server.exchange.api import router as exchange
from server.exchange.import_api import router as imports
from server.jobs.api import router as jobs
from server.jobs.planning import router as planning
from server.jobs.space_api import router as space
from server.once import HEADER, NEEDED, needs_key, once_only
from server.parsing import StrictParser
from server.shoes.api import router as shoes
from server.stock.api import router as stock


class CreldaAPI(NinjaAPI):
    """The API; its published description says which operations need a key."""

    def get_openapi_schema(self, **given: Any) -> Any:
        """The OpenAPI document."""
        schema = super().get_openapi_schema(**given)
        header = {"in": "header", "name": HEADER, "schema": {"type": "string", "format": "uuid"}, "required": False}
        for methods in schema["paths"].values():
            for method, operation in methods.items():
                if needs_key([method.upper()], operation["operationId"]):
                    operation.setdefault("parameters", []).append({**header, "description": NEEDED})
        return schema


api = CreldaAPI(
    title="Crelda",
    version="1",
    description="Conduit runs from tape measurements: plans, jobs, shoes and the scrap rack.",
    auth=SignedIn(),
    parser=StrictParser(),
    docs_url=None,
)
install(api)
api.add_decorator(once_only, mode="view")
api.add_router("", accounts)
api.add_router("", people)
api.add_router("", company)
api.add_router("", second_factor)
api.add_router("", provider)
api.add_router("", shoes)
api.add_router("", stock)
api.add_router("", planning)
api.add_router("", jobs)
api.add_router("", space)
api.add_router("", bench)
api.add_router("", cutting)
api.add_router("", estimate)
api.add_router("", exchange)
api.add_router("", imports)
