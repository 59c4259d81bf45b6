from server.tests.support import PASSWORD, Api, CrewTestCase


class Session(CrewTestCase):
    def test_in_and_out(self):
        client = Api()
        self.assertEqual(client.send("GET", "/session").status_code, 401)
        answer = client.send("POST", "/session", {"username": "ben", "password": PASSWORD})
        self.assertEqual(answer.json(), {"username": "ben", "name": "ben", "crew": "Ours", "role": "bender"})
        self.assertEqual(client.send("GET", "/session").json()["username"], "ben")
        self.assertEqual(client.send("DELETE", "/session").status_code, 204)
        self.assertEqual(client.send("GET", "/session").status_code, 401)

    def test_guessing_is_locked_out_and_others_are_not(self):
        client = Api()
        guess = {"username": "ben", "password": "guess"}
        statuses = [client.send("POST", "/session", guess).status_code for _ in range(9)]
        self.assertEqual(statuses[:7], [401] * 7)
        self.assertEqual(statuses[-1], 429)
        right = client.send("POST", "/session", {"username": "ben", "password": PASSWORD})
        self.assertEqual(right.status_code, 429)
        other = client.send("POST", "/session", {"username": "lena", "password": PASSWORD})
        self.assertEqual(other.status_code, 200)

    def test_the_page_is_guarded(self):
        page = Api().get("/runs/5/walk")
        self.assertEqual(page.status_code, 200)
        policy = page["Content-Security-Policy"]
        self.assertIn("script-src 'self';", policy + ";")
        self.assertEqual(page["X-Frame-Options"], "DENY")
