"""`crelda load`: many people at real work on a server and a database of their own; how long they wait for what."""

import csv
import json
import shutil
import subprocess
from pathlib import Path
from statistics import quantiles

from ops import install
from ops.children import free_port
from ops.database import Database
from ops.environment import server_environment
from ops.paths import PYTHON, ROOT, RUN, VENV
from ops.say import Stop, run, say
from ops.serving import serving
from ops.tables import bring_up_to_date

# People come within half a minute, as in the morning.
ARRIVE_WITHIN = 30
COLUMNS = {"Name": 14, "Request Count": 8, "Failure Count": 8, "50%": 7, "95%": 7, "99%": 7, "100%": 8}
HEADS = ("what", "asked", "failed", "p50", "p95", "p99", "max ms")
SIGN_IN = "sign in"
BOUND_MS, BOUNDED = 300, ("plan", "save", "act")


def load(people: int, seconds: int, processes: list[int]) -> None:
    """Print a table for each number of web processes. Raises Stop where with the last of them a bound is broken."""
    install.everything(for_tests=False)
    install.more_python_packages("load")
    # One process alone is measured to see how it grows; the bound holds for the most.
    broken = [_measured(people, seconds, count) for count in processes][-1]
    if broken:
        raise Stop(f"{'; '.join(broken)}.")


def _measured(people: int, seconds: int, processes: int) -> list[str]:
    database = Database("load-db")
    database.port = 0
    shutil.rmtree(database.data, ignore_errors=True)
    try:
        database.start()
        port = free_port()
        env = server_environment(database.url) | {"CRELDA_WORKERS": str(processes), "CRELDA_PORT": str(port)}
        bring_up_to_date(env)
        run([PYTHON, ROOT / "manage.py", "load_crowd", str(people)], "loading the crowd", ROOT, env)
        web = f"{processes} web {'process' if processes == 1 else 'processes'}"
        with serving(port, env, "load.log"):
            say(f"{people} people at work, {web}, {seconds} s …")
            return _told(_crowd(people, seconds, port, env), processes)
    finally:
        database.stop()
        shutil.rmtree(database.data, ignore_errors=True)


def _crowd(people: int, seconds: int, port: int, env: dict[str, str]) -> list[dict[str, str]]:
    """Let them work; locust's figures."""
    out = RUN / "load"
    shutil.rmtree(out, ignore_errors=True)
    out.mkdir()
    command: list[str | Path] = [VENV / "bin" / "locust", "--headless", "--locustfile", ROOT / "cli" / "load_people.py"]
    command += ["--host", f"http://127.0.0.1:{port}", "--users", str(people), "--run-time", f"{seconds}s"]
    command += [
        "--spawn-rate",
        str(max(1, people / ARRIVE_WITHIN)),
        "--csv",
        out / "crowd",
        "--only-summary",
        "--reset-stats",
    ]
    with (out / "locust.log").open("w") as log:
        subprocess.run(
            command, cwd=ROOT, env={**env, "PYTHONPATH": str(ROOT), "CRELDA_LOAD_OUT": str(out)}, stdout=log, stderr=log
        )
    with (out / "crowd_stats.csv").open() as file:
        rows = [row for row in csv.DictReader(file) if row["Name"] != SIGN_IN]
    return [_signing_in(json.loads((out / "sign-in.json").read_text())), *rows]


def _signing_in(waits: list[float]) -> dict[str, str]:
    """How long people waited who came within the first half minute, which is not counted in the rest."""
    parts = [f"{part:.0f}" for part in (quantiles(waits, n=100) if len(waits) > 1 else [0.0] * 99)]
    told = {"50%": parts[49], "95%": parts[94], "99%": parts[98], "100%": f"{max(waits, default=0):.0f}"}
    return {"Name": SIGN_IN, "Request Count": str(len(waits)), "Failure Count": "0", **told}


def _told(rows: list[dict[str, str]], processes: int) -> list[str]:
    """Print the table; what is wrong with it."""
    print("".join(head.rjust(width) for head, width in zip(HEADS, COLUMNS.values(), strict=True)))
    broken = []
    for row in rows:
        print("".join(row[name].rjust(width) for name, width in COLUMNS.items()))
        if int(row["Failure Count"]):
            broken.append(f"{row['Failure Count']} × {row['Name']} failed with {processes}")
        if row["Name"] in BOUNDED and float(row["95%"]) > BOUND_MS:
            broken.append(f"p95 of {row['Name']} is {row['95%']} ms with {processes}, at most {BOUND_MS} is wanted")
    return broken
