"""Who is removed, or leads no more, opens no door with what they made before."""

from django.test import TestCase

from server.accounts.members import seat
from server.accounts.models import Crew, Membership, Role
from server.accounts.passwords import token_for
from server.accounts.tests.test_people import NEW
from server.tests.support import Api, CrewTestCase, person

NEW_PASSWORD = {"password": "another-vise-to-clamp"}


class OnceALead(CrewTestCase):
    def setUp(self):
        super().setUp()
        self.other = person(self.lead.membership.crew, "otto")
        self.place = self.other.memberships.get().pk
        self.theirs = Api(self.other)
        self.invited = self.theirs.send("POST", "/people/invitations", {"role": "lead", "name": "Me again"}).json()
        bens = self.bender.memberships.get().pk
        self.link = self.theirs.send("POST", f"/people/{bens}/password-link").json()["token"]

    def doors(self):
        joined = Api().send("POST", f"/invitations/{self.invited['token']}/person", NEW)
        taken = Api().send("POST", f"/password-links/{self.link}", NEW_PASSWORD)
        seen = Api().send("GET", f"/password-links/{self.link}")
        return joined.status_code, taken.status_code, seen.status_code

    def test_as_long_as_they_lead_both_are_good(self):
        self.assertEqual(self.doors()[:2], (200, 200))

    def test_removed_neither_invitation_nor_link_is_good(self):
        self.api.send("DELETE", f"/people/{self.place}")
        self.assertEqual(self.doors(), (409, 409, 409))
        self.assertEqual(self.api.send("GET", "/people").json()["invitations"], [])
        self.assertFalse(Api().send("GET", f"/invitations/{self.invited['token']}").json()["open"])

    def test_with_a_lower_role_they_are_void_for_good(self):
        for role in ("viewer", "lead"):
            self.api.send("PUT", f"/people/{self.place}/role", {"role": role})
        self.assertEqual(self.doors()[0], 409)
        self.assertFalse(Api().send("GET", f"/invitations/{self.invited['token']}").json()["open"])

    def test_a_role_that_was_lowered_behind_its_back_gives_nothing(self):
        Membership.objects.filter(pk=self.place).update(role=Role.BENDER)
        self.assertEqual(self.doors(), (409, 409, 409))

    def test_a_link_without_who_made_it_is_none(self):
        self.api.send("DELETE", f"/people/{self.place}")
        number, secret, _ = self.link.split(".")
        for forged in (f"{number}.{secret}", f"{number}.{secret}.{self.lead.memberships.get().pk}", f"{self.link}x"):
            self.assertEqual(Api().send("POST", f"/password-links/{forged}", NEW_PASSWORD).status_code, 409)

    def test_a_link_for_somebody_who_works_for_others_meanwhile_is_void(self):
        seat(self.bender, Crew.objects.create(name="Another"), Role.LEAD)
        self.assertEqual(self.doors()[1], 409)


class WithoutACrew(TestCase):
    def test_a_link_of_their_own_answers_in_words(self):
        user = person(Crew.objects.create(name="Ours"), "lena")
        token = token_for(user)
        Crew.objects.all().delete()
        for answer in (
            Api().send("GET", f"/password-links/{token}"),
            Api().send("POST", f"/password-links/{token}", NEW_PASSWORD),
        ):
            self.assertEqual(answer.status_code, 409)
            self.assertIn("no crew", answer.json()["detail"])
