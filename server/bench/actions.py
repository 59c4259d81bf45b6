"""Every change at the bench: permission first, the run locked, each act done once or refused with its reason."""

from django.db import transaction
from django.shortcuts import get_object_or_404

from conduit.bender import Dial, Learned, LoggedBend, learn
from conduit.bending import BendAsMade, CannotBeDone, NoSuchStick, SheetBend, arranged_anew, tape_read, with_reading
from conduit.catalogue import told
from conduit.units import TOLERANCE
from server.accounts.models import User, name_of
from server.accounts.permissions import Right, require
from server.bench.carried import carried
from server.bench.meant import stick_meant
from server.bench.models import ActDone, BendMade, Stick
from server.bench.schemas import AnyAct, ArrangeAct, BenchOut, BendAct, BentAct, FitAct, Outcome, TakeIn
from server.bench.sheets import Benches, kept_of, made_on, shoe_state
from server.bench.staging import begun, cut_length_changed, stage, stage_done
from server.bench.status import follow_status
from server.errors import Conflict, Refused, as_sentence
from server.jobs.models import Run
from server.sentences import message
from server.shoes.actions import take_figures
from server.shoes.models import Shoe, shoes_by_name

A_DAY = 86400.0


def bench_of(user: User, run_id: int) -> BenchOut:
    """The bench of a run as it stands."""
    run = get_object_or_404(Run.objects.for_user(user).select_related("job", "rack_lead"), pk=run_id)
    return _told(Benches(run, user))


def _told(benches: Benches) -> BenchOut:
    """A bench as the API gives it, with what is carried over from other pipes of its rack."""
    return benches.out(carried(benches))


@transaction.atomic
def do_acts(user: User, run_id: int, acts: list[AnyAct]) -> tuple[list[Outcome], BenchOut]:
    """Do what was done at the bench, in turn, and tell of each whether it could be; and the bench as it then is."""
    require(user, Right.WORK)
    run = get_object_or_404(Run.objects.for_user(user).select_for_update(), pk=run_id)
    outcomes = []
    benches = Benches(run, user)
    for act in acts:
        try:
            with transaction.atomic():
                _do(user, benches, act)
            outcomes.append(Outcome(key=act.key, done=True))
        except (CannotBeDone, NoSuchStick, Conflict) as error:
            outcomes.append(Outcome(key=act.key, done=False, says=as_sentence(told(error))))
        benches = Benches(run, user, benches)
    follow_status(run, benches)
    return outcomes, _told(benches)


def _do(user: User, benches: Benches, act: AnyAct) -> None:
    run = benches.run
    _, is_new = ActDone.objects.get_or_create(crew=run.crew, key=act.key)
    if not is_new:
        return
    stick = stick_meant(benches, act)
    if act.version not in (None, run.version):
        # It may just have been begun as it was then.
        benches = Benches(run, user, benches)
    match act:
        case ArrangeAct():
            _arrange(user, benches, stick, act)
        case BentAct():
            _bent(user, benches, stick, act)
        case BendAct():
            _about_bend(stick, act)
        case FitAct():
            _looked_at(user, run, stick, act)
        case _:
            stage(user, run, stick, act)
            length = benches.sheet(stick.piece).cut.inches if act.source else None
            told = {"kind": act.kind, "source": act.source, "length": length}
            stage_done.send(Stick, user=user, run=run, piece=stick.piece, **told)


def _looked_at(user: User, run: Run, stick: Stick, act: FitAct) -> None:
    """The first who looked stays; a tick that is taken back is gone."""
    if act.kind == "checked":
        told = {"by": name_of(user), "at": act.at.isoformat()}
        stick.fit_checks.setdefault(act.item, told)
    else:
        stick.fit_checks.pop(act.item, None)
    begun(run, stick)


def _arrange(user: User, benches: Benches, stick: Stick, act: ArrangeAct) -> None:
    """Arrange a stick anew; what it is cut to follows, or what is left to spare where it is cut already."""
    before = benches.sheet(stick.piece)
    stick.arranged = arranged_anew(benches, kept_of(stick), act.arranged)
    stick.save()
    if stick.cut_at:
        return
    cut = benches.sheet_with(kept_of(stick), stick.piece, ()).cut.inches
    if abs(cut - before.cut.inches) > TOLERANCE:
        cut_length_changed.send(Stick, user=user, run=benches.run, piece=stick.piece, length=cut)


def _bent(user: User, benches: Benches, stick: Stick, act: BentAct) -> None:
    before = next((one for one in made_on(stick) if one.bend == act.bend), None)
    if before and not act.again:
        raise CannotBeDone(
            message("bench.bend.entered_already", bend=act.bend, angle=f"{before.angle:g}", by=name_of(before.by))
        )
    kept = kept_of(stick)
    tape = tape_read(benches, kept, act.bend, act.tape)
    reading = BendAsMade(bend=act.bend, angle=act.angle, tape=tape, turned=act.turned)
    bend = benches.bend_with(kept, act.bend, with_reading(kept.made, reading))
    if not bend.made:
        raise NoSuchStick(message("stick.no_bend", piece=act.piece, bend=act.bend))
    begun(benches.run, stick)
    at = act.at
    if before:
        before.live = None
        before.save(update_fields=["live"])
        at = before.at
    made = _record(user, benches, stick, act, bend)
    made.tape, made.at = tape, at
    made.save()


def _record(user: User, benches: Benches, stick: Stick, act: BentAct, bend: SheetBend) -> BendMade:
    """What is kept of a bend: planned and as read, and which figure of the shoe it shows."""
    bencher = benches.bent_on(kept_of(stick))
    shoes = shoes_by_name(user)
    used = bencher.shoe
    made = bend.made
    if not used or not made:
        raise NoSuchStick(message("bench.shoe.none"))
    set_on = next((one for one in bend.marks if (one.reference, one.hook) == (act.reference, bend.use.hook)), bend.use)
    figure = {"deduct": used.deduct, "gain": used.gain}.get(made.shows or "")
    return BendMade(
        crew=stick.crew,
        stick=stick,
        bend=act.bend,
        shoe_id=shoe_state(bencher, shoes).id,
        shoe_name=used.name,
        mark=set_on.at.inches,
        reference=set_on.reference,
        hook=set_on.hook,
        where=bend.where,
        planned_angle=bend.angle,
        dial=act.dial or used.dial.reads(bend.angle),
        angle=act.angle,
        turned=act.turned,
        tape_wanted=bend.tape.wanted.inches if bend.tape else None,
        within=made.within,
        out_by=made.out_by,
        advice=made.advice,
        shows=made.shows or "",
        figure=None if figure is None else figure + made.figure_off,
        by=user,
    )


def _about_bend(stick: Stick, act: BendAct) -> None:
    made = next((one for one in made_on(stick) if one.bend == act.bend), None)
    if not made:
        if act.kind == "unbent":
            return
        raise CannotBeDone(message("bench.bend.not_entered", bend=act.bend))
    if act.kind == "left":
        made.left = True
    else:
        made.live, made.taken_back = None, True
    made.save(update_fields=["left", "live", "taken_back"])


def learned_of(user: User, shoe_id: int) -> Learned:
    """What the log shows of a shoe."""
    return _learned(get_object_or_404(Shoe.objects.for_user(user), pk=shoe_id))


def _learned(shoe: Shoe) -> Learned:
    bends = list(shoe.bends.filter(live=True).order_by("at"))
    began = bends[0].at.timestamp() if bends else 0.0
    log = [
        LoggedBend(
            (one.at.timestamp() - began) / A_DAY,
            one.dial,
            one.angle,
            one.figure if one.shows == "deduct" else None,
            one.figure if one.shows == "gain" else None,
        )
        for one in bends
    ]
    return learn(shoe.to_core(), log)


@transaction.atomic
def take_learned(user: User, shoe_id: int, given: TakeIn) -> Shoe:
    """Take figures that the log proposes. Raises Refused where it does not propose them any more."""
    require(user, Right.WORK)
    shoe = get_object_or_404(Shoe.objects.for_user(user).select_for_update(), pk=shoe_id)
    learned = _learned(shoe)
    deduct, gain, dial = shoe.deduct, shoe.gain, Dial(shoe.dial_factor, shoe.dial_constant)
    if given.deduct and learned.deduct.proposed is not None:
        deduct = learned.deduct.proposed
    if given.gain and learned.gain.proposed is not None:
        gain = learned.gain.proposed
    if given.dial and learned.dial and learned.dial.proposed:
        dial = Dial(learned.dial.factor, learned.dial.constant)
    if (deduct, gain, dial) == (shoe.deduct, shoe.gain, Dial(shoe.dial_factor, shoe.dial_constant)):
        raise Refused(message("bench.learned.gone"))
    readings = {"bends": learned.dial.bends if learned.dial else learned.deduct.bends}
    return take_figures(user, shoe, "log", readings, deduct, gain, dial)
