"""How far a run is, by all of its pieces."""

from server.bench.sheets import Benches, made_on
from server.jobs.models import Run, Status


def follow_status(run: Run, benches: Benches) -> None:
    """The run's status is what is true of all its pieces; what is begun beyond that is its progress."""
    pieces = benches.pieces()
    sheets = {piece: benches.sheet(piece) for piece in pieces}
    bends = sum(len(sheet.bends) for sheet in sheets.values())
    made = sum(1 for sheet in sheets.values() for bend in sheet.bends if bend.made)
    live = [benches.sticks.get(piece) for piece in pieces]
    cut = sum(1 for stick in live if stick and (stick.cut_at or made_on(stick)))
    fitted = sum(1 for stick in live if stick and stick.fitted_at)
    count = len(pieces)
    if count and fitted == count:
        run.status, run.progress = Status.FITTED, ""
    elif count and cut == count and made == bends:
        run.status, run.progress = Status.BENT, f"{fitted} of {count} fitted" if fitted else ""
    elif count and cut == count:
        run.status, run.progress = Status.CUT, f"{made} of {bends} bends" if made else ""
    else:
        run.status = Status.LAID_OUT if benches.now.plan.makeable else Status.MEASURED
        begun = [f"{cut} of {count} cut"] * bool(cut) + [f"{made} of {bends} bends"] * bool(made)
        run.progress = ", ".join(begun)
    run.behind = benches.behind()
    run.save(update_fields=["status", "progress", "behind"])
