import time
from urllib.parse import urlsplit

import requests
from django.conf import settings
from django.test import override_settings

from server.accounts.members import invite
from server.accounts.models import Event, Identity, Role, User
from server.accounts.privacy import erase
from server.tests.support import Api, CrewTestCase, stand_in_provider, with_second_factor

DANA, OSRIC, THEA = "1001", "1002", "1003"


class Provider(CrewTestCase):
    def setUp(self):
        super().setUp()
        self.stand_in = stand_in_provider(self)
        self.enterContext(override_settings(ALLOWED_HOSTS=["127.0.0.1"]))

    def window(self, user=None):
        return Api(user, headers={"host": "127.0.0.1"})

    def at_provider(self, window, person, how=""):
        """Choose a person there, as a browser does; the address at which we are asked then."""
        sent = window.get(f"/api/session/provider{how}")
        self.assertEqual(sent.status_code, 302, sent.content)
        return requests.get(f"{sent['Location']}&person={person}", allow_redirects=False, timeout=5).headers["Location"]

    def goes(self, window, person, how=""):
        """There and back; where that ends."""
        back = urlsplit(self.at_provider(window, person, how))
        return window.get(f"{back.path}?{back.query}")["Location"]

    def connected(self, user, person):
        self.assertEqual(self.goes(self.window(user), person, "?connect=1"), "/me?provider=connected")

    def who(self, window):
        answer = window.send("GET", "/session")
        return answer.json()["username"] if answer.content else None

    def test_who_connected_an_account_signs_in_by_it(self):
        window = self.window()
        self.assertEqual(window.send("GET", "/beginning").json()["provider"], "the Saltmarsh account")
        self.assertEqual(self.goes(window, DANA), "/?provider=unknown", "a likeness of names makes nobody the same")
        self.connected(self.bender, DANA)
        self.assertEqual((self.goes(window, DANA), self.who(window)), ("/", "ben"))
        self.assertEqual(self.goes(self.window(), DANA, "?next=/runs/3/layout"), "/runs/3/layout")
        for elsewhere in ("//elsewhere.example", "https://elsewhere.example/", r"/\elsewhere.example"):
            self.assertEqual(self.goes(self.window(), DANA, f"?next={elsewhere}"), "/")
        self.assertEqual(Event.objects.filter(what="signed in").first().about, "by the Saltmarsh account")
        mine = {"name": "the Saltmarsh account", "connected": True, "has_password": True}
        self.assertEqual(window.send("GET", "/me/provider").json(), mine)
        window.send("DELETE", "/me/provider")
        self.assertEqual(self.goes(self.window(), DANA), "/?provider=unknown")

    def test_an_account_is_one_persons(self):
        self.connected(self.bender, DANA)
        self.assertEqual(self.goes(self.window(self.viewer), DANA, "?connect=1"), "/me?provider=anothers")
        self.assertEqual(self.goes(self.window(self.bender), OSRIC, "?connect=1"), "/me?provider=has-one")

    def test_what_the_provider_did_not_say_to_this_browser_lets_nobody_in(self):
        self.connected(self.bender, DANA)
        stolen = urlsplit(self.at_provider(self.window(), DANA))
        other = self.window()
        other.get("/api/session/provider")
        self.assertEqual(other.get(f"{stolen.path}?{stolen.query}")["Location"], "/?provider=not-vouched")
        window = self.window()
        back = urlsplit(self.at_provider(window, DANA))
        window.get(f"{back.path}?{back.query}")
        self.assertEqual(window.get(f"{back.path}?{back.query}")["Location"], "/?provider=not-vouched", "once")
        for claims in (
            {"aud": "another program"},
            {"iss": "http://127.0.0.1:1"},
            {"nonce": "of another time"},
            {"exp": int(time.time()) - 600},
            {"sub": ""},
        ):
            with self.subTest(claims):
                self.stand_in.claims = claims
                self.assertEqual(self.goes(self.window(), DANA), "/?provider=not-vouched")
        self.stand_in.claims = {}
        self.stand_in.key = type(self.stand_in.key).generate_key(2048, {"alg": "RS256"}, auto_kid=True)
        self.assertEqual(self.goes(self.window(), DANA), "/", "the provider may change its key")

    def test_a_provider_that_is_away_is_told(self):
        with override_settings(PROVIDER=settings.PROVIDER | {"issuer": "http://127.0.0.1:1"}):
            self.assertEqual(self.window().get("/api/session/provider")["Location"], "/?provider=no-answer")
        with override_settings(PROVIDER=settings.PROVIDER | {"issuer": ""}):
            self.assertEqual(self.window().get("/api/session/provider").status_code, 404)

    def test_a_second_factor_is_asked_for_unless_the_provider_did(self):
        code = with_second_factor(self.bender)
        self.connected(self.bender, DANA)
        window = self.window()
        self.assertEqual((self.goes(window, DANA), self.who(window)), ("/?provider=code", None))
        self.assertEqual(window.send("POST", "/session/code", {"code": "000000"}).status_code, 401)
        self.assertEqual(window.send("POST", "/session/code", {"code": code()}).status_code, 200)
        self.assertEqual(self.who(window), "ben")
        self.assertEqual(self.window().send("POST", "/session/code", {"code": code()}).status_code, 401)
        self.stand_in.claims = {"amr": ["pwd", "otp"]}
        window = self.window()
        self.assertEqual((self.goes(window, DANA), self.who(window)), ("/", "ben"))

    def test_an_invitation_is_taken_with_an_account(self):
        token = invite(self.lead, Role.BENDER, "Thea").token
        window = self.window()
        self.assertEqual(self.goes(window, THEA, f"?invitation={token}"), "/")
        self.assertEqual(self.who(window), "thea")
        self.assertEqual(window.send("DELETE", "/me/provider").status_code, 409, "it is the only way in")
        self.assertEqual(self.goes(self.window(), OSRIC, f"?invitation={token}"), f"/join/{token}?provider=link-used")
        again = invite(self.lead, Role.BENDER, "").token
        self.assertEqual(self.goes(self.window(), THEA, f"?invitation={again}"), f"/join/{again}")
        User.objects.filter(username="ben").update(username="osric")
        self.assertEqual(self.goes(self.window(), OSRIC, f"?invitation={again}"), f"/join/{again}?provider=name-taken")

    def test_who_was_removed_shut_out_or_erased_is_not_let_in(self):
        self.connected(self.bender, DANA)
        self.connected(self.viewer, THEA)
        gone = self.window(self.lead).send("DELETE", f"/people/{self.bender.memberships.get().pk}")
        self.assertEqual(gone.status_code, 204, gone.content)
        User.objects.filter(pk=self.viewer.pk).update(is_active=False)
        for account in (DANA, THEA):
            self.assertEqual(self.goes(self.window(), account), "/?provider=unknown")
        erase(self.viewer)
        self.assertEqual(list(Identity.objects.values_list("user__username", flat=True)), ["ben"])
