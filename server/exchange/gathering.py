"""What the database has of a run or a job, as the writers of formats take it."""

from collections.abc import Iterator
from datetime import datetime

from conduit.bending import NoSuchStick
from conduit.catalogue import speaking, told
from formats.paper import PaperBar, PaperCut, PaperStick
from formats.sources import JobSource, RunSource
from formats.words import message
from server.accounts.limits import limits_of
from server.accounts.models import User, name_of
from server.bench.sheets import Benches
from server.cutting.planning import Cutting, terms_of
from server.cutting.schemas import BarOut
from server.cutting.view import cutting_out, to_bring
from server.exchange.models import Export
from server.jobs.models import Job, Run
from server.jobs.space import placed_runs
from server.shoes.models import shoes_by_name


def run_source(export: Export, run: Run, user: User) -> RunSource:
    """A run as it is saved, its sticks as they are on the bench."""
    with speaking(export.language):
        benches = Benches(run, user)
        sticks = list(_sticks(export, run, benches, user))
        return RunSource(run.name, run.document, limits_of(run.crew), _as_of(run), sticks)


def _sticks(export: Export, run: Run, benches: Benches, user: User) -> Iterator[PaperStick]:
    shoes = shoes_by_name(user)
    for piece in benches.pieces():
        try:
            stick = benches.stick_out(piece, shoes)
        except NoSuchStick:
            continue
        address = f"{export.origin}/runs/{run.pk}/bench/{piece}?card={stick.card}" if export.origin else ""
        cautions = tuple(told(one) for one in (stick.stale, *stick.shoe.cautions) if one)
        yield PaperStick(stick.sheet, stick.shoe.name, stick.used, address, cautions)


def _as_of(run: Run) -> str:
    return told(
        message(
            "paper.as_of",
            job=run.job.name,
            version=run.version,
            person=name_of(run.saved_by),
            moment=_moment(run.saved_at),
        )
    )


def _moment(at: datetime) -> str:
    return f"{at:%Y-%m-%d %H:%M} UTC"


def job_source(export: Export, job: Job, user: User) -> JobSource:
    """A job: its runs, where they stand, what is cut from what, and what to bring."""
    with speaking(export.language):
        cutting = Cutting.of(user, job.pk)
        runs = cutting.all_runs
        bars = tuple(_bar(bar) for bar in cutting_out(cutting).taken.bars)
        bring = tuple(to_bring(cutting, cutting.proposal(terms_of(cutting.job))))
    return JobSource(
        name=job.name,
        place=job.place,
        placed=placed_runs(job, runs),
        runs=tuple(run_source(export, run, user) for run in runs),
        bars=bars,
        bring=bring,
        as_of=_moment(export.asked_at),
    )


def _bar(bar: BarOut) -> PaperBar:
    cuts = tuple(
        PaperCut(
            length=cut.length.reads,
            saw_at=cut.end.reads,
            start=cut.start.inches,
            end=cut.end.inches,
            run=cut.run_name,
            piece=cut.piece,
            ends=f"A {cut.end_a}, B {cut.end_b}",
            done=cut.done_at is not None,
        )
        for cut in bar.cuts
    )
    left = f"{bar.offcut_tag} {bar.offcut.reads}".strip() if bar.offcut else ""
    return PaperBar(_called(bar), f"{bar.trade_size} {bar.material}", bar.length.inches, cuts, left)


def _called(bar: BarOut) -> str:
    if not bar.scrap:
        return told(message("paper.new_stick", name=bar.name, length=bar.length.reads))
    if not bar.place:
        return told(message("paper.scrap_of", name=bar.name, length=bar.length.reads))
    return told(message("paper.scrap_at", name=bar.name, length=bar.length.reads, place=bar.place))
