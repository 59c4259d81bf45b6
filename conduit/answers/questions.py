"""The questions by name. A document that is none at all raises UnreadableDocument in each."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any, Generic, TypeVar

from pydantic import BaseModel

from conduit.answers.bench import BenchIn, BenchTold, bench_told
from conduit.answers.cuts import CutListIn, plain_cut_list
from conduit.answers.schema import (
    ClosingIn,
    CompareIn,
    MarksIn,
    NoteFault,
    NoteIn,
    NoteOut,
    PreviewIn,
    WaysIn,
)
from conduit.bending import NoSuchStick
from conduit.catalogue import Message, message, said_by
from conduit.cutting import CutList
from conduit.document import read_document
from conduit.findings import Finding
from conduit.mark_check import MarksDoNotMatch, MarksJudged, UnreadableMark, judge_marks
from conduit.notes import ComparedLine, compare, keeping, read_note, written_note
from conduit.plan import Plan, SharedClosing, Way, closing_of, make_plan, remedies_of, ways_of
from conduit.racks import Check, RackOption, RackPlan, make_rack_plan, rack_options
from conduit.tables import Limits

GivenT = TypeVar("GivenT", bound=BaseModel)
AnswerT = TypeVar("AnswerT")


class Unanswerable(ValueError):
    """There is no answer. `places` maps fields to what is wrong with them."""

    def __init__(self, says: Message, places: Mapping[str, Message] = MappingProxyType({})) -> None:
        super().__init__(says)
        self.places = places


@dataclass(frozen=True)
class Rules:
    """By what it is answered: a crew's limits, and how a pipe of a rack is checked (whoever keeps runs knows some)."""

    limits: Limits
    check: Check


def _plan(given: PreviewIn, rules: Rules) -> Plan:
    """The plan of a document."""
    return make_plan(given.document, rules.limits)


def _remedies(given: PreviewIn, rules: Rules) -> list[Finding]:
    """What is found of a document, with the changes that were tried and mend it."""
    return remedies_of(given.document, rules.limits)


def _rack(given: PreviewIn, rules: Rules) -> RackPlan:
    """The plan of its rack. Raises Unanswerable where it has none."""
    found = make_rack_plan(given.document, rules.limits, rules.check)
    if not found:
        raise Unanswerable(message("answers.no_rack"), {"rack": message("answers.not_there")})
    return found


def _rack_ways(given: WaysIn, rules: Rules) -> list[RackOption]:
    """Every way for the pipes beside a run to take one step."""
    return rack_options(given.document, given.step, rules.limits, rules.check)


def _ways(given: WaysIn, rules: Rules) -> list[Way]:
    """Every way to do one step."""
    return ways_of(given.document, given.step, rules.limits)


def _closing(given: ClosingIn, rules: Rules) -> SharedClosing:
    """Its closing error shared over the legs that are doubted. Raises Unanswerable where its end was not measured."""
    shared = closing_of(given.document, given.legs, rules.limits)
    if not shared:
        raise Unanswerable(message("answers.not_measured"), {"end.measured": message("answers.not_there")})
    return shared


def _marks(given: MarksIn, rules: Rules) -> MarksJudged:
    """What laid marks will make. Raises Unanswerable where one cannot be read, or there are not as many as bends."""
    try:
        return judge_marks(given.document, given.marks, given.cuts, rules.limits)
    except UnreadableMark as error:
        raise Unanswerable(message("answers.unreadable_mark"), {error.place: said_by(error)}) from error
    except MarksDoNotMatch as error:
        raise Unanswerable(message("answers.marks_not_checked", why=said_by(error))) from error


def _note_read(given: NoteIn, rules: Rules) -> NoteOut:
    """The document that a field note says."""
    note = read_note(given.text)
    faults = [NoteFault(line=fault.line, words=fault.words, says=fault.says) for fault in note.errors]
    document = keeping(note.document, given.before)
    return NoteOut(text=given.text, document=document, faults=faults, lines=dict(note.lines))


def _note_written(given: PreviewIn, rules: Rules) -> NoteOut:
    """The field note of a document."""
    read_document(given.document)
    note = written_note(given.document)
    return NoteOut(text=note.text, document=given.document, faults=[], lines=dict(note.lines))


def _compared(given: CompareIn, rules: Rules) -> list[ComparedLine]:
    """Two versions of a run, line by line of their field notes."""
    for document in (given.mine, given.theirs):
        read_document(document)
    return compare(given.mine, given.theirs)


def _bench(given: BenchIn, rules: Rules) -> BenchTold:
    """The bench of a run, with what was done there."""
    try:
        return bench_told(given, rules.limits)
    except NoSuchStick as error:
        raise Unanswerable(message("answers.no_bench", why=said_by(error))) from error


def _cut_list(given: CutListIn, rules: Rules) -> CutList:
    """A plain cut list of several runs."""
    return plain_cut_list(given, rules.limits)


@dataclass(frozen=True)
class Question(Generic[GivenT, AnswerT]):
    """A question by its name, the address at which a server is asked it: what it takes, and who answers it."""

    name: str
    given: type[GivenT]
    answer: Callable[[GivenT, Rules], AnswerT]


PLAN = Question("plan", PreviewIn, _plan)
REMEDIES = Question("remedies", PreviewIn, _remedies)
RACK = Question("pipe-rack", PreviewIn, _rack)
RACK_WAYS = Question("pipe-rack/ways", WaysIn, _rack_ways)
WAYS = Question("ways", WaysIn, _ways)
CLOSING = Question("closing", ClosingIn, _closing)
MARKS = Question("check-marks", MarksIn, _marks)
NOTE_READ = Question("note/read", NoteIn, _note_read)
NOTE_WRITTEN = Question("note/write", PreviewIn, _note_written)
COMPARED = Question("compare", CompareIn, _compared)
BENCH = Question("bench", BenchIn, _bench)
CUTS = Question("cut-list", CutListIn, _cut_list)
ALL: tuple[Question[Any, Any], ...] = (
    PLAN,
    REMEDIES,
    RACK,
    RACK_WAYS,
    WAYS,
    CLOSING,
    MARKS,
    NOTE_READ,
    NOTE_WRITTEN,
    COMPARED,
    BENCH,
    CUTS,
)
QUESTIONS: Mapping[str, Question[Any, Any]] = {question.name: question for question in ALL}
