import re

from server.accounts.members import invite
from server.accounts.models import Company, Crew, Role, User
from server.api import api
from server.exchange.models import Export, Import
from server.jobs.actions import add_job, add_run, remove_job, remove_run
from server.jobs.models import Job
from server.jobs.photos import add_photo
from server.jobs.space import place_box
from server.jobs.tests.test_about import encoded
from server.shoes.actions import add_shoe, remove_shoe
from server.shoes.models import Shoe
from server.shoes.schemas import ShoeIn
from server.stock.actions import add_scrap, take_scrap
from server.stock.schemas import ScrapIn
from server.tests.support import PASSWORD, RUN, Api, CrewTestCase, taken_plan

NINETY = {"mark": "7", "leg": "13", "other_leg": "20 1/4", "length": "30"}
# Every endpoint: a body that would do, and what a viewer and a stranger get.
BODIES = {
    "signIn": {"username": "x", "password": "y"},
    "addScrap": {"material": "EMT", "trade_size": "3/4", "length": "20"},
    "addJob": {"name": "New"},
    "addRun": {"document": RUN},
    "renameJob": {"name": "Other"},
    "copyRun": {},
    "makeSeries": {"count": 2},
    "saveRun": {"version": 1, "document": RUN},
    "previewPlan": {"document": RUN},
    "tellUnderChange": {"document": RUN},
    "listRackWays": {"document": RUN, "step": 0},
    "previewRack": {"document": RUN | {"rack": {"side": "out", "gap": 1, "pipes": [{}]}}},
    "listWays": {"document": RUN, "step": 0},
    "listRemedies": {"document": RUN},
    "shareClosing": {"document": {**RUN, "end": {"at": "40", "measured": {"up": "1"}}}, "legs": []},
    "writeRunNote": {"note": "x", "was": ""},
    "assignRun": {"member_id": None},
    "putJobAside": {"aside": True},
    "addPhoto": {"image": encoded()},
    "scheduleRuns": {"runs": [0]},
    "setLabour": {"bend": 4},
    "setPrices": {"text": "what,price"},
    "placeBox": {"place": {"name": "KP", "along": "0", "up": "48"}},
    "setDatum": {"datum": "column B2"},
    "editRun": {"version": 1, "edits": [{"op": "set", "place": "end.at", "value": "41"}]},
    "runAmongOthers": {"run_id": 0, "document": RUN},
    "listSpaceRemedies": {"one": 0, "other": 0},
    "checkMarks": {"document": RUN, "marks": [{"at": "14"}]},
    "readNote": {"text": "start, up"},
    "writeNote": {"document": RUN},
    "compareRuns": {"mine": RUN, "theirs": RUN},
    "addShoe": {"name": "New", "trade_size": "3/4"},
    "changeShoe": {"name": "Other", "trade_size": "3/4"},
    "testShoe": {"tests": [NINETY]},
    "calibrateShoe": {"tests": [NINETY]},
    "takeLearned": {"deduct": True},
    "doActs": {"acts": []},
    "setLimits": {"limits": {"most_degrees": "270"}},
    "setTape": {"tape": "1 mm"},
    "addScrapList": {"text": "3/4 EMT 30"},
    "readScrapList": {"text": "3/4 EMT 30"},
    "correctScrap": {"material": "EMT", "trade_size": "3/4", "length": "31"},
    "planCuts": {"terms": {}, "seconds": 0.2},
    "pickChoices": {"digest": "x"},
    "takePlan": {"digest": "x"},
    "emptyBin": {"things": []},
    "nameCrew": {"name": "Others"},
    "wantCodesOfLeads": {"wanted": False},
    "setNewRuns": {"tape": "1 mm", "feet": False, "stand_off": "0"},
    "invite": {"role": "bender"},
    "changeRole": {"role": "bender"},
    "beginCrew": {"token": "x", "crew": "New", "username": "x", "password": "clamp-the-vise-9"},
    "askForPasswordLink": {"known_as": "x"},
    "joinAsNew": {"username": "x", "password": "clamp-the-vise-9"},
    "takePasswordLink": {"password": "clamp-the-vise-9"},
    "changeMyNames": {"username": "x", "first": "", "last": ""},
    "changeMyPassword": {"old": PASSWORD, "new": "another-vise-to-clamp"},
    "switchCrew": {"crew_id": 0},
    "confirmSecondFactor": {"code": "123456"},
    "signInByCode": {"code": "123456"},
    "turnOffSecondFactor": {"password": "x"},
    "beginCompany": {"name": "Group"},
    "nameCompany": {"name": "Group"},
    "joinCompany": {"token": "x"},
    "addCrew": {"name": "Third"},
    "shareRunning": {"wanted": True},
    "letInOrShutOut": {"wanted": True},
    "shareJob": {"wanted": True},
    "shareShoe": {"wanted": True},
    "exportRun": {"to": "json"},
    "exportJob": {"to": "json"},
    "exportCrew": {"to": "zip"},
    "beginImport": {"name": "a.csv", "length": 3},
    "addImportPart": {"number": 0, "data": "YSxi"},
    "readImport": {},
    "unpackImport": {},
    "takeImport": {"job_id": 1, "runs": [1]},
    "doCut": {"kind": "cut", "key": "6f1d7c55-4df5-4a52-9c3e-0a0b4e6f9a11"},
}
# What is open to anybody, and what a link that opens nothing is answered.
OPEN = {
    "signIn": 401,
    "whoAmI": 204,
    "isBeginningNeeded": 200,
    "beginCrew": 409,
    "getInvitation": 404,
    "signInByCode": 401,
    "joinAsNew": 409,
}
NONE_YET = {"getCompany": 204}
OPEN |= {"whoAmI": 204, "askForPasswordLink": 204}
OPEN |= {"getPasswordLink": 409, "takePasswordLink": 409}
# What a person does for themselves, whatever their role: what a link, a crew or a session that is none is answered.
OWN = {"joinAsMyself": 409, "signOutThere": 404, "switchCrew": 404, "changeMyPassword": 204, "removeMember": 404}
OWN |= {"getExport": 404, "getExportFile": 404, "getImport": 404, "getImportPicture": 404}
OWN |= {"confirmSecondFactor": 422, "turnOffSecondFactor": 422}
LEADS = {
    "nameCrew",
    "invite",
    "withdrawInvitation",
    "changeRole",
    "makePasswordLink",
    "takeAwaySecondFactor",
    "getHistory",
    "getHistoryCsv",
    "listBin",
    "emptyBin",
    "exportCrew",
    "setLabour",
    "setLimits",
    "setNewRuns",
    "setPrices",
    "wantCodesOfLeads",
    "keepSold",
    "shareJob",
    "shareShoe",
    "setTape",
    "removeJob",
    "removeRun",
    "removeShoe",
    "restoreJob",
    "restoreRun",
    "restoreShoe",
}
READS = {
    "whoAmI",
    "getLimits",
    "getLimitsInForce",
    "signOut",
    "listShoes",
    "getRack",
    "listJobs",
    "getJob",
    "getCutting",
    "getRun",
    "getFloor",
    "getSpace",
    "getTakes",
    "getEstimate",
    "getLabour",
    "getPricesCsv",
    "runAmongOthers",
    "listSpaceRemedies",
    "previewPlan",
    "previewRack",
    "listRackWays",
}
READS |= {
    "getLimits",
    "getPeople",
    "changeMyNames",
    "listMySessions",
    "getMySecondFactor",
    "getMyProvider",
    "leaveProvider",
    "beginSecondFactor",
    "signOutElsewhere",
    "listWays",
    "listRemedies",
    "shareClosing",
    "getPhoto",
    "checkMarks",
    "readNote",
    "writeNote",
    "compareRuns",
    "tellUnderChange",
    "getSaved",
    "listRevisions",
    "getRevision",
    "getBench",
    "listLog",
    "getLogCsv",
    "getLearned",
    "testShoe",
    "getRackCsv",
    "getLedgerCsv",
    "getOrderCsv",
    "getCutsCsv",
    "listFormats",
    "exportRun",
    "exportJob",
}


class PermissionMatrix(CrewTestCase):
    """Each endpoint as nobody, as a viewer, and as someone of another crew."""

    def setUp(self):
        super().setUp()
        self.scrap, taken = add_scrap(self.lead, ScrapIn(material="EMT", trade_size="3/4", length="30", count=2))
        self.taken = take_scrap(self.lead, taken.pk)
        self.cut = taken_plan(self.lead, self.job)
        self.invitation = invite(self.lead, Role.BENDER, "")
        self.box = place_box(self.lead, self.job.pk, {"name": "Q", "along": "0", "up": "0"}, None)
        self.export = Export.objects.create(crew=self.job.crew, by=self.lead, job=self.job, to="json", language="en")
        self.read = Import.objects.create(crew=self.job.crew, by=self.lead, name="a.csv", length=3, language="en")
        self.photo = add_photo(self.lead, self.feed.pk, encoded(), "")
        self.shoe = add_shoe(self.lead, ShoeIn(name="Ours", trade_size="3/4"))
        job, shoe = add_job(self.lead, "Gone", ""), add_shoe(self.lead, ShoeIn(name="Lost", trade_size="3/4"))
        run = add_run(self.lead, self.job.pk, RUN)
        self.binned = {"job_id": job.pk, "run_id": run.pk, "shoe_id": shoe.pk}
        for remove, one in ((remove_job, job), (remove_run, run), (remove_shoe, shoe)):
            remove(self.lead, one.pk)

    def endpoints(self):
        for path, methods in api.get_openapi_schema()["paths"].items():
            for method, operation in methods.items():
                yield operation["operationId"], method, self.filled(operation["operationId"], path)

    def filled(self, name, path):
        scrap = self.taken if name == "putScrapBack" else self.scrap
        numbers = {
            "job_id": self.job.pk,
            "run_id": self.feed.pk,
            "scrap_id": scrap.pk,
            "version": 1,
            "shoe_id": self.shoe.pk,
            "cut_id": self.cut.pk,
            "invitation_id": self.invitation.pk,
            "member_id": self.bender.memberships.get().pk if name != "removeMember" else 0,
            "session_id": "0",
            "photo_id": self.photo.pk,
            "box_id": self.box.pk,
            "export_id": self.export.pk,
            "import_id": self.read.pk,
            "number": 1,
            "token": "x",
            "crew_id": 0,
            "user_id": 0,
        }
        if name.startswith("restore"):
            numbers |= self.binned
        return re.sub(r"{(\w+)}", lambda found: str(numbers[found[1]]), path).removeprefix("/api")

    def status(self, user, name, method, path):
        # Anew each time: a password that was changed ends what began before.
        return Api(user and User.objects.get(pk=user.pk)).send(method, path, BODIES.get(name)).status_code

    def test_nobody_gets_in(self):
        for name, method, path in self.endpoints():
            with self.subTest(name):
                self.assertEqual(self.status(None, name, method, path), OPEN.get(name, 401))

    def test_a_viewer_may_look_only(self):
        for name, method, path in self.endpoints():
            with self.subTest(name):
                status = self.status(self.viewer, name, method, path)
                looks = {"signOut": 204} | dict.fromkeys(READS - {"signOut"}, 200)
                self.assertEqual(status, {**OPEN, **looks, **OWN, **NONE_YET}.get(name, 403))

    def test_only_the_lead_deletes_and_takes_out_of_the_bin(self):
        mine = [one for one in self.endpoints() if one[0] in LEADS]
        # What is in a job first: with the job it would be gone.
        for name, method, path in sorted(mine, key=lambda one: (one[0].startswith("remove"), "Job" in one[0])):
            with self.subTest(name):
                self.assertEqual(self.status(self.bender, name, method, path), 403)
                self.assertIn(self.status(self.lead, name, method, path), (200, 204))

    def test_a_crew_of_the_company_works_in_what_is_shared_alone(self):
        Crew.objects.update(company=Company.objects.create(name="Group"))
        numbered = [one for one in self.endpoints() if re.search(r"\d", one[2]) and "/company/" not in one[2]]
        for name, method, path in numbered:
            with self.subTest(name, shared=False):
                self.assertEqual(self.status(self.stranger, name, method, path), 404)
        Job.objects.update(shared=True)
        Shoe.objects.update(shared=True)
        for name, method, path in numbered:
            with self.subTest(name, shared=True):
                status = self.status(self.stranger, name, method, path)
                is_shared = re.match("/(jobs|runs|cuts)/", path) and not name.startswith("restore")
                if name == "getLearned" or (is_shared and name in READS):
                    self.assertEqual(status, 200)
                elif not is_shared:
                    self.assertEqual(status, 404)
                elif name in LEADS | {"renameJob", "putJobAside"}:
                    self.assertEqual(status, 403)
                else:
                    self.assertNotIn(status, (403, 404))
        theirs = Api(self.stranger)
        self.assertEqual([one["name"] for one in theirs.send("GET", "/jobs").json()], ["Shed"])
        self.assertEqual(theirs.send("GET", "/rack").json()["scraps"], [])

    def test_another_crew_sees_nothing(self):
        for name, method, path in self.endpoints():
            if re.search(r"\d", path) and "/company/" not in path:
                with self.subTest(name):
                    self.assertEqual(self.status(self.stranger, name, method, path), 404)
        theirs = Api(self.stranger)
        for path in ("/jobs", "/shoes"):
            self.assertEqual(theirs.send("GET", path).json(), [])
        self.assertEqual(
            theirs.send("GET", "/log").json(), {"lines": [], "total": 0, "runs": [], "people": [], "shoes": []}
        )
        self.assertEqual(theirs.send("GET", "/rack").json(), {"tape": "1/16", "scraps": [], "ledger": []})

    def test_writes_need_the_csrf_token(self):
        client = Api(self.lead, enforce_csrf_checks=True)
        self.assertEqual(client.send("POST", "/jobs", {"name": "New"}).status_code, 403)
        stranger = Api(enforce_csrf_checks=True)
        self.assertEqual(stranger.send("POST", "/session", BODIES["signIn"]).status_code, 403)
