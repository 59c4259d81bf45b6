"""What a saw does to the records: a piece cut, a cut undone or gone wrong, bars used up, offcuts put on the rack.

Called within a transaction of `actions` or of the bench's acts, which have checked who asks and locked the rows.
"""

from collections.abc import Iterable

from django.utils import timezone

from conduit.catalogue import Message, said_by
from conduit.cutting import IN_AN_INCH, Kind, lies, nearest_sixteenth, whole_sixteenths
from conduit.units import UnreadableLength, format_length, parse_length
from server.accounts.models import User, name_of
from server.bench.staging import mark_cut, mark_set_aside, mark_uncut
from server.cutting.models import Bar, Cut
from server.cutting.planning import Cutting, terms_of
from server.errors import Conflict, Refused
from server.jobs.models import Job, Run
from server.sentences import message
from server.stock import keeping
from server.stock.actions import reserve
from server.stock.models import Ends, Scrap, What


def let_go_of(user: User, job: Job, cuts: Iterable[Cut]) -> None:
    """Give up pieces of a job (its row locked) that are not cut yet."""
    drop(cuts)
    close_finished(user, job)


def drop(cuts: Iterable[Cut]) -> None:
    """Pieces that are not cut yet and will not be cut so."""
    for cut in cuts:
        if cut.done_at is None:
            cut.live = None
            cut.save(update_fields=["live"])


def close_finished(user: User, job: Job) -> None:
    """Bars of which nothing more is to be cut: an untouched one goes back, of others the offcut."""
    for bar in Bar.objects.filter(job=job, live=True).select_related("scrap", "offcut"):
        if bar.cuts.filter(live=True).exclude(done_at=None).exists() or bar.spoiled:
            _finish(user, bar)
        elif not bar.cuts.filter(live=True).exists():
            if bar.scrap:
                keeping.let_go(user, bar.scrap)
            bar.live = None
            bar.save(update_fields=["live"])


def _finish(user: User, bar: Bar) -> None:
    """After the last cut of a bar what is left of it goes to the rack."""
    if bar.offcut is None and not bar.cuts.filter(live=True, done_at=None).exists():
        _offcut(user, bar)


def _offcut(user: User, bar: Bar) -> None:
    """What is left of a bar goes to the rack, if it is worth keeping."""
    if bar.left < bar.keep:
        return
    tag = bar.offcut_tag or keeping.new_tags(bar.crew, 1)[0]
    ends = {"end_a": Ends.CUT, "end_b": _far_end(bar)}
    place = bar.scrap.place if bar.scrap else ""
    scrap = Scrap(
        crew=bar.crew,
        tag=tag,
        material=bar.material,
        trade_size=bar.trade_size,
        length=bar.left / IN_AN_INCH,
        place=place,
        **ends,
    )
    bar.offcut = keeping.put_offcut(user, scrap, What.OFFCUT, f"of {bar.name}")
    bar.offcut_tag = tag
    bar.save(update_fields=["offcut", "offcut_tag"])


def _far_end(bar: Bar) -> str:
    """How the end is that the tape is not hooked on."""
    if not bar.scrap:
        return Ends.FACTORY
    return bar.scrap.end_b if bar.begin == "A" else bar.scrap.end_a


def called(cut: Cut) -> Message:
    """What a message calls a piece: its run and its number."""
    return message(
        "cutting.called.piece", run=cut.run.document.get("name") or message("cutting.called.the_run"), piece=cut.piece
    )


def _to_be_cut(user: User, cut: Cut) -> None:
    if cut.done_at is not None:
        raise Conflict(message("cutting.cut.done_already", piece=called(cut), done_by=name_of(cut.done_by)))
    if not cut.live:
        raise Conflict(message("cutting.cut.other_bar", piece=called(cut), bar=cut.bar.name))
    if not Cutting(cut.run.job).fits(cut):
        raise Conflict(message("cutting.cut.run_changed", piece=called(cut)))


def confirm_at_bench(user: User, cut: Cut) -> None:
    """A piece that was cut at the bench was cut as planned; where its run changed since, it is no longer the plan's."""
    if Cutting(cut.run.job).fits(cut):
        confirm(user, cut, cut.length, at_bench=True)
    else:
        drop([cut])
        close_finished(user, cut.run.job)


def cut_from_scrap(user: User, run: Run, piece: int, tag: str, inches: float) -> None:
    """A piece was cut at the bench from a scrap that no plan chose: the rack and the ledger follow. Raises Conflict."""
    plan, length = Cutting(run.job).plan_of(run), nearest_sixteenth(inches)
    own = next((one for one in plan.pieces if one.number == piece), None)
    scrap = reserve(user, [tag], run.job)[0]
    kind = Kind(plan.material, plan.trade_size)
    if not own or (scrap.material, scrap.trade_size) != (kind.material, kind.trade_size):
        raise Conflict(
            message(
                "cutting.cut.other_pipe",
                tag=tag,
                trade_size=scrap.trade_size,
                material=scrap.material,
                kind=kind.name,
            )
        )
    limits, whole = terms_of(run.job).for_kind(kind), whole_sixteenths(scrap.length)
    bar = Bar(crew=run.crew, job=run.job, name=tag, scrap=scrap, material=kind.material, trade_size=kind.trade_size)
    bar.length, bar.left, bar.keep = whole, whole, limits.keep
    bar.save()
    start, end = lies(plan, own)
    cut = Cut(crew=run.crew, bar=bar, order=0, run=run, piece=piece, start=start, end=end, length=length)
    cut.kerf = limits.kerf
    cut.save()
    confirm(user, cut, length, at_bench=True)


def take_back_at_bench(user: User, cut: Cut) -> None:
    """That a piece was cut was a mistake, told at the bench."""
    undo(user, cut, at_bench=True)


def confirm(user: User, cut: Cut, took: int, at_bench: bool = False) -> None:
    """A piece is cut: `took` of the bar and a kerf are gone, the rack and the ledger follow."""
    _to_be_cut(user, cut)
    bar = cut.bar
    if took > bar.left:
        raise Conflict(message("cutting.cut.too_little_left", bar=bar.name, length=_reads(bar, bar.left)))
    if bar.scrap and not bar.cuts.exclude(done_at=None).filter(live=True).exists():
        keeping.cut_into(user, bar.scrap, f"{_reads(bar, took)} for {called(cut)}")
    bar.left = max(0, bar.left - took - cut.kerf)
    bar.save(update_fields=["left"])
    cut.done_at, cut.done_by, cut.came_out = timezone.now(), user, took if took != cut.length else None
    cut.save(update_fields=["done_at", "done_by", "came_out"])
    _finish(user, bar)
    if not at_bench:
        mark_cut(user, cut.run, cut.piece)


def undo(user: User, cut: Cut, at_bench: bool = False) -> None:
    """A cut was confirmed by mistake. Only the last one of a bar can be undone, while its offcut is there."""
    bar = cut.bar
    if cut.done_at is None or not cut.live:
        raise Conflict(message("cutting.uncut.not_cut", piece=called(cut)))
    last, *others = bar.cuts.filter(live=True).exclude(done_at=None).order_by("-done_at", "-order")
    if last.pk != cut.pk:
        raise Conflict(message("cutting.uncut.later_first", bar=bar.name, piece=last.piece))
    if bar.offcut:
        keeping.remove_offcut(user, bar.offcut)
    if not at_bench:
        mark_uncut(user, cut.run, cut.piece)
    # The last kerf may have run out of the bar: what was there before follows from the cuts that stay.
    taken = sum((one.came_out or one.length) + one.kerf for one in others)
    bar.left, bar.offcut = max(0, bar.length - bar.squared - bar.spoiled - taken), None
    bar.save(update_fields=["left", "offcut"])
    cut.done_at = cut.done_by = cut.came_out = None
    cut.save(update_fields=["done_at", "done_by", "came_out"])
    if bar.scrap and not others and not bar.spoiled:
        keeping.uncut(user, bar.scrap, bar.job, f"cut for {called(cut)}")


def cut_wrong(user: User, cut: Cut, length: str) -> None:
    """The piece came out at another length: too long it serves, too short it is scrap and another must be cut."""
    try:
        came_out = nearest_sixteenth(parse_length(length, cut.bar.crew.tape))
    except UnreadableLength as error:
        raise Refused(message("cutting.length.unusable"), {"length": said_by(error)}) from error
    if came_out <= 0:
        raise Refused(
            message("cutting.length.unusable"),
            {"length": message("cutting.length.nothing")},
        )
    if came_out >= cut.length:
        confirm(user, cut, came_out)
        _drop_what_does_not_fit(cut.bar)
        _finish(user, cut.bar)
        return
    _to_be_cut(user, cut)
    bar = cut.bar
    if came_out > bar.left:
        raise Conflict(message("cutting.cut.too_little_left", bar=bar.name, length=_reads(bar, bar.left)))
    if bar.scrap and bar.scrap.taken_at is None:
        keeping.cut_into(user, bar.scrap, f"cut wrong at {_reads(bar, came_out)} for {called(cut)}")
    bar.left, bar.spoiled = max(0, bar.left - came_out - cut.kerf), bar.spoiled + came_out + cut.kerf
    bar.save(update_fields=["left", "spoiled"])
    if came_out >= bar.keep:
        tag = keeping.new_tags(bar.crew, 1)[0]
        kind = {"material": bar.material, "trade_size": bar.trade_size}
        scrap = Scrap(crew=bar.crew, tag=tag, length=came_out / IN_AN_INCH, **kind)
        keeping.put_offcut(user, scrap, What.SPOILED, f"of {bar.name}, for {called(cut)}")
    _drop_what_does_not_fit(bar)
    _finish(user, bar)


def to_rack(user: User, cut: Cut) -> None:
    """A piece that is cut serves its run no longer: it goes on the rack, and its place is to be planned again.

    Raises Conflict where it is not cut, or bent already.
    """
    if cut.done_at is None or not cut.live:
        raise Conflict(message("cutting.uncut.not_cut", piece=called(cut)))
    mark_set_aside(user, cut.run, cut.piece)
    cut.live = None
    cut.save(update_fields=["live"])
    kind = {"material": cut.bar.material, "trade_size": cut.bar.trade_size}
    length = (cut.came_out or cut.length) / IN_AN_INCH
    scrap = Scrap(crew=cut.crew, tag=keeping.new_tags(cut.crew, 1)[0], length=length, **kind)
    keeping.put_offcut(user, scrap, What.OFFCUT, f"cut for {called(cut)}")
    close_finished(user, cut.bar.job)


def cut_to(cut: Cut, length: int) -> None:
    """A piece that is not cut yet is to be so many sixteenths. Raises Conflict where its bar has no room for that."""
    bar = cut.bar
    others = [one.length + one.kerf for one in bar.cuts.filter(live=True, done_at=None).exclude(pk=cut.pk)]
    room = bar.left - sum(others)
    if length > room:
        room_left = {"length": _reads(bar, length), "bar": bar.name, "room": _reads(bar, max(0, room))}
        raise Conflict(message("cutting.cut.no_room", piece=called(cut), **room_left))
    cut.length = length
    cut.save(update_fields=["length"])


def _drop_what_does_not_fit(bar: Bar) -> None:
    """Pieces that the rest of a bar does not hold are to be planned again, the longest first."""
    waiting = sorted(bar.cuts.filter(live=True, done_at=None), key=lambda one: one.length)
    while waiting and sum(one.length + one.kerf for one in waiting) - waiting[-1].kerf > bar.left:
        dropped = waiting.pop()
        dropped.live = None
        dropped.save(update_fields=["live"])


def _reads(bar: Bar, sixteenths: int) -> str:
    return format_length(sixteenths / IN_AN_INCH, bar.crew.tape)
