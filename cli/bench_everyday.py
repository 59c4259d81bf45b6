"""Everyday runs: how many are refused or cautioned, by what they are bent of and on, and why."""

from collections import Counter
from collections.abc import Sequence

from cli.everyday import STOCKS, everyday_run
from cli.timing import told
from conduit.findings import Finding
from conduit.plan import check_run

RUNS = 400
MOST_REFUSED, MOST_CAUTIONED = 0.01, 0.15


def _codes(findings: Sequence[Finding], severity: str) -> set[str]:
    return {one.code.value for one in findings if one.severity == severity}


def everyday() -> bool:
    """Print a line for each kind of pipe, and the cautions; whether all shares are within their bounds."""
    print(f"\neveryday runs, {RUNS} of each kind: refused, cautioned, and why")
    cautions, kept = Counter[str](), True
    cautioned = 0
    for stock in STOCKS:
        found = [check_run(everyday_run(stock, seed)).findings for seed in range(RUNS)]
        stops, careful = ([_codes(one, severity) for one in found] for severity in ("stop", "caution"))
        refused = sum(map(bool, stops)) / RUNS
        kept &= refused <= MOST_REFUSED
        cautioned += sum(map(bool, careful))
        cautions.update(code for codes in careful for code in codes)
        why = Counter(code for codes in stops for code in codes)
        print(
            f"{stock.called:<24} refused {refused:6.2%}   cautioned {sum(map(bool, careful)) / RUNS:6.2%}   {dict(why)}"
        )
    share = cautioned / RUNS / len(STOCKS)
    listed = ", ".join(f"{code} {count / RUNS / len(STOCKS):.2%}" for code, count in cautions.most_common())
    print(f"cautions by code: {listed}")
    print(f"refused at most {MOST_REFUSED:.0%} of each kind: {told(kept)}")
    print(f"any caution in {share:.1%}, at most {MOST_CAUTIONED:.0%}: {told(share <= MOST_CAUTIONED)}")
    return kept and share <= MOST_CAUTIONED


if __name__ == "__main__":
    everyday()
