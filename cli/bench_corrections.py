"""Bends of everyday runs that come out wrong: what is advised after each, by what was wrong and what it is bent of."""

from collections import Counter
from random import Random
from typing import Any

from cli.everyday import STOCKS, everyday_run
from cli.timing import told
from conduit.bending import Bencher, BendAsMade, SheetBend

RUNS = 60
TAPES, ANGLES, ROLLS = (-1 / 4, -1 / 8, 1 / 8, 1 / 4), (-4, -2, -1, 1, 2, 4), (-5, -2, 2, 5)
# A tape that reads a little off is never a reason to begin anew.
MOST_SCRAP_BY_TAPE = 0.01


def corrections() -> bool:
    """Print what is advised after a reading that is off; whether hardly any is scrap for what the tape reads."""
    print(f"\nreadings that are off, {RUNS} runs of each kind: what is advised")
    rng, advised = Random(1), dict[str, Counter[str]]()
    for stock in STOCKS:
        for seed in range(RUNS):
            once = _once(everyday_run(stock, seed), rng)
            if not once:
                continue
            what, advice = once
            group = "machine" if stock.machine else "EMT" if stock.material == "EMT" else "heavy wall"
            for key in (what, f"{what}, {group}"):
                advised.setdefault(key, Counter())[advice] += 1
    for key, counts in sorted(advised.items()):
        shares = "   ".join(f"{advice} {count / counts.total():.0%}" for advice, count in counts.most_common())
        print(f"{key:<24} {shares}")
    scrap = advised["tape"]["scrap"] / advised["tape"].total()
    kept = scrap <= MOST_SCRAP_BY_TAPE
    print(f"scrap for a tape that reads 1/8 or 1/4 off: {scrap:.1%}, at most {MOST_SCRAP_BY_TAPE:.0%}: {told(kept)}")
    return kept


def _once(raw: dict[str, Any], rng: Random) -> tuple[str, str] | None:
    """One bend of a run's first stick read wrong, those before it as they were to be: what was off, what is advised."""
    bencher = Bencher(raw)
    if not bencher.plan.pieces or not bencher.plan.pieces[0].bends:
        return None
    sheet = bencher.sheet(1)
    at, what = rng.randrange(len(sheet.bends)), rng.choice(["tape", "angle", "roll"])
    *before, bend = sheet.bends[: at + 1]
    made = [BendAsMade(bend=one.number, angle=one.angle) for one in before]
    correction = bencher.sheet(1, made=[*made, _off(bend, what, rng)]).correction
    return (what, correction.advice) if correction else None


def _off(bend: SheetBend, what: str, rng: Random) -> BendAsMade:
    tape = bend.tape.wanted.inches + rng.choice(TAPES) if what == "tape" and bend.tape else None
    angle = bend.angle + (rng.choice(ANGLES) if what == "angle" else 0)
    return BendAsMade(bend=bend.number, angle=angle, tape=tape, turned=rng.choice(ROLLS) if what == "roll" else 0)


if __name__ == "__main__":
    corrections()
