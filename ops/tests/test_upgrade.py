"""What earlier releases wrote is opened by this one: their demo crews, from backups that were made by them."""

from pathlib import Path

from ops.backup import load
from ops.dump import read_backup
from ops.tests.support import DatabaseCase, manage

EARLIER = Path(__file__).parent / "data"
# Everything that a person of the crew would open, and how many of each there are.
OPENED = """
from django.test import Client
from django.test.utils import setup_test_environment
from server.bench.models import BendMade
from server.demo.scene import PASSWORD
setup_test_environment()
crew = Client()
def get(path):
    answer = crew.get(f"/api{path}")
    assert answer.status_code == 200, (path, answer.content)
    return answer.json()
body = {"username": "dana", "password": PASSWORD}
assert crew.post("/api/session", body, content_type="application/json").status_code == 200
jobs = get("/jobs")
runs = [get(f"/runs/{run['id']}") for job in jobs for run in job["runs"]]
for job in jobs:
    get(f"/jobs/{job['id']}/cutting")
for run in runs:
    get(f"/runs/{run['id']}/revisions")
    bench = get(f"/runs/{run['id']}/bench")
    assert bench["sticks"] or not bench["makeable"], bench
    plan = crew.post("/api/plan", {"document": run["document"]}, content_type="application/json")
    assert plan.status_code == 200, plan.content
print(json.dumps({"jobs_job": len(jobs), "jobs_run": len(runs), "shoes_shoe": len(get("/shoes")),
    "stock_scrap": len(get("/rack")["scraps"]), "accounts_user": len(get("/people")["members"]),
    "bench_bendmade": get("/log") and BendMade.objects.count()}))
"""


class Upgrade(DatabaseCase):
    def test_data_of_earlier_releases_is_brought_up_to_date_and_opens(self):
        here = self.database_called("upgraded-db", demo=False)
        for file in sorted(EARLIER.glob("*.sql.gz")):
            with self.subTest(file.name):
                then = read_backup(file).tables
                load(here.url, file)
                manage(here, "migrate")
                found = self.told(here, OPENED)
                self.assertEqual(found, {name: then[name].rows if name in then else 0 for name in found})
