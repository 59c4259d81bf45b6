import json
from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta
from hashlib import sha256
from io import StringIO

from django.core import mail
from django.core.management import CommandError, call_command
from django.db import connection
from django.test import TestCase, TransactionTestCase, override_settings
from django.utils import timezone

from server.accounts import beginning
from server.accounts.history import What
from server.accounts.members import remove, seat
from server.accounts.models import Crew, Event, Invitation, Membership, Reply, Role, User
from server.accounts.slowing import FREE_FOR_A_NAME
from server.errors import Conflict
from server.tests.support import PASSWORD, Api, CrewTestCase, person

NEW = {"username": "nora", "first": "Nora", "last": "New", "password": "two-straps-a-stick"}


class Invitations(CrewTestCase):
    def invited(self, role="bender", **more):
        return self.api.send("POST", "/people/invitations", {"role": role, "name": "Nora", **more}).json()

    def test_a_new_person_joins_once(self):
        token = self.invited()["token"]
        door = Api()
        self.assertEqual(
            door.send("GET", f"/invitations/{token}").json(),
            {"crew": "Ours", "role": "bender", "name": "Nora", "open": True},
        )
        me = door.send("POST", f"/invitations/{token}/person", NEW).json()
        self.assertEqual((me["name"], me["crew"], me["role"]), ("Nora New", "Ours", "bender"))
        self.assertEqual(door.send("GET", "/jobs").json()[0]["name"], "Shed")
        again = Api().send("POST", f"/invitations/{token}/person", {**NEW, "username": "other"})
        self.assertEqual(again.status_code, 409)
        self.assertFalse(door.send("GET", f"/invitations/{token}").json()["open"])

    def test_what_was_typed_is_told_where_it_is_wrong_and_the_invitation_stays(self):
        token = self.invited()["token"]
        for wrong, place in (({"username": "ben"}, "username"), ({"password": "12345678901"}, "password")):
            answer = Api().send("POST", f"/invitations/{token}/person", {**NEW, **wrong})
            self.assertEqual((answer.status_code, list(answer.json()["places"])), (422, [place]))
        self.assertTrue(Invitation.of(token).is_open)
        self.assertFalse(User.objects.filter(username="nora").exists())

    def test_withdrawn_or_too_old_or_made_up_it_opens_nothing(self):
        one, other = self.invited(), self.invited()
        self.api.send("DELETE", f"/people/invitations/{one['id']}")
        Invitation.objects.filter(pk=other["id"]).update(expires_at=timezone.now() - timedelta(seconds=1))
        for token in (one["token"], other["token"]):
            self.assertEqual(Api().send("POST", f"/invitations/{token}/person", NEW).status_code, 409)
        self.assertEqual(Api().send("GET", f"/invitations/{one['token']}x").status_code, 404)
        self.assertEqual(self.api.send("GET", "/people").json()["invitations"], [])

    def test_somebody_of_another_crew_joins_and_switches(self):
        theirs = Api(self.stranger)
        me = theirs.send("POST", f"/invitations/{self.invited('viewer')['token']}/join").json()
        self.assertEqual((me["crew"], me["role"]), ("Ours", "viewer"))
        self.assertEqual([crew["name"] for crew in me["crews"]], ["Ours", "Theirs"])
        self.assertEqual(len(theirs.send("GET", "/jobs").json()), 1)
        elsewhere = next(crew["id"] for crew in me["crews"] if crew["name"] == "Theirs")
        self.assertEqual(theirs.send("PUT", "/me/crew", {"crew_id": elsewhere}).json()["role"], "lead")
        self.assertEqual(theirs.send("GET", "/jobs").json(), [])
        self.assertEqual(theirs.send("GET", f"/runs/{self.feed.pk}").status_code, 404)
        self.assertEqual(self.api.send("PUT", "/me/crew", {"crew_id": elsewhere}).status_code, 404)

    def test_one_who_is_in_already_does_not_use_it_up(self):
        token = self.invited()["token"]
        self.assertEqual(Api(self.bender).send("POST", f"/invitations/{token}/join").status_code, 409)
        self.assertTrue(Invitation.of(token).is_open)


class Members(CrewTestCase):
    def place(self, user):
        return user.memberships.get().pk

    def test_roles_change_and_one_lead_at_least_is_left(self):
        own = f"/people/{self.place(self.lead)}/role"
        self.assertEqual(self.api.send("PUT", own, {"role": "viewer"}).status_code, 409)
        self.assertEqual(self.api.send("DELETE", f"/people/{self.place(self.lead)}").status_code, 409)
        told = self.api.send("PUT", f"/people/{self.place(self.bender)}/role", {"role": "lead"}).json()
        self.assertEqual([one["role"] for one in told["members"]], ["lead", "lead", "viewer"])
        self.assertEqual(self.api.send("PUT", own, {"role": "viewer"}).status_code, 200)
        self.assertEqual(self.api.send("POST", "/people/invitations", {"role": "lead"}).status_code, 403)

    def test_removed_their_access_ends_at_once_and_their_work_stays(self):
        theirs = Api(self.bender)
        run = theirs.send("POST", f"/jobs/{self.job.pk}/runs", {"document": self.feed.document}).json()
        self.api.send("DELETE", f"/people/{self.place(self.bender)}")
        self.assertEqual(theirs.send("GET", "/jobs").status_code, 401)
        self.assertEqual(self.api.send("GET", f"/runs/{run['id']}").status_code, 200)
        self.assertTrue(User.objects.filter(pk=self.bender.pk).exists())
        self.assertEqual(Event.objects.filter(what=What.REMOVED).get().about, "ben")

    def test_a_person_leaves_and_works_in_the_crew_that_is_left(self):
        other = Crew.objects.create(name="Another")
        seat(self.bender, other, Role.VIEWER)
        theirs = Api(self.bender)
        self.assertEqual(theirs.send("GET", "/session").json()["crew"], "Another")
        self.assertEqual(theirs.send("DELETE", f"/people/{other.memberships.get().pk}").status_code, 204)
        self.assertEqual(theirs.send("GET", "/session").json()["crew"], "Ours")

    def test_another_crews_people_are_not_there(self):
        place = self.place(self.stranger)
        for method, path, body in (
            ("PUT", f"/people/{place}/role", {"role": "viewer"}),
            ("DELETE", f"/people/{place}", None),
            ("POST", f"/people/{place}/password-link", None),
        ):
            self.assertEqual(self.api.send(method, path, body).status_code, 404)
        self.assertEqual(len(self.api.send("GET", "/people").json()["members"]), 3)

    def test_what_each_may_do_is_what_the_server_asks(self):
        rights = {one["says"]: one["roles"] for one in self.api.send("GET", "/people").json()["rights"]}
        self.assertEqual(sorted(map(len, rights.values())), [1, 1, 1, 2, 3])


class TwoLeads(TransactionTestCase):
    def test_who_remove_each_other_at_once_leave_one(self):
        crew = Crew.objects.create(name="Ours")
        both = [person(crew, "lena"), person(crew, "lars")]

        def removes(who, whom):
            try:
                remove(User.objects.get(pk=who.pk), whom.memberships.get().pk)
                return True
            except (Conflict, Membership.DoesNotExist):
                return False
            finally:
                connection.close()

        with ThreadPoolExecutor(2) as pool:
            done = list(pool.map(removes, both, both[::-1]))
        self.assertEqual(sum(done), 1)
        self.assertEqual(crew.memberships.filter(role=Role.LEAD).count(), 1)


class OwnAccount(CrewTestCase):
    def test_a_password_is_changed_and_other_sessions_end(self):
        here, there = Api(), Api()
        for client in (here, there):
            client.send("POST", "/session", {"username": "ben", "password": PASSWORD})
        self.assertEqual(len(here.send("GET", "/me/sessions").json()), 2)
        wrong = here.send("PUT", "/me/password", {"old": "guess", "new": "another-vise-to-clamp"})
        self.assertEqual((wrong.status_code, list(wrong.json()["places"])), (422, ["old"]))
        weak = here.send("PUT", "/me/password", {"old": PASSWORD, "new": "1234567890"})
        self.assertEqual(list(weak.json()["places"]), ["new"])
        done = here.send("PUT", "/me/password", {"old": PASSWORD, "new": "another-vise-to-clamp"})
        self.assertEqual(done.status_code, 204)
        self.assertEqual(there.send("GET", "/session").status_code, 204)
        self.assertEqual(here.send("GET", "/session").status_code, 200)
        self.assertEqual(len(here.send("GET", "/me/sessions").json()), 1)

    def test_guessing_it_in_an_open_session_is_slowed(self):
        names = {"username": "ben", "first": "Ben", "last": "Bender", "email": "ben@example.org"}
        for method, path, body in (
            ("PUT", "/me/password", {"old": "guess", "new": "another-vise-to-clamp"}),
            ("PUT", "/me", {**names, "password": "guess"}),
            ("POST", "/me/second-factor/off", {"password": "guess"}),
        ):
            here = Api(self.bender)
            statuses = [here.send(method, path, body).status_code for _ in range(FREE_FOR_A_NAME + 1)]
            self.assertEqual(statuses, [422] * FREE_FOR_A_NAME + [429], path)

    def test_what_was_sent_is_known_again_by_a_keyed_digest(self):
        body = {"old": PASSWORD, "new": "another-vise-to-clamp"}
        Api(self.bender).send("PUT", "/me/password", body)
        plain = sha256(b"PUT /api/me/password\n" + json.dumps(body).encode()).hexdigest()
        self.assertNotEqual(Reply.objects.get().asked, plain)

    def test_one_session_is_ended_and_all_others(self):
        clients = [Api(self.bender) for _ in range(3)]
        told = clients[0].send("GET", "/me/sessions").json()
        there = next(one["id"] for one in told if not one["here"])
        clients[0].send("DELETE", f"/me/sessions/{there}")
        self.assertEqual(sorted(one.send("GET", "/session").status_code for one in clients), [200, 200, 204])
        self.assertEqual(len(clients[0].send("DELETE", "/me/sessions").json()), 1)
        self.assertEqual([one.send("GET", "/session").status_code for one in clients], [200, 204, 204])

    def test_names_and_a_name_that_is_taken(self):
        api = Api(self.bender)
        me = api.send("PUT", "/me", {"username": "benno", "first": "Ben", "last": "Bend"}).json()
        self.assertEqual((me["username"], me["name"]), ("benno", "Ben Bend"))
        taken = api.send("PUT", "/me", {"username": "vera", "first": "", "last": ""})
        self.assertEqual((taken.status_code, list(taken.json()["places"])), (422, ["username"]))
        odd = api.send("PUT", "/me", {"username": "a b<", "first": "", "last": ""})
        self.assertEqual((odd.status_code, list(odd.json()["places"])), (422, ["username"]))

    def test_a_name_that_looks_like_another_is_refused(self):
        api = Api(self.bender)
        for name, refused in (
            ("b\u0435n", True),  # Cyrillic e
            ("\u0430\u0441\u0430", True),  # Cyrillic all, read as “aca”
            ("Иван", False),
            ("zoë-2", False),
            ("田中taro", False),
        ):
            answer = api.send("PUT", "/me", {"username": name, "first": "", "last": ""})
            self.assertEqual(answer.status_code, 422 if refused else 200, name)
            if refused:
                self.assertEqual(list(answer.json()["places"]), ["username"])
        shown = api.send("PUT", "/me", {"username": "ben", "first": "L\u0435na", "last": ""})
        self.assertEqual(list(shown.json()["places"]), ["first"])

    def test_a_forgotten_password_is_set_by_a_link_once(self):
        place = self.bender.memberships.get().pk
        theirs = Api(self.bender)
        token = self.api.send("POST", f"/people/{place}/password-link").json()["token"]
        self.assertEqual(Api().send("GET", f"/password-links/{token}").json()["username"], "ben")
        door = Api()
        answer = door.send("POST", f"/password-links/{token}", {"password": "another-vise-to-clamp"})
        self.assertEqual(answer.json()["username"], "ben")
        self.assertEqual(theirs.send("GET", "/session").status_code, 204)
        self.assertEqual(door.send("GET", "/session").status_code, 200)
        again = Api().send("POST", f"/password-links/{token}", {"password": "once-more-with-vise"})
        self.assertEqual(again.status_code, 409)

    def test_no_link_for_somebody_who_is_in_a_crew_of_others(self):
        seat(self.bender, Crew.objects.create(name="Another"), Role.LEAD)
        place = self.bender.memberships.get(crew__name="Ours").pk
        self.assertEqual(self.api.send("POST", f"/people/{place}/password-link").status_code, 409)


class Beginning(TestCase):
    ASKED = {**NEW, "crew": "First"}

    def test_the_first_crew_and_its_lead_by_the_link_alone(self):
        door = Api()
        self.assertEqual(door.send("GET", "/beginning").json()["needed"], True)
        self.assertEqual(door.send("POST", "/beginning", {**self.ASKED, "token": "guess"}).status_code, 409)
        me = door.send("POST", "/beginning", {**self.ASKED, "token": beginning.token()}).json()
        self.assertEqual((me["crew"], me["role"]), ("First", "lead"))
        self.assertEqual(door.send("GET", "/jobs").json(), [])
        second = Api().send("POST", "/beginning", {**self.ASKED, "username": "x", "token": beginning.token()})
        self.assertEqual(second.status_code, 409)

    def said(self, *words):
        out = StringIO()
        call_command("people", *words, address="http://here", stdout=out)
        return out.getvalue()

    def test_on_the_command_line(self):
        self.assertIn("http://here/begin/", self.said())
        link = self.said("crew", "First", "nora").strip()
        token = link.removeprefix("http://here/password/")
        Api().send("POST", f"/password-links/{token}", {"password": NEW["password"]})
        signed_in = Api().send("POST", "/session", {"username": "nora", "password": NEW["password"]})
        self.assertEqual(signed_in.json()["role"], "lead")
        self.assertIn("  lead    nora", self.said())
        self.assertIn("http://here/password/", self.said("link", "nora"))
        for words in (("link", "nobody"), ("crew", "Second", "a b")):
            with self.assertRaises(CommandError):
                self.said(*words)


class History(CrewTestCase):
    def test_who_did_what_is_told_to_the_lead_narrowed_and_as_csv(self):
        Api().send("POST", "/session", {"username": "ben", "password": PASSWORD})
        self.api.send("POST", "/people/invitations", {"role": "viewer", "name": "Nora"})
        self.api.send("PUT", "/limits", {"limits": {"keep": "20"}})
        told = self.api.send("GET", "/history").json()
        self.assertEqual([line["what"] for line in told["lines"]], [What.SET_LIMITS, What.INVITED, What.SIGNED_IN])
        one = self.api.send("GET", "/history?what=invited").json()["lines"]
        self.assertEqual([(line["who"], line["about"]) for line in one], [("lena", "Nora as viewer")])
        csv = self.api.send("GET", "/history.csv").content.decode()
        self.assertEqual(len(csv.splitlines()), 4)
        self.assertEqual(Api(self.stranger).send("GET", "/history").json()["lines"], [])


@override_settings(EMAIL_HOST="mail.example")
class Letters(CrewTestCase):
    def ask(self, known_as):
        answer = Api().send("POST", "/password-links", {"known_as": known_as})
        self.assertEqual((answer.status_code, answer.content), (204, b""))

    def test_a_link_goes_to_the_address_of_whoever_forgot_and_to_nobody_else(self):
        User.objects.filter(pk=self.bender.pk).update(email="ben@example.org")
        for known_as in ("nobody", "lena", "x@example.org", "BEN@example.org", "ben"):
            self.ask(known_as)
        (letter,) = mail.outbox
        self.assertEqual(letter.to, ["ben@example.org"])
        token = letter.body.split("/password/")[1].split()[0]
        answer = Api().send("POST", f"/password-links/{token}", {"password": "another-vise-to-clamp"})
        self.assertEqual(answer.status_code, 200)

    def test_the_address_is_changed_by_the_password_only(self):
        names = {"username": "ben", "first": "", "last": "", "email": "ben@example.org"}
        ben = Api(self.bender)
        refused = ben.send("PUT", "/me", {**names, "password": "x"})
        self.assertEqual((refused.status_code, list(refused.json()["places"])), (422, ["password"]))
        self.assertEqual(ben.send("PUT", "/me", {**names, "password": PASSWORD}).json()["email"], "ben@example.org")

    def test_who_has_an_address_is_written_to_when_password_factor_or_address_change(self):
        User.objects.filter(pk=self.bender.pk).update(email="ben@example.org")
        ben = Api(self.bender)
        names = {"username": "ben", "first": "", "last": "", "email": "new@example.org"}
        with self.captureOnCommitCallbacks(execute=True):
            ben.send("PUT", "/me", {**names, "password": PASSWORD})
            ben.send("PUT", "/me", {**names, "first": "Ben"})
            ben.send("PUT", "/me/password", {"old": PASSWORD, "new": "another-vise-to-clamp"})
        self.assertEqual(
            sorted((letter.to[0], letter.body.split("\n\n")[1]) for letter in mail.outbox),
            [
                ("ben@example.org", "The e-mail address of “ben” was changed."),
                ("new@example.org", "The e-mail address of “ben” was changed."),
                ("new@example.org", "The password of “ben” was changed."),
            ],
        )

    def test_without_a_mail_server_nothing_is_sent(self):
        with override_settings(EMAIL_HOST=""):
            User.objects.filter(pk=self.bender.pk).update(email="ben@example.org")
            self.ask("ben")
            self.assertFalse(Api().send("GET", "/beginning").json()["mail"])
        self.assertEqual(mail.outbox, [])
