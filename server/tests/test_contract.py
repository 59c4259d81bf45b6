"""The published description holds for whatever is sent: no request of any shape makes the server fail."""

import json
import os
import time
from contextlib import suppress
from unittest import mock
from uuid import uuid4

import schemathesis
from django.test import Client
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st
from hypothesis.errors import Unsatisfiable
from schemathesis import GenerationMode

from server.api import api
from server.guard import PROBLEM
from server.jobs.actions import add_run
from server.shoes.actions import add_shoe
from server.shoes.schemas import ShoeIn
from server.stock.actions import add_scrap
from server.stock.schemas import ScrapIn
from server.tests.support import RUN, CrewTestCase, taken_plan

DESCRIBED = schemathesis.openapi.from_dict(api.get_openapi_schema())
# More are tried by hand: CRELDA_TRIES=130 makes some 20,000.
TRIES = int(os.environ.get("CRELDA_TRIES", "2"))
SLOWEST = 5.0
# It ends what the next request needs.
LEFT_OUT = {"signOut"}


class Contract(CrewTestCase):
    def setUp(self):
        super().setUp()
        scrap = add_scrap(self.lead, ScrapIn(material="EMT", trade_size="3/4", length="80"))[0]
        cut = taken_plan(self.lead, self.job)
        shoe = add_shoe(self.lead, ShoeIn(name="Ours", trade_size="3/4"))
        run = add_run(self.lead, self.job.pk, RUN)
        numbers = {"job_id": self.job, "run_id": run, "scrap_id": scrap, "cut_id": cut, "shoe_id": shoe}
        self.there = {key: one.pk for key, one in numbers.items()} | {"version": 1}
        self.client = Client(raise_request_exception=False)
        self.client.force_login(self.lead)

    # However long a plan may be looked for.
    @mock.patch("server.cutting.solving.Beating.left", lambda clock: clock.began + 0.1 - time.monotonic())
    def test_no_request_of_any_shape_makes_the_server_fail(self):
        """As described, and not as described; of what is there, and of what is not."""
        for found in DESCRIBED.get_all_operations():
            operation = found.ok()
            name = operation.definition.raw["operationId"]
            for mode in GenerationMode.POSITIVE, GenerationMode.NEGATIVE:
                if name not in LEFT_OUT:
                    with self.subTest(name, mode=mode.value):
                        self.try_all(operation.as_strategy(generation_mode=mode))

    def try_all(self, cases):
        @given(case=cases, is_there=st.booleans())
        @settings(
            max_examples=TRIES,
            phases=[Phase.generate],
            database=None,
            derandomize=True,
            suppress_health_check=list(HealthCheck),
        )
        def try_one(case, is_there):
            began = time.monotonic()
            answer = self.sent(case, is_there)
            shown = (case.method, case.path, case.path_parameters, case.query, case.body)
            self.assertLess(time.monotonic() - began, SLOWEST, shown)
            self.assertLess(answer.status_code, 500, shown)
            if answer.status_code >= 400:
                self.assertEqual(answer["Content-Type"], PROBLEM, shown)

        # Nothing about it can be wrong where it takes nothing.
        with suppress(Unsatisfiable):
            try_one()

    def sent(self, case, is_there):
        """The answer to a case, within this test's transaction."""
        if is_there:
            known = {key: number for key, number in self.there.items() if f"{{{key}}}" in case.path}
            case.path_parameters = {**(case.path_parameters or {}), **known}
        sent = case.as_transport_kwargs(base_url="http://testserver")
        body = sent.get("data") or ("" if sent.get("json") is None else json.dumps(sent["json"]))
        key = {"Idempotency-Key": str(uuid4())}
        # With a body that is none of ours it is refused for that, and nothing else of it is tried.
        return self.client.generic(case.method, sent["url"], body, "application/json", headers=key)
