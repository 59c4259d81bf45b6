"""What the server's tests share: crews, people, signed-in clients, runs."""

import os
import time
from functools import partial
from uuid import uuid4

from django.conf import settings
from django.test import Client, TestCase, override_settings
from django_otp.oath import TOTP
from django_otp.plugins.otp_totp.models import TOTPDevice

from cli.provider import StandIn
from conduit.tests.support import document, ninety
from server.accounts import provider
from server.accounts.members import seat
from server.accounts.models import Crew, Role, User
from server.cutting.models import Bar, Cut
from server.jobs.actions import add_job, add_run
from server.stock.actions import add_scrap
from server.stock.models import Entry, Scrap
from server.stock.schemas import ScrapIn

PASSWORD = "clamp-the-vise-9"
RUN = document([ninety("20", "up")], "40", name="Feed")


def environment():
    """The environment of another process of the server's, on this test's database."""
    where = settings.DATABASES["default"]
    url = f"mysql://{where['USER']}:{where['PASSWORD']}@{where['HOST']}:{where['PORT']}/{where['NAME']}"
    return {**os.environ, "CRELDA_DATABASE_URL": url, "DJANGO_SETTINGS_MODULE": "server.settings"}


def planned(user, job, **terms):
    """The digest of the plan of a job's cuts, found by these terms."""
    body = {"terms": terms, "seconds": 0.3}
    return Api(user).send("POST", f"/jobs/{job.pk}/cutting/plan", body).json()["proposal"]["digest"]


def taken_plan(user, job, **terms):
    """A job's cuts, planned and taken; the first cut."""
    answer = Api(user).send("POST", f"/jobs/{job.pk}/cutting/take", {"digest": planned(user, job, **terms)})
    assert answer.status_code == 200, answer.content
    return Cut.objects.filter(bar__job=job, live=True).first()


def planned_shed():
    """A lead of a crew of their own, and the one cut of a plan that was taken: the feed, from a scrap of 80."""
    lead = person(Crew.objects.create(name="Ours"), "lena")
    job = add_job(lead, "Shed", "")
    add_run(lead, job.pk, RUN)
    add_scrap(lead, ScrapIn(material="EMT", trade_size="3/4", length="80"))
    return lead, taken_plan(lead, job)


def cutting_state():
    """What the database holds of cuts, bars, the rack and its ledger."""
    return [
        list(Cut.objects.values_list("done_at", "came_out")),
        list(Bar.objects.values_list("left", "offcut")),
        list(Scrap.objects.values_list("tag", "length", "taken_at")),
        list(Entry.objects.values_list("what", flat=True)),
    ]


def person(crew, username, role="lead"):
    user = User.objects.create_user(username, password=PASSWORD)
    seat(user, crew, Role(role))
    return user


class Api(Client):
    """A client of the API as one person, speaking JSON."""

    def __init__(self, user=None, shown_for=None, **more):
        super().__init__(**more)
        # As whose a page sends what is done on it, where that is said.
        self.shown_for = {"X-Signed-In-As": shown_for} if shown_for else {}
        if user:
            self.force_login(user)

    def send(self, method, path, body=None, key=None, language="en"):
        headers = {"Idempotency-Key": str(key or uuid4()), "Accept-Language": language, **self.shown_for}
        content = {"headers": headers}
        if method.upper() != "GET":
            content |= {"data": "" if body is None else body, "content_type": "application/json"}
        return getattr(self, method.lower())(f"/api{path}", **content)


def code_of_phone(user):
    """What a person's phone shows, as half a minute after the last code that was taken."""
    TOTPDevice.objects.update(last_t=-1)
    device = TOTPDevice.objects.get(user=user)
    totp = TOTP(device.bin_key, device.step, device.t0, device.digits, device.drift)
    totp.time = time.time()
    return f"{totp.token():06}"


def with_second_factor(user):
    """Turn it on for a person; what tells the code then."""
    TOTPDevice.objects.create(user=user, name="phone", confirmed=True)
    return partial(code_of_phone, user)


def stand_in_provider(test):
    """A company's own sign-in that the server knows as long as a test lasts."""
    stand_in = StandIn().in_background()
    for clean in (provider._client.cache_clear, stand_in.server_close, stand_in.shutdown):
        test.addCleanup(clean)
    known = {"issuer": stand_in.issuer, "client_secret": stand_in.secret, "name": stand_in.name}
    test.enterContext(override_settings(PROVIDER=settings.PROVIDER | known))
    return stand_in


class CrewTestCase(TestCase):
    """A crew with one person of each role, another crew beside it, a job and a run."""

    @classmethod
    def setUpTestData(cls):
        crew, elsewhere = Crew.objects.create(name="Ours"), Crew.objects.create(name="Theirs")
        cls.lead, cls.bender = person(crew, "lena"), person(crew, "ben", "bender")
        cls.viewer, cls.stranger = person(crew, "vera", "viewer"), person(elsewhere, "stan")
        cls.job = add_job(cls.lead, "Shed", "yard")
        cls.feed = add_run(cls.lead, cls.job.pk, RUN)

    def setUp(self):
        self.api = Api(self.lead)
