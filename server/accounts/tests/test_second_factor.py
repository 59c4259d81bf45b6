from urllib.parse import parse_qs, urlsplit

from server.accounts.passwords import password_link
from server.accounts.slowing import FREE_FOR_A_NAME as FREE
from server.tests.support import PASSWORD, Api, CrewTestCase, code_of_phone


class SecondFactor(CrewTestCase):
    def setUp(self):
        super().setUp()
        self.ben = Api(self.bender)

    def code(self):
        return code_of_phone(self.bender)

    def turned_on(self):
        address = self.ben.send("POST", "/me/second-factor").json()["address"]
        self.assertEqual(parse_qs(urlsplit(address).query)["issuer"], ["Crelda"])
        answer = self.ben.send("POST", "/me/second-factor/confirm", {"code": self.code()})
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()["codes"]

    def sign_in(self, **more):
        return Api().send("POST", "/session", {"username": "ben", "password": PASSWORD, **more})

    def test_it_asks_for_the_code_once_it_is_confirmed(self):
        self.ben.send("POST", "/me/second-factor")
        self.assertEqual(self.sign_in().status_code, 200)
        wrong = self.ben.send("POST", "/me/second-factor/confirm", {"code": "000000"})
        self.assertEqual((wrong.status_code, list(wrong.json()["places"])), (422, ["code"]))
        self.turned_on()
        asked = self.sign_in()
        self.assertEqual((asked.status_code, asked.json()["code_wanted"]), (401, True))
        self.assertEqual(self.sign_in(password="wrong", code=self.code()).json()["code_wanted"], False)
        code = self.code()
        self.assertEqual(self.sign_in(code=code).status_code, 200)
        self.assertEqual(self.sign_in(code=code).status_code, 401, "each code is good once")

    def test_guessing_codes_is_slowed_and_does_not_shut_out_its_owner(self):
        owner = Api()
        owner.send("POST", "/session", {"username": "ben", "password": PASSWORD})
        self.turned_on()
        self.assertEqual([self.sign_in(code="000000").status_code for _ in range(FREE + 1)], [401] * FREE + [429])
        self.assertEqual(self.sign_in(code=self.code()).status_code, 429, "a stranger's may be one more guess")
        body = {"username": "ben", "password": PASSWORD, "code": self.code()}
        self.assertEqual(owner.send("POST", "/session", body).status_code, 200, "this browser signed in before")
        self.assertEqual(Api().send("POST", "/session", {**body, "code": ""}).json()["code_wanted"], True)

    def test_a_crew_may_want_it_of_its_leads(self):
        place = self.bender.memberships.get().pk
        self.api.send("PUT", f"/people/{place}/role", {"role": "lead"})
        wanted = {"wanted": True}
        self.assertEqual(self.api.send("PUT", "/crew/codes-of-leads", wanted).status_code, 422, "she has none herself")
        self.turned_on()
        self.assertEqual(self.ben.send("PUT", "/crew/codes-of-leads", wanted).json()["must_turn_on_code"], False)
        self.assertEqual(self.api.send("GET", "/session").json()["must_turn_on_code"], True)
        refused = self.api.send("POST", "/people/invitations", {"role": "bender"})
        self.assertEqual(refused.status_code, 403)
        self.assertIn("Turn yours on first", refused.json()["detail"])
        self.assertEqual(self.api.send("PUT", "/limits", {"limits": {}}).status_code, 403)
        self.assertEqual(self.api.send("POST", "/jobs", {"name": "Work goes on", "place": ""}).status_code, 201)
        self.ben.send("PUT", "/crew/codes-of-leads", {"wanted": False})
        self.assertEqual(self.api.send("POST", "/people/invitations", {"role": "bender"}).status_code, 200)

    def test_a_spare_code_lets_in_once(self):
        spare = self.turned_on()
        self.assertEqual(len(set(spare)), 8)
        self.assertEqual([self.sign_in(code=spare[0]).status_code for _ in range(2)], [200, 401])

    def test_a_link_for_a_forgotten_password_does_not_get_around_it(self):
        self.turned_on()
        token = password_link(self.lead, self.bender.memberships.get().pk)
        self.assertTrue(Api().send("GET", f"/password-links/{token}").json()["second_factor"])
        body = {"password": "another-vise-to-clamp"}
        refused = Api().send("POST", f"/password-links/{token}", body)
        self.assertEqual((refused.status_code, list(refused.json()["places"])), (422, ["code"]))
        self.assertEqual(Api().send("POST", f"/password-links/{token}", {**body, "code": self.code()}).status_code, 200)

    def test_guessing_codes_by_a_link_is_slowed_too(self):
        self.turned_on()
        token = password_link(self.lead, self.bender.memberships.get().pk)
        body = {"password": "another-vise-to-clamp", "code": "000000"}
        statuses = [Api().send("POST", f"/password-links/{token}", body).status_code for _ in range(FREE + 1)]
        self.assertEqual(statuses, [422] * FREE + [429])

    def test_it_is_turned_off_by_its_owner_with_the_password_and_by_the_lead(self):
        self.turned_on()
        self.assertEqual(self.ben.send("POST", "/me/second-factor/off", {"password": "x"}).status_code, 422)
        self.assertTrue(self.ben.send("GET", "/me/second-factor").json()["on"])
        self.ben.send("POST", "/me/second-factor/off", {"password": PASSWORD})
        self.assertEqual(self.sign_in().status_code, 200)
        self.turned_on()
        members = {one["username"]: one for one in self.api.send("GET", "/people").json()["members"]}
        self.assertTrue(members["ben"]["second_factor"])
        self.assertEqual(self.api.send("DELETE", f"/people/{members['ben']['id']}/second-factor").status_code, 204)
        self.assertEqual(self.sign_in().status_code, 200)
