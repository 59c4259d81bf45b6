"""How long it takes to give out a job of sixty runs in each format, how much memory, and how that grows with the job.

Each format in a process of its own, as a server makes it: seconds once its library is loaded, and the most memory.
"""

import json
import subprocess
import sys
import time
from pathlib import Path
from random import Random

from cli.bench_space import job
from cli.timing import told
from conduit.space import RunGiven
from conduit.tables import DEFAULT_LIMITS
from formats.exporting import export_job
from formats.sources import TO, To, Wanted, job_of

WHOLE, PART = 60, 15
# Of four times the runs, so many times the seconds at most.
MOST_GROWTH = 6.0
MEBIBYTE = 1024


def given_out() -> bool:
    """Whether no format's cost grows faster than the job."""
    # All of them are told.
    kept = [_grows_with_the_job(to) for to in TO]
    return all(kept)


def _grows_with_the_job(to: To) -> bool:
    part, whole = (_measured(to, count) for count in (PART, WHOLE))
    growth = whole["seconds"] / part["seconds"]
    kept = growth < MOST_GROWTH
    print(
        f"{WHOLE} runs as {to:<5} {whole['seconds']:7.2f} s   {whole['bytes'] / 1e6:6.2f} MB   peak "
        f"{whole['peak']:5.0f} MiB   {growth:4.1f} times {PART} runs, at most {MOST_GROWTH:.0f}: {told(kept)}"
    )
    return kept


def _measured(to: To, count: int) -> dict[str, float]:
    command = [sys.executable, "-m", "cli.bench_formats", to, str(count)]
    answer = subprocess.run(command, capture_output=True, text=True, check=True).stdout
    measured: dict[str, float] = json.loads(answer.splitlines()[-1])
    return measured


def _measure(to: To, count: int) -> dict[str, float]:
    boxes, runs = job(Random(1))
    export_job(job_of("Loading", boxes[:1], runs[:1], DEFAULT_LIMITS), Wanted(to))
    # A run that was planned to load the library is not met again.
    fresh = [RunGiven(run.key, {**run.document, "name": f"{run.document['name']} again"}) for run in runs[:count]]
    began = time.perf_counter()
    made = export_job(job_of("Hall", boxes[:count], fresh, DEFAULT_LIMITS), Wanted(to))
    seconds = time.perf_counter() - began
    return {"seconds": seconds, "bytes": len(made), "peak": _most_memory() / MEBIBYTE}


def _most_memory() -> float:
    """The most that this process held, in KiB; what usage tells begins with what the process that started it held."""
    [line] = [one for one in Path("/proc/self/status").read_text().splitlines() if one.startswith("VmHWM:")]
    return float(line.split()[1])


if __name__ == "__main__":
    print(json.dumps(_measure(sys.argv[1], int(sys.argv[2]))))  # type: ignore[arg-type]
