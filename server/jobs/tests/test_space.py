"""A job in one space over the API: places that two people write, a clash found and mended, what stays as it is."""

from conduit.tests.support import between, ninety
from server.accounts.models import Event
from server.jobs.actions import add_run
from server.jobs.models import JobBox, Run
from server.jobs.space import measured_pair
from server.tests.support import Api, CrewTestCase


class InOneSpace(CrewTestCase):
    def setUp(self):
        super().setUp()
        Run.objects.filter(job=self.job).delete()
        self.up = add_run(self.lead, self.job.pk, between("P", "Q", [ninety("90", "right")], "40", "Up and over"))
        self.across = add_run(self.lead, self.job.pk, between("R", "S", [], "120", "Across", "right"))

    def place(self, name, along, up, was=None, user=None, **more):
        body = {"place": {"name": name, "along": along, "up": up, **more}, "was": was}
        return Api(user or self.lead).send("POST", f"/jobs/{self.job.pk}/boxes", body)

    def space(self):
        return self.api.send("GET", f"/jobs/{self.job.pk}/space").json()

    def crossing(self):
        self.place("P", "0", "0")
        self.place("R", "-60", "48")

    def test_a_box_is_placed_once_by_who_measures_it(self):
        self.assertEqual([one["name"] for one in self.space()["space"]["unplaced"]], ["P", "Q", "R", "S"])
        told = self.place("P", "0", "4' 0\"").json()
        self.assertEqual((told["version"], told["by"], told["key"]), (1, "lena", "p"))
        again = self.place(" p", "2", "48", user=self.bender)
        self.assertEqual((again.status_code, again.json()["theirs"]["place"]["up"]), (409, "4' 0\""))
        self.assertEqual(self.place(" p", "2", "48", was=1, user=self.bender).json()["version"], 2)
        self.assertEqual(JobBox.objects.count(), 1)
        self.assertEqual(Event.objects.filter(what="placed a box").count(), 2)
        space = self.space()["space"]
        self.assertEqual(
            [(one["name"], one["stands"]) for one in space["runs"]], [("Up and over", True), ("Across", False)]
        )

    def test_what_cannot_be_read_is_told_at_its_field(self):
        refused = self.place("P", "1/0", "48")
        self.assertEqual((refused.status_code, list(refused.json()["places"])), (422, ["place.along"]))
        self.assertEqual(self.place("", "1", "48").status_code, 422)
        self.assertEqual(JobBox.objects.count(), 0)

    def test_a_box_that_was_placed_anew_is_not_taken_away_unseen(self):
        box = self.place("P", "0", "48").json()
        self.place("P", "1", "48", was=1)
        path = f"/jobs/{self.job.pk}/boxes/{box['id']}/versions"
        self.assertEqual(self.api.send("DELETE", f"{path}/1").status_code, 409)
        self.assertEqual(self.api.send("DELETE", f"{path}/2").status_code, 204)
        self.assertEqual(self.api.send("DELETE", f"{path}/2").status_code, 204, "it is gone already")

    def test_the_datum_is_not_written_over_unseen(self):
        path = f"/jobs/{self.job.pk}/datum"
        self.assertEqual(self.api.send("PUT", path, {"datum": "column B2"}).status_code, 200)
        refused = self.api.send("PUT", path, {"datum": "door frame"})
        self.assertEqual((refused.status_code, refused.json()["theirs"]), (409, "column B2"))
        self.assertEqual(self.space()["datum"], "column B2")

    def test_a_clash_is_told_at_both_runs_and_gone_in_both_once_mended(self):
        self.crossing()
        clash = self.space()["space"]["clashes"][0]
        self.assertIn("run into each other", clash["says"])
        for run in (self.up, self.across):
            self.assertEqual([one["code"] for one in self.among(run)], ["runs_touch"])
        fixes = self.remedies()
        self.assertTrue(fixes)
        run = Run.objects.get(pk=int(fixes[0]["run"]))
        body = {"version": fixes[0]["version"], "edits": fixes[0]["edits"]}
        self.assertEqual(self.api.send("POST", f"/runs/{run.pk}/edits", body).json()["version"], 2)
        self.assertEqual(self.api.send("POST", f"/runs/{run.pk}/edits", body).status_code, 409, "made for version 1")
        self.assertEqual(self.space()["space"]["clashes"], [])
        for run in (self.up, self.across):
            self.assertEqual(self.among(Run.objects.get(pk=run.pk)), [])

    def test_a_strut_under_two_runs_is_brought_once(self):
        off = {"stand_off": "1 5/8"}
        for run, name in ((self.up, "R"), (self.across, "S")):
            document = {**between(name, "", [], "90", f"From {name}"), **off}
            self.api.send("PUT", f"/runs/{run.pk}", {"version": 1, "document": document})
        order = f"/jobs/{self.job.pk}/cutting"
        self.assertNotIn("strut", [line["what"] for line in self.api.send("GET", order).json()["order"]])
        self.place("R", "0", "0")
        self.place("S", "4", "0")
        lines = [line for line in self.api.send("GET", order).json()["order"] if line["what"] == "strut"]
        self.assertEqual([(line["length"], line["count"]) for line in lines], [("7 15/16", 2)])
        self.assertEqual(lines[0]["note"], "From R, From S: pipes at 1 15/16, 5 15/16")

    def among(self, run):
        body = {"run_id": run.pk, "document": run.document}
        return self.api.send("POST", f"/jobs/{self.job.pk}/space/among", body).json()["findings"]

    def remedies(self):
        body = {"one": self.up.pk, "other": self.across.pk}
        return self.api.send("POST", f"/jobs/{self.job.pk}/space/remedies", body).json()

    def test_a_run_that_is_cut_is_not_moved(self):
        self.crossing()
        Run.objects.filter(pk=self.up.pk).update(status="cut")
        self.assertEqual(self.space()["fixed"], [self.up.pk])
        self.assertEqual({int(one["run"]) for one in self.remedies()}, {self.across.pk})

    def test_edits_that_do_not_fit_change_nothing(self):
        body = {"version": 1, "edits": [{"op": "set", "place": "steps.9.at", "value": "4"}]}
        self.assertEqual(self.api.send("POST", f"/runs/{self.up.pk}/edits", body).status_code, 422)
        self.assertEqual(Run.objects.get(pk=self.up.pk).version, 1)

    def test_the_crew_says_how_clear_runs_are_kept(self):
        self.place("P", "0", "0")
        self.place("R", "-60", "48", out="3")
        self.assertEqual(self.space()["space"]["clashes"], [])
        self.api.send("PUT", "/limits", {"limits": {"between_runs": "4"}})
        told = self.space()["space"]["clashes"]
        self.assertEqual([one["severity"] for one in told], ["caution"])
        self.assertIn("4 asked", told[0]["says"])

    def test_what_did_not_change_is_not_measured_again_a_racks_pipes_neither(self):
        self.crossing()
        rack = {"side": "out", "spacing": 2, "pipes": [{"name": "Beside"}]}
        add_run(self.lead, self.job.pk, {**between("P", "T", [ninety("60", "left")], "30", "Lead"), "rack": rack})
        first = self.space()["space"]
        self.assertIn(("Beside", True), [(one["name"], one["stands"]) for one in first["runs"]])
        known = measured_pair.cache_info().misses
        self.assertEqual(self.space()["space"], first)
        self.assertEqual(measured_pair.cache_info().misses, known)
