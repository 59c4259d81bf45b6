from server.stock.actions import add_scrap
from server.stock.schemas import ScrapIn
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

    def test_bare_figures_are_in_the_racks_tape(self):
        inches = self.add("1051", tape="1 mm").json()[0]
        self.assertEqual((inches["length"], inches["reads"]), (1051 / 25.4, "41 3/8"))
        self.assertEqual(Api(self.bender).send("PUT", "/rack/tape", {"tape": "1 mm"}).status_code, 403)
        self.api.send("PUT", "/rack/tape", {"tape": "1 mm"})
        rack = self.api.send("GET", "/rack").json()
        self.assertEqual((rack["tape"], rack["scraps"][0]["reads"]), ("1 mm", "1051 mm"))
        self.assertEqual(self.add("1816").json()[0]["length"], 1816 / 25.4)
        self.assertEqual(self.add("41 3/8", tape="1/16").json()[0]["reads"], "1051 mm")
        self.assertIn("has no unit", self.add("41 3/8").json()["places"]["length"])
        self.assertIn('71 1/2"', self.add("9000").json()["places"]["length"])
        listed = self.api.send("POST", "/rack/list", {"text": "3/4 EMT 1051 x2\n3/4 EMT 30 in"}).json()
        self.assertEqual([one["reads"] for one in listed], ["1051 mm", "1051 mm", "762 mm"])
        before = [one["reads"] for one in self.rack()]
        csv = self.api.send("GET", "/rack.csv").content.decode()
        again = self.api.send("POST", "/rack/list", {"text": csv, "tape": "1/16"}).json()
        self.assertEqual([one["reads"] for one in again], before)

    def rack(self):
        return self.api.send("GET", "/rack").json()["scraps"]

    def test_tags_are_the_crews_own(self):
        add_scrap(self.stranger, ScrapIn(material="EMT", trade_size="1", length="30"))
        self.assertEqual(self.add("30").json()[0]["tag"], "S1")

    def test_many_at_once_or_none(self):
        good, bad = "3/4 EMT 41 3/8 x2 at bay 2\n1 EMT 30", "3/4 EMT 41 3/8\n3/4 EMT 5\nwhat"
        answer = self.api.send("POST", "/rack/list", {"text": bad})
        self.assertEqual((answer.status_code, sorted(answer.json()["places"])), (422, ["line 2", "line 3"]))
        self.assertIn("2 of 3 lines", answer.json()["detail"])
        self.assertEqual(self.api.send("GET", "/rack").json()["scraps"], [])
        added = self.api.send("POST", "/rack/list", {"text": good}).json()
        self.assertEqual([(one["tag"], one["place"]) for one in added], [("S1", "bay 2"), ("S2", "bay 2"), ("S3", "")])
        csv = self.api.send("GET", "/rack.csv").content.decode()
        again = self.api.send("POST", "/rack/list", {"text": csv}).json()
        same = ("material", "trade_size", "length", "place", "end_a", "end_b")
        kept = [[[one[of] for of in same] + [one["since"][:19]] for one in several] for several in (added, again)]
        self.assertEqual(*kept, "it reads its own CSV")
        read = self.api.send("POST", "/rack/list/read", {"text": bad}).json()
        self.assertEqual(([one["length"] for one in read["lines"]], read["pieces"]), (["41 3/8"], 1))
        self.assertEqual([fault["line"] for fault in read["faults"]], [2, 3])
        self.assertEqual(len(self.api.send("GET", "/rack").json()["scraps"]), 6, "read only")
        answer = self.api.send("POST", "/rack/list", {"text": "size,length,since\n1,30,last week"})
        self.assertIn("that is no date", answer.json()["places"]["line 2"])

    def test_corrected_and_recycled(self):
        scrap = self.add("41 3/8").json()[0]
        body = {"material": "EMT", "trade_size": "3/4", "length": "40", "place": "van", "end_a": "factory"}
        now = self.api.send("PUT", f"/rack/{scrap['id']}", body).json()
        self.assertEqual((now["reads"], now["place"], now["end_a"]), ("40", "van", "factory"))
        self.assertEqual(self.api.send("PUT", f"/rack/{scrap['id']}", {**body, "length": "-4"}).status_code, 422)
        self.assertEqual(self.api.send("POST", f"/rack/{scrap['id']}/recycle").status_code, 200)
        self.assertEqual(self.api.send("PUT", f"/rack/{scrap['id']}", body).status_code, 409)
        ledger = self.api.send("GET", "/rack").json()["ledger"]
        self.assertEqual([line["what"] for line in ledger], ["recycled", "corrected", "added"])
        self.assertEqual(ledger[1]["note"], "was 3/4 EMT 41 3/8")
        lines = self.api.send("GET", "/rack/ledger.csv").content.decode().splitlines()
        self.assertEqual([line.split(",")[1:3] for line in lines[1:]], [["S1", one["what"]] for one in ledger])

    def test_five_thousand_pieces(self):
        lines = "\n".join(f"3/4 EMT {12 + number % 100} 1/2" for number in range(5000))
        self.assertEqual(len(self.api.send("POST", "/rack/list", {"text": lines}).json()), 5000)
        answer = self.api.send("POST", f"/jobs/{self.job.pk}/cutting/plan", {"terms": {}, "seconds": 1}).json()
        kind = answer["proposal"]["found"]["kinds"][0]
        self.assertEqual(kind["choices"][kind["chosen"]]["sticks"], 0)
        self.assertIn("of 5,000 pieces on the rack", kind["looked_at"])
