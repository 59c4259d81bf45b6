from uuid import uuid4

from django.utils import timezone
from playwright.sync_api import expect

from e2e.on_device import BEGINNING, OnDevice
from e2e.support import enter, expect_plan_of, field, kept, saved, until
from server.accounts.models import User
from server.bench.models import BendMade
from server.jobs.models import Job, Run
from server.stock.actions import correct
from server.stock.models import Scrap
from server.stock.schemas import CorrectIn

NAME = "Wedging table outlet"
# The browser has no room for anything more.
FULL = """() => {
  const { put } = IDBObjectStore.prototype;
  IDBObjectStore.prototype.put = () => { throw new DOMException("full", "QuotaExceededError"); };
  window.freed = () => { IDBObjectStore.prototype.put = put; };
}"""

# Puts a record into one of the browser's databases, as it is there already.
PUT = """([database, store, key, value]) => new Promise((done) => {
  const asked = indexedDB.open(database);
  asked.onsuccess = () => {
    const writing = asked.result.transaction(store, "readwrite");
    writing.objectStore(store).put(value, ...(key ? [key] : []));
    writing.oncomplete = () => { asked.result.close(); done(); };
  };
})"""


class InABasement(OnDevice):
    def the_run(self):
        return next(one for one in Run.objects.all() if one.name == NAME)

    def with_a_job(self):
        """A page on which a job was added without a network."""
        page = self.with_the_list()
        page.goto(f"{self.live_server_url}/jobs/{self.the_run().job_id}/stock")
        kept(page, '"scraps"')
        page.goto(self.live_server_url)
        page.context.set_offline(True)
        page.reload()
        page.get_by_label("New job").fill("Boiler room")
        page.get_by_role("button", name="Start the job").click()
        return page

    def test_a_job_and_a_scrap_are_added_without_a_network_and_sent_once(self):
        page = self.with_a_job()
        job = page.get_by_role("region", name="Boiler room")
        expect(job).to_contain_text("only on this device")
        job.get_by_role("button", name="Measure a new run").click()
        expect(page.get_by_text("Kept on this device")).to_be_visible(timeout=BEGINNING)
        page.goto(self.live_server_url)
        expect(job.get_by_role("link", name="Run 1")).to_be_visible()
        page.goto(f"{self.live_server_url}/jobs/{self.the_run().job_id}/stock")
        page.get_by_label("Length").fill("37 1/2")
        page.get_by_role("button", name="Add", exact=True).click()
        waits = page.get_by_role("list", name="Not sent yet")
        expect(waits).to_contain_text("37 1/2, 3/4 EMT")
        # The page is closed and opened again.
        page.reload()
        expect(waits).to_be_visible()
        scraps = Scrap.objects.count()
        page.context.set_offline(False)
        expect(waits).to_have_count(0)
        self.assertEqual(Scrap.objects.count(), scraps + 1)
        self.assertEqual(Scrap.objects.latest("pk").length, 37.5)
        page.goto(self.live_server_url)
        until(page, lambda: Job.objects.filter(name="Boiler room", runs__isnull=False).count() == 1)
        expect(page.get_by_text("only on this device")).to_have_count(0)

    def test_two_phones_that_both_worked_without_a_network_on_one_run(self):
        dana, marek = self.with_the_list(), self.window("marek", installed=True)
        run = self.the_run()
        for page in (dana, marek):
            page.goto(f"{self.live_server_url}/runs/{run.pk}/bench")
            page.get_by_role("button", name="Cut and marked").wait_for()
        dana.get_by_role("button", name="Cut and marked").click()
        expect(dana.get_by_text("All sent")).to_be_visible()
        for page, angle in ((dana, 90.2), (marek, 88.5)):
            page.goto(f"{self.live_server_url}/runs/{run.pk}/bench?at=1")
            expect(page.get_by_test_id("mark")).to_be_visible()
            page.context.set_offline(True)
            enter(page, angle)
            expect(page.get_by_text("No network, 1 kept here")).to_be_visible()
        # The first that comes back is entered; the other is told, and keeps what it read.
        dana.context.set_offline(False)
        expect(dana.get_by_text("All sent")).to_be_visible()
        marek.context.set_offline(False)
        expect(marek.get_by_role("region", name="Not entered")).to_contain_text(
            "already entered: 90.2° by Dana Wexcombe"
        )
        self.assertEqual(BendMade.objects.get().angle, 90.2)

    def test_two_who_changed_different_figures_without_a_network_find_both(self):
        dana, marek = self.with_the_list(), self.window("marek", installed=True)
        run = self.the_run()
        last = "End, pipe end at"
        for page, label, figure in ((dana, "Step 1, measure", "41 3/4"), (marek, last, "30")):
            page.goto(f"{self.live_server_url}/runs/{run.pk}/layout")
            expect_plan_of(page, run.document)
            page.context.set_offline(True)
            field(page, label).fill(figure)
            page.wait_for_timeout(1500)
        for page in (dana, marek):
            page.context.set_offline(False)
            saved(page)
        run.refresh_from_db()
        self.assertEqual((run.document["steps"][0]["at"], run.document["end"]["at"]), ("41 3/4", "30"))
        expect(field(dana, last)).to_have_value("30")

    def test_a_full_disk_of_the_phone_is_told_and_what_was_typed_stays(self):
        page = self.with_the_list()
        page.goto(f"{self.live_server_url}/jobs/{self.the_run().job_id}/stock")
        length = page.get_by_label("Length")
        length.fill("37 1/2")
        page.context.set_offline(True)
        page.evaluate(FULL)
        page.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_text("This device has no room to keep that, so it was not entered.")).to_be_visible()
        expect(length).to_have_value("37 1/2")
        page.evaluate("window.freed()")
        page.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_role("list", name="Not sent yet")).to_contain_text("37 1/2")

    def test_on_a_phone_that_two_share_each_finds_only_what_they_began(self):
        page = self.with_a_job()
        expect(page.get_by_text("only on this device")).to_be_visible()
        # It is sent only once its owner is there again.
        page.route("**/api/jobs", lambda route: route.abort() if route.request.method == "POST" else route.fallback())
        page.context.set_offline(False)
        page.get_by_role("button", name="Dana Wexcombe").click()
        page.get_by_role("menuitem", name="Sign out").click()
        expect(page.get_by_text("1 thing that you began here is not sent yet")).to_be_visible()
        page.get_by_role("alertdialog").get_by_role("button", name="Sign out").click()
        expect(page.get_by_label("Password")).to_be_visible()
        self.sign_in(page, "marek")
        expect(page.get_by_role("heading", name="Jobs")).to_be_visible()
        page.unroute("**/api/jobs")
        page.reload()
        expect(page.get_by_role("link", name=NAME)).to_be_visible()
        expect(page.get_by_text("Boiler room")).to_have_count(0)
        self.assertFalse(Job.objects.filter(name="Boiler room").exists())

    def test_what_the_program_of_yesterday_left_here_arrives(self):
        page = self.with_the_list()
        run, dana = self.the_run(), User.objects.get(username="dana")
        owner, now = f"{dana.membership.crew_id}.{dana.pk}", timezone.now().isoformat()
        page.context.set_offline(True)
        begun = {"id": -1700000000000, "job_id": run.job_id, "job_name": "", "version": 0, "key": str(uuid4())}
        begun |= {"saved_at": now, "saved_by": "Dana", "document": {**run.document, "name": "Yesterday"}, "note": ""}
        page.evaluate(PUT, ["crelda-runs", "runs", f"{owner} {begun['id']}", begun])
        cut = {"kind": "cut", "piece": 1, "key": str(uuid4()), "at": now}
        waits = {"owner": owner, "runId": run.pk, "act": cut, "refused": None}
        page.evaluate(PUT, ["crelda-outbox", "acts", None, waits])
        page.context.set_offline(False)
        page.reload()
        until(page, lambda: run.sticks.filter(cut_at__isnull=False).exists())
        until(page, lambda: [one.name for one in run.job.runs.all()].count("Yesterday") == 1)
        expect(page.get_by_role("link", name="Yesterday")).to_have_count(1)

    def test_a_piece_is_corrected_without_a_network_unless_another_did_so(self):
        page = self.with_the_list()
        page.goto(f"{self.live_server_url}/jobs/{self.the_run().job_id}/stock")
        kept(page, '"scraps"')
        page.context.set_offline(True)
        mine, theirs = Scrap.objects.order_by("pk")[:2]
        rack = page.get_by_role("complementary", name="Scrap rack")
        for scrap in (mine, theirs):
            rack.get_by_role("button").filter(has_text=scrap.tag).first.click()
            form = page.get_by_role("form", name=f"Correct {scrap.tag}")
            form.get_by_label("Length").fill("20 1/2")
            form.get_by_role("button").last.click()
        waits = page.get_by_role("list", name="Not sent yet")
        expect(waits.get_by_role("listitem")).to_have_count(2)
        # Meanwhile another measures the second one.
        as_measured = CorrectIn(material=theirs.material, trade_size=theirs.trade_size, length="19")
        correct(User.objects.get(username="marek"), theirs.pk, as_measured)
        page.context.set_offline(False)
        expect(waits.get_by_role("listitem")).to_have_count(1)
        expect(waits).to_contain_text("Somebody else changed it meanwhile")
        self.assertEqual([Scrap.objects.get(pk=one.pk).length for one in (mine, theirs)], [20.5, 19.0])
        waits.get_by_role("button", name="Discard it").click()
        expect(waits).to_have_count(0)
