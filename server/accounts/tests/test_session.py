from datetime import timedelta
from ipaddress import ip_network

from axes.models import AccessAttempt
from django.test import override_settings
from django.utils import timezone
from qsessions.models import Session

from server.accounts.actions import WRONG, add_person
from server.accounts.models import Role
from server.accounts.permissions import LAST_SEEN
from server.accounts.slowing import FREE_FOR_A_NAME, FREE_FOR_AN_ADDRESS, FREE_FOR_STRANGERS
from server.errors import Refused
from server.tests.support import PASSWORD, Api, CrewTestCase


class SignIn(CrewTestCase):
    def test_in_and_out(self):
        client = Api()
        self.assertEqual(client.send("GET", "/session").status_code, 204)
        answer = client.send("POST", "/session", {"username": "ben", "password": PASSWORD})
        told = {key: answer.json()[key] for key in ("username", "name", "crew", "role")}
        self.assertEqual(told, {"username": "ben", "name": "ben", "crew": "Ours", "role": "bender"})
        self.assertEqual(client.send("GET", "/session").json()["username"], "ben")
        self.assertEqual(client.send("DELETE", "/session").status_code, 204)
        self.assertEqual(client.send("GET", "/session").status_code, 204)

    def guess(self, username="ben", password="guess", **headers):
        return Api().post("/api/session", {"username": username, "password": password}, "application/json", **headers)

    def test_guessing_is_slowed_down_and_nobody_is_shut_out(self):
        statuses = [self.guess().status_code for _ in range(FREE_FOR_A_NAME + 3)]
        self.assertEqual(statuses, [401] * FREE_FOR_A_NAME + [429] * 3)
        early = self.guess(password=PASSWORD)
        self.assertEqual((early.status_code, early["Retry-After"]), (429, "1"))
        self.assertIn("Wait a second, then try again.", early.json()["detail"])
        self.assertEqual(self.guess("lena", PASSWORD).status_code, 200, "others sign in from the same place")
        self.assertEqual(self.guess("ben", PASSWORD, REMOTE_ADDR="10.9.8.7").status_code, 200, "he does from elsewhere")
        AccessAttempt.objects.update(attempt_time=timezone.now() - timedelta(seconds=2))
        self.assertEqual(self.guess(password=PASSWORD).status_code, 200, "and here, once he waited")

    def test_each_wrong_guess_makes_the_wait_longer(self):
        waits = []
        for _ in range(FREE_FOR_A_NAME + 4):
            said = self.guess().json()["detail"]
            waits.append(said.removeprefix(WRONG).strip())
            AccessAttempt.objects.update(attempt_time=timezone.now() - timedelta(hours=0.1))
        longer = [f"Wait {count}, then try again." for count in ("a second", "2 seconds", "4 seconds")]
        self.assertEqual(waits[FREE_FOR_A_NAME - 2 :][:4], ["", *longer])

    def test_one_guess_for_each_of_many_names_is_slowed_down_too(self):
        statuses = [self.guess(f"name {number}").status_code for number in range(FREE_FOR_AN_ADDRESS + 2)]
        self.assertEqual(statuses[-2:], [429, 429])
        self.assertNotIn(429, statuses[:FREE_FOR_AN_ADDRESS])

    def test_a_guesser_shuts_out_nobody_else_from_the_same_address(self):
        known = Api()
        known.send("POST", "/session", {"username": "ben", "password": PASSWORD})
        for number in range(FREE_FOR_AN_ADDRESS + 4):
            self.guess("ben" if number < 10 else f"name {number}")
            if number < 10:
                AccessAttempt.objects.update(attempt_time=timezone.now() - timedelta(minutes=9))
        self.assertEqual(self.guess("anybody").status_code, 429, "the address guesses at many names")
        self.assertEqual(self.guess("lena", PASSWORD).status_code, 200, "nobody guesses at hers")
        self.assertEqual(self.guess("lena", "wrong").status_code, 429, "as for a name that is none")
        self.assertEqual(self.guess("ben", PASSWORD).status_code, 429, "his is under attack, and this is a stranger")
        again = known.send("POST", "/session", {"username": "ben", "password": PASSWORD})
        self.assertEqual(again.status_code, 200, "who signed in with this browser before is none")

    def test_a_browser_that_is_known_counts_for_itself(self):
        known = Api()
        for _ in range(2):
            known.send("POST", "/session", {"username": "ben", "password": PASSWORD})
        statuses = [known.send("POST", "/session", {"username": "ben", "password": "x"}).status_code for _ in range(6)]
        self.assertEqual(statuses, [401] * FREE_FOR_A_NAME + [429] * 2)
        self.assertEqual(self.guess("ben", PASSWORD).status_code, 200)

    def test_a_device_is_known_by_todays_password_alone(self):
        known = Api()
        known.send("POST", "/session", {"username": "ben", "password": PASSWORD})
        self.bender.set_password("another-vise-to-clamp")
        self.bender.save()
        for _ in range(FREE_FOR_A_NAME):
            self.guess()
        body = {"username": "ben", "password": "another-vise-to-clamp"}
        self.assertEqual(known.send("POST", "/session", body).status_code, 429)

    def test_many_strangers_at_one_name_wait_for_each_other(self):
        for number in range(FREE_FOR_STRANGERS):
            self.assertEqual(self.guess(REMOTE_ADDR=f"10.1.1.{number}").status_code, 401)
        self.assertEqual(self.guess(REMOTE_ADDR="10.1.2.1").status_code, 429)

    @override_settings(TRUSTED_PROXIES=[ip_network("127.0.0.0/8")])
    def test_behind_a_trusted_proxy_each_client_counts_for_itself(self):
        one, other = ({"HTTP_X_FORWARDED_FOR": f"1.2.3.4, 203.0.113.{number}"} for number in (5, 6))
        for _ in range(FREE_FOR_A_NAME):
            self.guess(**one)
        self.assertEqual(self.guess(**one).status_code, 429)
        self.assertEqual(self.guess(password=PASSWORD, **other).status_code, 200)

    def test_nobody_says_where_he_is_but_through_a_trusted_proxy(self):
        for number in range(FREE_FOR_A_NAME):
            self.guess(HTTP_X_FORWARDED_FOR=f"203.0.113.{number}")
        self.assertEqual(self.guess(HTTP_X_FORWARDED_FOR="203.0.113.99").status_code, 429)

    def test_passwords_that_are_guessed_easily_are_refused(self):
        for password in ("short-9", "password123", "8482650173", "benjamin-1"):
            with self.subTest(password), self.assertRaises(Refused):
                add_person(self.lead.membership.crew, "benjamin", password, Role.BENDER)

    def test_a_session_moves_on_with_its_use(self):
        client = Api(self.bender)
        client.send("GET", "/session")
        ours = Session.objects.filter(pk=client.session.session_key)
        ours.update(expire_date=timezone.now() + timedelta(days=1))
        client.send("GET", "/session")
        self.assertLess(ours.get().expire_date, timezone.now() + timedelta(days=2), "not with each request")
        session = client.session
        session[LAST_SEEN] -= 60 * 60 * 24 * 2
        session.save()
        ours.update(expire_date=timezone.now() + timedelta(days=1))
        client.send("GET", "/session")
        self.assertGreater(ours.get().expire_date, timezone.now() + timedelta(days=13))

    def test_on_a_shared_device_a_session_ends_after_hours_without_use(self):
        ages = []
        for shared in (False, True):
            client = Api()
            client.send("POST", "/session", {"username": "ben", "password": PASSWORD, "shared": shared})
            client.send("GET", "/session")
            ages.append(Session.objects.get(pk=client.session.session_key).expire_date - timezone.now())
        self.assertGreater(ages[0], timedelta(days=13))
        self.assertLess(ages[1], timedelta(hours=9))
        ours = Session.objects.filter(pk=client.session.session_key)
        session = client.session
        session[LAST_SEEN] -= 60 * 60
        session.save()
        ours.update(expire_date=timezone.now() + timedelta(hours=1))
        client.send("GET", "/session")
        self.assertGreater(ours.get().expire_date, timezone.now() + timedelta(hours=7), "its use goes on")

    def test_the_page_is_guarded(self):
        page = Api().get("/runs/5/layout")
        self.assertEqual(page.status_code, 200)
        policy = page["Content-Security-Policy"]
        self.assertIn("script-src 'self' 'wasm-unsafe-eval';", policy + ";")
        self.assertEqual(page["X-Frame-Options"], "DENY")
