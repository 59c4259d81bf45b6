"""How far a run is, by all of its pieces."""

from collections.abc import Iterator
from dataclasses import dataclass

from server.bench.sheets import Benches, made_on
from server.jobs.models import TO_CUT, Run, Status
from server.jobs.schemas import Begun


@dataclass(frozen=True)
class Done:
    """How many of a run's pieces are cut and fitted, and how many of its bends made."""

    pieces: int
    cut: int
    fitted: int
    bends: int
    made: int

    def status(self, makeable: bool) -> Status:
        """What is true of all pieces."""
        if self.pieces and self.fitted == self.pieces:
            return Status.FITTED
        if not self.pieces or self.cut < self.pieces:
            return Status.LAID_OUT if makeable else Status.MEASURED
        return Status.BENT if self.made == self.bends else Status.CUT

    def begun(self, status: Status) -> Iterator[Begun]:
        """What is begun beyond that."""
        if self.cut and status in TO_CUT:
            yield Begun(what="cut", done=self.cut, of=self.pieces)
        if self.made and status in (*TO_CUT, Status.CUT):
            yield Begun(what="bends", done=self.made, of=self.bends)
        if self.fitted and status == Status.BENT:
            yield Begun(what="fitted", done=self.fitted, of=self.pieces)


def follow_status(run: Run, benches: Benches) -> None:
    """The run's status is what is true of all its pieces; what is begun beyond that is told beside it."""
    done = _count(benches)
    run.status = done.status(benches.now.plan.makeable)
    run.begun = [one.model_dump() for one in done.begun(run.status)]
    run.behind = benches.behind()
    run.save(update_fields=["status", "begun", "behind"])


def _count(benches: Benches) -> Done:
    pieces = benches.pieces()
    sheets = {piece: benches.sheet(piece) for piece in pieces}
    live = [stick for stick in map(benches.rows.get, pieces) if stick]
    return Done(
        pieces=len(pieces),
        cut=sum(1 for stick in live if stick.cut_at or made_on(stick)),
        fitted=sum(1 for stick in live if stick.fitted_at),
        bends=sum(len(sheet.bends) for sheet in sheets.values()),
        made=sum(1 for sheet in sheets.values() for bend in sheet.bends if bend.made),
    )
