from server.stock.actions import add_scrap
from server.tests.support import Api, CrewTestCase


class Rack(CrewTestCase):
    def add(self, length, **more):
        return self.api.send("POST", "/rack", {"material": "EMT", "trade_size": "3/4", "length": length, **more})

    def test_added_taken_and_put_back(self):
        scrap = self.add("41 3/8").json()[0]
        self.assertEqual((scrap["tag"], scrap["length"], scrap["reads"]), ("S1", 41.375, "41 3/8"))
        self.assertEqual([s["tag"] for s in self.add("20", count=2).json()], ["S2", "S3"])
        take = f"/rack/{scrap['id']}/take"
        self.assertEqual(self.api.send("POST", take).status_code, 200)
        again = Api(self.bender).send("POST", take)
        self.assertEqual((again.status_code, again.json()["detail"]), (409, "S1 is no longer on the rack."))
        self.assertEqual(len(self.api.send("GET", "/rack").json()["scraps"]), 2)
        self.assertEqual(self.api.send("POST", f"/rack/{scrap['id']}/put-back").status_code, 200)
        self.assertEqual(self.api.send("POST", f"/rack/{scrap['id']}/put-back").status_code, 409)
        ledger = self.api.send("GET", "/rack").json()["ledger"]
        self.assertEqual([line["what"] for line in ledger[:2]], ["put back", "taken"])

    def test_lengths_that_cannot_lie_on_a_rack(self):
        for length, why in {"": "nothing is written", "7 1/0": "divided by 0", "5": "waste", "300": "no stick"}.items():
            answer = self.add(length)
            self.assertEqual(answer.status_code, 422)
            self.assertIn(why, answer.json()["places"]["length"])
        self.assertEqual(self.add("20", count=0).status_code, 422)

    def test_tags_are_the_crews_own(self):
        add_scrap(self.stranger, "EMT", "1", "30")
        self.assertEqual(self.add("30").json()[0]["tag"], "S1")
